"""The usual jobs: nothing that bites goes without its caution, each ends in checks, and what a job
puts right is no longer told as found. Common practice, no source."""

import re
from typing import Any

import pytest

from zerodip.jobs.parts import Job
from zerodip.kinds.registry import KINDS
from zerodip.units import PSI
from zerodip.visit.slots import NEW_AIR, TANK_REPLACED
from zerodip.visit.validation import known_slots
from zerodip.visit.view import VisitView

from .test_visit import document, view

JOBS: dict[str, Job] = {job.id: job for kind in KINDS.values() for job in kind.visit.jobs}
# What each job must say, in this order: steps with their cautions, then its checks.
SAYS = {
    "replace_switch": (
        "Photo of the wires",
        "kind of lever",
        "gauge at zero",
        "new one of brass",
        "tape wound with the thread",
        "Edges of knock-outs are sharp",
        "Earth first",
        "licensed",
        "by the diagram under the cover. Outer pair line, inner pair load is usual",
        "Usual is not always",
        "nothing bridged",
        "one whole run",
    ),
    "wire_switch": ("Rating", "voltage", "sharp", "Earth first", "diagram", "Meter", "whole run"),
    "clean_contacts": ("Mains", "Never wet", "welded: replace", "snap open", "whole run"),
    "clean_nipple": ("gauge at zero", "brass", "rusted nipple breaks", "tape", "clicks", "run"),
    "replace_tank": ("gauge at zero", "heavy", "about 38 psi", "Plate", "dry", "whole run"),
    "re_air": ("flood a pit", "air goes in", "buckle", "renews the air", "No air at the taps"),
    "purge_lines": ("nearest to the furthest", "spit", "Aerators", "sucks air", "No air after"),
    "replace_relief": ("lowest of tank", "Never plug", "at zero", "no shut-off", "tag", "Lifts"),
    "prime_jet": ("filled", "dry start", "five minutes", "foot valve holds"),
    "reset_cut_off": ("well low", "save the pump", "floods", "let go", "Told"),
    "flooded": ("Touch nothing", "air may kill", "upstream", "isinfect", "drink", "laboratory"),
    "label_lines": ("Tank", "IPC 608", "Every outlet", "purple", "cross-connection"),
    "bleed_condensate": ("let down", "cuts skin", "Local codes", "shut and tight"),
    "unloader": ("hiss", "burn", "bled to zero", "without groaning"),
    "check_valve": ("burn", "bled to zero", "arrow", "steady for ten minutes"),
    "sealed_switch": ("fixed", "warranty", "Never above", "Mains", "Safety valve untouched"),
}


@pytest.mark.parametrize("id", JOBS)
def test_every_job_says_its_cautions_where_they_bite_and_what_to_check_after(id: str) -> None:
    job = JOBS[id]
    said = " | ".join(f"{s.does} {s.caution}" for s in (*job.steps, *job.checks))
    assert re.search(".*".join(f"(?:{word})" for word in SAYS[id]), said), said
    assert job.have
    assert job.minutes >= 10
    assert 3 <= len(job.steps) <= 9
    assert 2 <= len(job.checks) <= 4
    ids = [each.id for each in (*job.steps, *job.checks)]
    assert len(ids) == len(set(ids))
    for step in job.steps:
        assert not step.drained or step.off, step.id
    first = next((step for step in job.steps if step.drained), None)
    assert first is None or "zero" in f"{first.does} {first.caution}", id
    assert any(step.caution for step in job.steps[:2])
    assert all(slot.name in known_slots() for slot in job.slots())
    assert all(len(words.split()) <= 20 for words in _sentences(said))


def _sentences(said: str) -> list[str]:
    return re.split(r"[.:;|] ", said)


def test_no_job_is_without_its_words_and_every_kind_has_jobs() -> None:
    assert set(SAYS) == set(JOBS)
    assert all(kind.visit.jobs for kind in KINDS.values())
    assert all(KINDS[kind].visit.parts for kind in ("cistern", "boosted"))


OFF = (("safe.power_off", True), ("safe.proved_dead", True), ("safe.drained", True))
SAFE = tuple((f"safe.{id}", True) for id in ("bystanders", "pit", "house_shut", "hose"))


def job_of(made: VisitView, id: str) -> Any:
    return next(job for job in made.jobs if job.id == id)


