"""Trouble without a visit: rough plates, what did not come to an end, a second look."""

from typing import Any

import pytest

from tests.core.systems import GAL, GPM
from zerodip.errors import InvalidInput
from zerodip.fileformat.as_typed import as_typed
from zerodip.kinds.registry import KINDS
from zerodip.units import PSI
from zerodip.visit.rough_plates import rough_of, rough_system
from zerodip.visit.trouble_asked import asked_trouble, read_trouble


def told(*evidence: dict[str, Any], **more: Any) -> Any:
    return asked_trouble({"kind": "well_bladder", "evidence": list(evidence), **more}, "us")


def test_what_is_read_of_the_plates_stands_for_the_usual_and_is_no_assumption() -> None:
    of = rough_system(
        "well_bladder",
        {"cut_in_gauge_pa": 30 * PSI, "cut_out_gauge_pa": 50 * PSI, "volume_m3": 20 * GAL},
    )
    assert of.settings.pre_charge_gauge_pa == pytest.approx(28 * PSI)
    figures = of.figures()
    assert figures.is_assumed("system.pump")
    assert not figures.is_assumed("system.tanks")
    big = rough_system("well_bladder", {"volume_m3": 86 * GAL, "flow_m3_s": 5 * GPM}).figures()
    assert big.run_s > 3 * figures.run_s  # type: ignore[attr-defined]


def test_the_plates_decide_what_a_run_means() -> None:
    run = {"item": "run", "value": 60.0}
    usual = told(run)
    assert usual.suspects[0].id == "healthy"
    big = told(run, plates={"volume_m3": 119 * GAL, "flow_m3_s": 5 * GPM})
    assert big.suspects[0].remedy == "air" or big.suspects[0].id == "burst"


def test_usual_plates_are_no_evidence_that_something_went_astray() -> None:
    """30/50 and 28 psi of air where nobody read the switch: neither points nor air are out of
    place, and a run half as long says little."""
    seen = (("cut_in", 30 * PSI), ("cut_out", 50 * PSI), ("pre_charge", 28 * PSI), ("run", 37.0))
    made = told(*({"item": item, "value": value} for item, value in seen))
    assert made.suspects[0].id == "healthy"
    by = {each.id: each.probability for each in made.suspects}
    assert by.get("points", 0) < 0.1 > by.get("air_low", 0)
    read = told(
        *({"item": item, "value": value} for item, value in seen),
        plates={"cut_in_gauge_pa": 40 * PSI, "cut_out_gauge_pa": 60 * PSI},
    )
    assert "points" in {each.id for each in read.suspects[:2]}


@pytest.mark.parametrize(
    ("raw", "path"),
    [
        ({"kind": "tankless", "plates": {"volume_m3": 0.1}}, "plates.volume_m3"),
        ({"kind": "cistern", "plates": {"luck": 1}}, "plates.luck"),
        ({"kind": "cistern", "plates": [1]}, "plates"),
        ({"kind": "cistern", "plates": {"cut_in_gauge_pa": "x"}}, "settings.cut_in_gauge_pa"),
        ({"kind": "cistern", "plates": {"cut_in_gauge_pa": 9e7}}, "settings.cut_in_gauge_pa"),
        ({"kind": "cistern", "evidence": [{"item": "run", "value": False}]}, "evidence.0.value"),
        (
            {"kind": "cistern", "evidence": [{"item": "run", "value": 3, "again": 1}]},
            "evidence.0.again",
        ),
        ({"kind": "cistern", "evidence": [{"item": "cut_in", "value": True}]}, "evidence.0.value"),
        ({"kind": "cistern", "evidence": [{"item": "run", "value": "38 psi"}]}, "evidence.0.value"),
        ({"kind": "cistern", "evidence": [{"item": "run", "luck": 1}]}, "evidence.0.luck"),
        ({"kind": "cistern", "plates": {"volume_m3": "20 psi"}}, "system.tanks.0.volume_m3"),
        ({"kind": "cistern", "luck": 1}, "luck"),
        ({"kind": "cistern", "impossible": ["run", "luck"]}, "impossible.1"),
    ],
)
def test_what_cannot_be_is_refused_by_field(raw: dict[str, Any], path: str) -> None:
    with pytest.raises(InvalidInput) as refused:
        read_trouble({"evidence": [], **raw})
    assert path in [fault.path for fault in refused.value.faults]


