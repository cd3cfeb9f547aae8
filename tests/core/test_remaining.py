"""Whatever a visit found is put right or said to remain, and nothing that is said contradicts
itself. Common practice, no source, where no formula is named."""

import random
import re
from dataclasses import replace
from typing import Any

import pytest

from zerodip.documents.report import report
from zerodip.kinds.registry import KINDS
from zerodip.units import PSI
from zerodip.visit.view import visit_view

from .systems import air_settings, compressor, entries
from .test_visit import FOUND, document, seen, view

DRAINED = (("safe.power_off", True), ("safe.proved_dead", True), ("safe.drained", True))
# What can be found, and the id by which it remains.
FINDINGS: dict[str, tuple[tuple[str, Any], ...]] = {
    "burst": (("found.water_at_valve", True),),
    "found.leaks": (("found.leaks", True),),
    "found.corrosion": (("found.corrosion", True),),
    "prove.dip": (("prove.dip", True),),
    "measured.run": (("lap", {"run_s": 3.0, "rest_s": None}),),
    "power": (("safe.power_off", True), ("safe.proved_dead", True)),
    "not_watched": (("set.turned", {"first": 1.0, "second": 0.0, "after": 0}),),
    "not_set": (("try", seen(30, 50, 2)),),
}


def ids(*pairs: tuple[str, Any], **asked: Any) -> set[str]:
    return {each.id for each in view(*pairs, **asked).handover.remaining}


def test_every_finding_remains_and_only_what_was_found() -> None:
    rng, clean = random.Random(7), ids(*FOUND, ("air.left", 38 * PSI))
    assert not clean & set(FINDINGS)
    for _ in range(60):
        drawn = rng.sample(sorted(FINDINGS), rng.randint(1, 4))
        if {"not_watched", "not_set"} <= set(drawn):
            continue
        records = [pair for name in drawn for pair in FINDINGS[name]]
        told = ids(*FOUND, ("air.left", 38 * PSI), *records)
        assert set(drawn) <= told, drawn
        assert told & set(FINDINGS) == set(drawn), drawn


def test_what_was_seen_stands_beside_what_is_worked_out_and_what_was_begun_does_not() -> None:
    told = view(*FOUND, ("found.earth_missing", True), ("found.run", 6.4)).handover.remaining
    seen = {each.id: each.seen for each in told}
    assert seen["found.earth_missing"]
    assert seen["run_found"]
    assert not any(each.seen for each in told if each.verdict == "cannot_tell")
    assert not seen.get("power", False)


@pytest.mark.parametrize(("run_s", "apart"), [(6.4, True), (58.0, False), (240.0, False)])
def test_a_run_far_shorter_than_its_plates_and_readings_tell_is_named_first(
    run_s: float, apart: bool
) -> None:
    """44 gal at 30 to 38 psi of air, 33/51: some 10 gal by the gas law, at 10 gpm about a minute.
    Taps that were open make a run longer: that is no contradiction."""
    air = ("found.pre_charge", 30 * PSI)
    for read, says in ((air,), "one of them is not so"), ((), "read the air"):
        records = (*FOUND, *read, ("found.run", run_s), ("found.contacts", True))
        told = view(*records).handover.remaining
        run = next((each for each in told if each.id == "run_found"), None)
        assert (says in (run.advice if run else "")) == apart
        if apart:
            cautions = [each.id for each in told if each.verdict == "caution"]
            assert cautions[0] == "run_found"


@pytest.mark.parametrize("units", ["us", "metric", "kpa"])
def test_page_and_report_say_the_same(units: str) -> None:
    records = (*FOUND, *(pair for name in ("burst", "found.leaks") for pair in FINDINGS[name]))
    page = visit_view(document(), entries(*records), units).handover.remaining
    paper = report(document(), entries(*records), units).remaining
    assert page == paper
    assert [each.verdict for each in page] == sorted(
        (each.verdict for each in page), key=("stop", "caution", "cannot_tell").index
    )


