"""What each pre-charge school would set on this system."""

from dataclasses import dataclass

from .facts import Facts, WaterFacts
from .switches.schools import PRE_CHARGE_SCHOOLS
from .system import BLADDER_KINDS
from .units import Shown

__all__ = ["BudgetItem", "SchoolView", "school_views"]


@dataclass(frozen=True, kw_only=True)
class BudgetItem:
    """One item of the computed school's sum, Pa."""

    title: str
    pressure_pa: float | None
    counted: bool


@dataclass(frozen=True, kw_only=True)
class SchoolView:
    """What one pre-charge school would set here, Pa gauge; its budget where it is a sum."""

    id: str
    title: str
    reason: str
    source: str
    target_gauge_pa: float | None
    chosen: bool
    budget: tuple[BudgetItem, ...]


def school_views(facts: Facts, f: Shown) -> tuple[SchoolView, ...]:
    """All pre-charge schools on a system with bladder tanks; none elsewhere."""
    if not isinstance(facts, WaterFacts) or facts.kind not in BLADDER_KINDS:
        return ()
    return tuple(
        SchoolView(
            id=school.id,
            title=f.fill(school.title),
            reason=school.reason,
            source=school.source.line,
            target_gauge_pa=facts.school_target_pa(school),
            chosen=school.id == facts.school.id,
            budget=_budget_items(facts) if school.id == "computed" else (),
        )
        for school in PRE_CHARGE_SCHOOLS
    )


def _budget_items(facts: WaterFacts) -> tuple[BudgetItem, ...]:
    sums = facts.budget
    return (
        BudgetItem(title="start dip", pressure_pa=sums.dip_pa, counted=True),
        BudgetItem(title="gauge error", pressure_pa=sums.gauge_pa, counted=True),
        BudgetItem(title="warming after setting", pressure_pa=sums.warming_pa, counted=True),
        BudgetItem(title="air lost until the next check", pressure_pa=sums.lost_pa, counted=False),
    )