def test_what_is_asked_of_a_kind_s_plates_can_be_given() -> None:
    for kind in KINDS:
        assert set(rough_of(kind)) >= {"cut_in_gauge_pa", "cut_out_gauge_pa"}
        rough_system(kind, {"cut_in_gauge_pa": 41 * PSI})


def test_a_rest_that_does_not_end_speaks_for_a_tight_plant() -> None:
    alone = {"item": "alone", "value": True}
    tight = told(alone, {"item": "rest", "value": True})
    soon = told(alone, {"item": "rest", "value": 200.0})
    of = {each.id: each.probability for each in soon.suspects}
    by = {each.id: each.probability for each in tight.suspects}
    assert sum(of[id] for id in ("house_leak", "check_valve")) > 0.8
    assert by.get("house_leak", 0) < of["house_leak"]
    assert "does not start" in tight.evidence[-1].says or "does not start" in tight.evidence[0].says


def test_a_second_look_that_says_otherwise_takes_back_what_the_first_was_worth() -> None:
    first = told({"item": "water_at_valve", "value": True}, {"item": "clicks", "value": True})
    again = told(
        {"item": "water_at_valve", "value": True},
        {"item": "water_at_valve", "value": False, "again": True},
        {"item": "clicks", "value": True},
    )
    twice = told(
        {"item": "water_at_valve", "value": True},
        {"item": "water_at_valve", "value": True, "again": True},
        {"item": "clicks", "value": True},
    )

    def burst(of: Any) -> float:
        return sum(each.probability for each in of.suspects if each.id == "burst")

    assert burst(again) < burst(first) < burst(twice)
    assert any(each.says.endswith("once more") for each in twice.evidence)


def test_a_figure_may_be_typed_with_its_unit() -> None:
    """20 gal, 9 psi and a minute and a half, whatever they are typed in."""
    plates = {"volume_m3": "20 gal", "cut_in_gauge_pa": "2,76 bar", "cut_out_gauge_pa": "414 kPa"}
    seen = ({"item": "pre_charge", "value": "9 psi"}, {"item": "run", "value": "1.5 min"})
    typed = told(*seen, plates=plates)
    plain = told(
        {"item": "pre_charge", "value": 9 * PSI},
        {"item": "run", "value": 90.0},
        plates={"volume_m3": 20 * GAL, "cut_in_gauge_pa": 2.76e5, "cut_out_gauge_pa": 4.14e5},
    )
    assert typed == plain
    assert as_typed("12", "pressure") == "12"  # no unit, no figure
    assert as_typed("3 cfm", "air_flow") == pytest.approx(3 * 0.028316846592 / 60)


def test_with_nothing_said_it_asks_what_a_call_begins_with() -> None:
    made = told()
    assert {"clicks", "silent"} <= {each.item for each in made.check.items}
    assert not made.suspects
    assert not made.ends


def test_a_point_that_stands_alone_keeps_the_usual_differential() -> None:
    """33.3 psi of cut-out is no fault against a cut-in that nobody read."""
    of = rough_system("well_bladder", {"cut_out_gauge_pa": 33.3 * PSI}).settings
    assert of.cut_out_gauge_pa == pytest.approx(33.3 * PSI)
    assert 0 < of.cut_in_gauge_pa < of.cut_out_gauge_pa - 10 * PSI
    assert told({"item": "cut_out", "value": 33.3 * PSI}).suspects[0].id == "healthy"
    high = rough_system("well_bladder", {"cut_in_gauge_pa": 62 * PSI}).settings
    assert high.cut_out_gauge_pa == pytest.approx(82 * PSI)
