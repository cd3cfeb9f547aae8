"""Usual values that nobody read: marked in the file, and nothing certain rests on them."""

import copy
import random
from typing import Any

import pytest

from tests.core.systems import file
from zerodip.decide.judge import decide
from zerodip.decide.propose import propose
from zerodip.decide.summary import summarize
from zerodip.errors import InvalidInput
from zerodip.fileformat.document import read_document, value_at
from zerodip.fileformat.templates import template_file
from zerodip.kinds.findings import findings_of, unread_of
from zerodip.kinds.limits import highest_allowed_pa, limits_to_read
from zerodip.kinds.registry import KINDS, kind_of
from zerodip.kinds.tankless.figures import TanklessFigures
from zerodip.rules.engine import Verdict, run
from zerodip.units import PSI

READ = {
    "demand": {"peak_draw_m3_s": 4e-4, "daily_m3": 1.0, "highest_tap_m": 4.0},
    "supply": {"yield_m3_s": 8e-4, "lowest_inlet_gauge_pa": 1e5, "highest_inlet_gauge_pa": 2e5},
    "relief": {"present": True, "setting_gauge_pa": 75 * PSI},
}


def template(kind: str, **changes: Any) -> dict[str, Any]:
    """A new system's file, with a few things read."""
    made = template_file(kind, "New one")
    for name in READ if kind not in ("compressor", "tankless") else ():
        made["system"][name] = dict(READ[name])
    if kind == "compressor":
        made["system"]["use"] = {"use_m3_s": 2e-3}
    for path, value in changes.items():
        *steps, last = path.split("__")
        value_at(made, ".".join(steps))[last] = value
    return made


@pytest.mark.parametrize("kind", KINDS)
def test_a_new_system_marks_every_usual_value_and_keeps_the_marks(kind: str) -> None:
    document = read_document(template_file(kind, "New one"))
    assert "settings.cut_in_gauge_pa" in document.system.assumed
    assert "system.switch.nuts" in document.system.assumed
    assert len(document.system.assumed) >= 6
    assert read_document(document.as_json()) == document
    usual = decide(document.system, document.settings).usual
    assert {each.path for each in usual} == set(document.system.assumed)
    assert all(each.title for each in usual)


@pytest.mark.parametrize(
    ("marks", "path"),
    [
        ({"system.tanks.0.colour": True}, "system.assumed.system.tanks.0.colour"),
        ({"elsewhere": True}, "system.assumed.elsewhere"),
        ({"system.tanks.0.volume_m3": 1}, "system.assumed"),
        (["system.tanks.0.volume_m3"], "system.assumed"),
        ({f"system.tanks.{k}.volume_m3": True for k in range(61)}, "system.assumed"),
        ({"x" * 121: True}, "system.assumed"),
    ],
)
def test_marks_that_name_nothing_are_refused(marks: Any, path: str) -> None:
    with pytest.raises(InvalidInput) as caught:
        read_document(file(system__assumed=marks))
    assert path in {fault.path for fault in caught.value.faults}


def _elsewhere(raw: dict[str, Any], rng: random.Random) -> dict[str, Any]:
    """The file as it may turn out: each usual value of the plant from half to twice (tanks, flows
    and outlets alike; volts within one)."""
    made = copy.deepcopy(raw)
    scale: dict[str, float] = {}
    for path in raw["system"]["assumed"]:
        value = value_at(raw, path)
        if path.startswith("settings.") or not isinstance(value, float):
            continue
        *steps, last = path.split(".")
        alike = ".".join(steps[:-1]) + last
        by = scale.setdefault(alike, 2 ** rng.uniform(-1, 1))
        moved = value + 2 * rng.random() - 1 if last.endswith("_v") else value * by
        value_at(made, ".".join(steps))[last] = moved
    made["system"]["assumed"] = {}
    return made


@pytest.mark.parametrize("kind", KINDS)
def test_what_is_certain_stays_so_wherever_the_usual_values_turn_out(kind: str) -> None:
    rng = random.Random(5)
    certain = 0
    for _ in range(12):
        low = rng.choice((25, 40, 60))
        raw = template(kind)
        raw["settings"] = {
            "cut_in_gauge_pa": low * PSI,
            "cut_out_gauge_pa": (low + rng.choice((10, 20, 40))) * PSI,
            "pre_charge_gauge_pa": (low - rng.choice((-5, 2, 10))) * PSI,
        }
        document = read_document(raw)
        known = {each.rule.id: each for each in findings_of(document.figures())}
        for _ in range(8):
            other = read_document(_elsewhere(raw, rng)).figures()
            for found in run(kind_of(other).rules, other):
                sure = known[found.rule.id].verdict
                if sure in (Verdict.PASS, Verdict.STOP):
                    certain += 1
                    assert found.verdict is sure, (found.rule.id, raw["settings"])
    assert certain > 80


@pytest.mark.parametrize("kind", KINDS)
def test_nothing_is_left_as_it_is_on_usual_values(kind: str) -> None:
    document = read_document(template(kind))
    made = propose(document.system, document.settings)
    assert made.usual_values
    assert "Leave" not in made.headline
    assert made.why[0].startswith("It rests on usual values. Read first: ")
    assert not any("nothing calls for caution" in line for line in made.why)
    assert not any("nothing to gain" in line for line in made.why)
    assert summarize(document.system, document.settings).verdict in ("cannot_tell", "caution")


def test_a_healthy_system_is_left_alone_once_its_plates_are_read() -> None:
    raw = template("well_bladder")
    raw["system"]["tanks"][0]["volume_m3"] *= 1.6
    usual = propose(*_parts(raw))
    raw["system"]["assumed"] = {}
    read = propose(*_parts(raw))
    assert (usual.headline, usual.now.verdict) == ("By usual values only", "cannot_tell")
    assert (read.headline, read.now.verdict) == ("Leave it as it is", "pass")
    assert read.now.says.endswith("missing")


def _parts(raw: dict[str, Any]) -> tuple[Any, Any]:
    document = read_document(raw)
    return document.system, document.settings


def test_a_stop_on_a_usual_value_is_a_caution_that_says_what_to_read() -> None:
    """A dip with 10 gpm and 44 gal assumed: a bigger tank would have held it."""
    raw = template("well_bladder", system__demand__peak_draw_m3_s=6e-4)
    raw["system"]["pump"]["start_lag_s"] = 11.0
    figures = read_document(raw).figures()
    (dip,) = (each for each in findings_of(figures) if each.rule.id == "start-dip")
    assert dip.verdict is Verdict.CAUTION
    assert "system.tanks.0.volume_m3" in {each.path for each in dip.usual}
    assert unread_of(findings_of(figures))[0].stops > 0
    raw["system"]["assumed"] = {}
    figures = read_document(raw).figures()
    (dip,) = (each for each in findings_of(figures) if each.rule.id == "start-dip")
    assert (dip.verdict, dip.usual) == (Verdict.STOP, ())


def test_a_usual_dead_head_is_no_limit_to_raise_against() -> None:
    raw = template("tankless")
    figures = read_document(raw).figures()
    limits = kind_of(figures).limits
    assert highest_allowed_pa(limits, figures) is None
    assert "dead-head" in limits_to_read(limits, figures)[0].title
    raw["system"]["assumed"] = {}
    figures = read_document(raw).figures()
    assert isinstance(figures, TanklessFigures)
    assert highest_allowed_pa(limits, figures) == pytest.approx(figures.window_high_pa)