def all_of(id: str) -> tuple[tuple[str, Any], ...]:
    return tuple((slot.name, True) for slot in JOBS[id].slots())


def left_of(made: VisitView) -> set[str]:
    return {each.id for each in made.handover.remaining}


def test_a_job_is_suggested_by_what_was_found_and_closes_it_once_done() -> None:
    found = (("found.earth_missing", True), *OFF)
    before = view(*found)
    assert job_of(before, "replace_switch").suggested == "Earth wire missing"
    assert "found.earth_missing" in left_of(before)
    begun = view(*found, ("safe.job.replace_switch", True))
    assert job_of(begun, "replace_switch").added
    assert {"job.replace_switch", "found.earth_missing"} <= left_of(begun)
    done = view(*found, *all_of("replace_switch"))
    assert job_of(done, "replace_switch").done
    assert not {"job.replace_switch", "found.earth_missing"} & left_of(done)
    again = view(*found, *all_of("replace_switch"), ("found.earth_missing", True))
    assert "found.earth_missing" in left_of(again)


def test_a_cheap_repair_is_suggested_before_a_dear_one_and_no_tank_for_a_complaint() -> None:
    clogged = view(("found.nipple", True), ("complaint", "clicks"))
    suggested = [job.id for job in clogged.jobs if job.suggested]
    assert suggested == ["clean_nipple", "replace_switch"]


def test_steps_that_need_it_dead_or_drained_stay_shut_until_it_is() -> None:
    powered = {step.id: step.shut for step in job_of(view(), "replace_switch").steps}
    assert powered["photo"].startswith("First: power off")
    dead = {s.id: s.shut for s in job_of(view(*OFF[:2]), "replace_switch").steps}
    assert dead["photo"] == ""
    assert dead["off"].startswith("First: drained")
    assert not any(step.shut for step in job_of(view(*OFF), "replace_switch").steps)


def test_a_new_tank_ends_the_burst_one_and_asks_for_its_own_air() -> None:
    burst = (*SAFE, *OFF, ("found.pre_charge", 4 * PSI), ("found.water_at_valve", True))
    assert view(*burst).air.shut == "burst"  # type: ignore[union-attr]
    new = (*burst, ("decided", True), ("safe.job.replace_tank", True), (TANK_REPLACED.name, True))
    made = view(*new)
    assert made.air is not None
    assert (made.air.shut, made.air.new, made.air.means) == ("", True, "")
    assert "about 38 psi" in made.air.says
    assert "burst" not in left_of(made)
    steps = (*new, *all_of("replace_tank"))
    assert view(*steps).next.slots == (NEW_AIR.name,)
    read = view(*steps, (NEW_AIR.name, 30 * PSI))
    assert read.air is not None
    assert "Add 8 psi" in read.air.says
    assert read.next.do == "air"


def test_what_is_next_goes_through_the_work_in_its_order() -> None:
    """Watch, make safe, read, decide, air, turn, look; a kept switch is proved and handed over."""
    order = []
    pairs: list[tuple[str, Any]] = []
    answers = {
        "found.cut_in": 33 * PSI,
        "found.cut_out": 52 * PSI,
        "found.run": 70.0,
        "found.pre_charge": 36 * PSI,
        "found.water_at_valve": False,
        "air.left": 38 * PSI,
        "set.turned": {"first": 3.0, "second": 0.5, "after": 0},
        "lap": {"run_s": 70.0, "rest_s": None},
        "signed": "A technician",
    }
    for _ in range(60):
        told = view(*pairs, of=document()).next
        order.append(told.do)
        if told.do == "close":
            break
        for slot in told.slots:
            again = any(each == "try" for each, _ in pairs)  # after a long move once more
            looked = {"after": 0, "first": 0.0 if again else 3.0, "second": 0.0 if again else 0.5}
            seen = {**looked, "cut_in_gauge_pa": 40 * PSI, "cut_out_gauge_pa": 60 * PSI}
            pairs.append((slot, seen if slot == "try" else answers.get(slot, True)))
    do = [each for each, before in zip(order, ["", *order], strict=False) if each != before]
    assert do[:6] == ["watch", "confirm", "read", "decide", "air", "confirm"]
    assert do[-2:] == ["sign", "close"]
    assert order.count("look") <= 4