@pytest.mark.parametrize("left", [None, 20.0, 38.0])
@pytest.mark.parametrize("found", [0.0, 9.0, 26.0, 38.0, 45.0])
def test_a_burst_bladder_is_never_told_to_be_filled(found: float, left: float | None) -> None:
    pairs: list[tuple[str, Any]] = [
        *DRAINED,
        ("found.pre_charge", found * PSI),
        ("found.water_at_valve", True),
    ]
    pairs += [] if left is None else [("air.left", left * PSI)]
    told = view(*pairs)
    assert told.air is not None
    assert (told.air.shut, told.air.right) == ("burst", False)
    said = [told.air.says, told.air.means, *(each.advice for each in told.handover.remaining)]
    said += [each.title for each in told.handover.remaining]
    wrong = r"Add \d|Let (air )?out|Set \d|[Ss]oap|the pre-charge (by|to)"
    assert [line for line in said if re.search(wrong, line)] == []
    assert told.handover.remaining[0].id == "burst"
    paper = report(document(), entries(*pairs))
    assert (paper.figures, paper.chart) == ((), None)  # no drawdown of a tank that has none
    assert report(document(), entries(*DRAINED)).figures


def test_no_air_while_the_valve_shows_what_the_gauge_does() -> None:
    """A tank under water pressure shows the system's pressure at its valve."""
    undrained = view(("found.gauge", 52 * PSI), ("found.pre_charge", 51 * PSI)).air
    assert undrained is not None
    assert undrained.shut == "undrained"
    assert "Add" not in undrained.says
    read_again = view(("found.gauge", 52 * PSI), *DRAINED, ("found.pre_charge", 31 * PSI)).air
    assert read_again is not None
    assert "Add 7 psi" in read_again.says
    same = (("found.gauge", 40 * PSI), *DRAINED, ("found.pre_charge", 40 * PSI))
    assert view(*same).air.shut == "undrained"  # type: ignore[union-attr]
    settled = view(*same, ("safe.gauge_at_zero", True)).air
    assert settled is not None
    assert "Let out 2 psi" in settled.says
    undone = view(*same, ("safe.gauge_at_zero", True), ("safe.power_up", True)).air
    assert undone is not None
    assert undone.shut


def test_air_found_wrong_and_left_alone_remains() -> None:
    found = dict(FOUND) | {"found.pre_charge": 26 * PSI}
    assert "air_not_set" in ids(*found.items())
    assert "air_not_set" not in ids(*found.items(), ("air.left", 38 * PSI))
    lost = document(system__found={"last_pre_charge_gauge_pa": 38 * PSI, "last_years_ago": 2.0})
    assert "air_loss" in ids(*found.items(), ("air.left", 38 * PSI), of=lost)


@pytest.mark.parametrize("kind", KINDS)
def test_what_was_not_read_remains_on_every_kind(kind: str) -> None:
    of = document(system__kind=kind) if kind.startswith("well") else None
    told = view(of=of).handover.remaining if of else view().handover.remaining
    missing = next(each for each in told if each.id == "not_read")
    assert missing.advice.startswith("Cut-in as found, cut-out as found")
    assert all(len(each.advice.split()) < 40 and each.urgent for each in told)


def test_handing_over_says_what_was_done_what_remains_and_what_is_open() -> None:
    low_plate = document(system__tanks__0__max_gauge_pa=50 * PSI)
    off = (("safe.power_off", True), ("safe.proved_dead", True))
    over = view(
        *FOUND,
        *off,
        ("try", seen(36, 56, 2)),
        ("air.left", 30 * PSI),
        ("air.cap", True),
        of=low_plate,
    ).handover
    assert [(row.title, row.left) for row in over.rows][:2] == [
        ("Cut-in", 36 * PSI),
        ("Cut-out", 56 * PSI),
    ]
    assert {check.id for check in over.checks if check.done} == {"cap"}
    assert over.remaining[0].verdict == "stop"
    assert {"power", "air_not_set", "not_set"} <= {each.id for each in over.remaining}
    machine = replace(document(), system=compressor(), settings=air_settings())
    assert {"cock_shut", "label"} <= {check.id for check in view(of=machine).handover.checks}
    assert view(("signed", "A. Technician")).handover.signed == "A. Technician"


def test_one_pre_charge_is_asked_for_where_neither_air_nor_points_were_set() -> None:
    left = view(
        ("found.cut_in", 30 * PSI), ("found.cut_out", 52 * PSI), ("found.pre_charge", 15 * PSI)
    ).handover.remaining
    asked = [each for each in left if re.search(r"Set [\d.]+ psi", each.advice)]
    assert [each.id for each in asked] == ["air_not_set"]
