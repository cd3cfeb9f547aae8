"""The schools shown against each other on one system."""

from dataclasses import dataclass, replace
from typing import Any

from ..facts import WaterFacts
from ..switches.schools import (
    CHECK_SCHOOLS,
    DIFFERENTIAL_SCHOOLS,
    PRE_CHARGE_SCHOOLS,
    RUN_TIME_SCHOOLS,
)
from ..system import BLADDER_KINDS, Practice, Settings, System
from ..units import Shown
from .options import Figure, Option, Weighed, option, weighed

__all__ = ["SchoolGroup", "school_groups"]


@dataclass(frozen=True, kw_only=True)
class SchoolGroup:
    """One matter on which schools differ: the field that chooses, the one chosen, and every school as a way to set this
    system (None where it cannot tell), with its reason."""

    id: str
    title: str
    field: str
    chosen: str
    schools: tuple[Option, ...]
    reasons: dict[str, str]


def school_groups(
    system: System, settings: Settings, practice: Practice | None = None, units: str = "us"
) -> tuple[SchoolGroup, ...]:
    """Every matter of practice with its schools, on a water system; nothing elsewhere, where practice does not differ.
    Raises InvalidInput for settings that lack what this kind needs, UnknownUnit for an unknown unit system."""
    now = weighed(system, settings, practice or Practice())
    if not isinstance(now.facts, WaterFacts):
        return ()
    groups = [_differential(system, now, units), _run_time(system, now, units)]
    if now.facts.kind not in BLADDER_KINDS:
        return tuple(groups)
    return (_pre_charge(system, now, now.facts, units), *groups, _check(system, now, now.facts, units))


def _tried(system: System, now: Weighed, settings: Settings, **practice: Any) -> Weighed:
    return weighed(system, settings, replace(now.facts.practice, **practice))


def _pre_charge(system: System, now: Weighed, facts: WaterFacts, units: str) -> SchoolGroup:
    f, found, reasons = Shown(facts, units), [], {}
    for school in PRE_CHARGE_SCHOOLS:
        target = facts.school_target_pa(school)
        reasons[school.id] = school.reason
        settings = now.settings if target is None else replace(now.settings, pre_charge_gauge_pa=target)
        way = _tried(system, now, settings, pre_charge_school=school.id)
        cost = "Cannot tell without the peak draw: shown as set." if target is None else ""
        found.append(option(way, school.id, f.fill(school.title), units, cost))
    return SchoolGroup(
        id="pre_charge", title="Pre-charge below cut-in", field="pre_charge_school",
        chosen=facts.practice.pre_charge_school, schools=tuple(found), reasons=reasons,
    )  # fmt: skip


def _differential(system: System, now: Weighed, units: str) -> SchoolGroup:
    found, reasons = [], {}
    for school in DIFFERENTIAL_SCHOOLS:
        gap = school.offers_pa(now.facts.differential_pa)[-1]
        settings = replace(now.settings, cut_out_gauge_pa=now.settings.cut_in_gauge_pa + gap)
        reasons[school.id] = school.reason
        found.append(
            option(_tried(system, now, settings, differential_school=school.id), school.id, school.title, units)
        )
    return SchoolGroup(
        id="differential", title="Differential", field="differential_school",
        chosen=now.facts.practice.differential_school, schools=tuple(found), reasons=reasons,
    )  # fmt: skip


def _run_time(system: System, now: Weighed, units: str) -> SchoolGroup:
    found = [
        option(_tried(system, now, now.settings, run_time_school=school.id), school.id, school.title, units)
        for school in RUN_TIME_SCHOOLS
    ]
    reasons = {
        "minute": "A motor sheds the heat of a start in about a minute of running.",
        "half_minute": "Small motors bear it; under half a minute is short cycling for all.",
        "by_power": "Bigger motors heat more at each start.",
    }
    return SchoolGroup(
        id="run_time", title="Shortest run", field="run_time_school",
        chosen=now.facts.practice.run_time_school, schools=tuple(found), reasons=reasons,
    )  # fmt: skip


def _check(system: System, now: Weighed, facts: WaterFacts, units: str) -> SchoolGroup:
    """Check intervals: what is left of the pre-charge at the end of each."""
    found, reasons = [], {}
    for school in CHECK_SCHOOLS:
        years = school.years(facts.lost_pa_per_year)
        left = max(facts.pre_charge_pa - years * facts.practice.loss_per_year_pa, 0.0)
        settings = replace(now.settings, pre_charge_gauge_pa=left)
        reasons[school.id] = f"Next check in {years:.2g} years."
        way = option(_tried(system, now, settings, check_school=school.id), school.id, school.title, units)
        found.append(
            replace(way, figures=(Figure(id="years", title="Next check in", text=f"{years:.2g} y"), *way.figures))
        )
    return SchoolGroup(
        id="check", title="Check interval: what is left at its end", field="check_school",
        chosen=facts.practice.check_school, schools=tuple(found), reasons=reasons,
    )  # fmt: skip
