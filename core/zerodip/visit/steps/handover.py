"""Handing over: as found and as left, what was checked, what remains and was advised."""

from dataclasses import dataclass

from zerodip.kinds.figures import Figures
from zerodip.kinds.registry import kind_of
from zerodip.kinds.visit_parts import Remaining
from zerodip.visit.log import Log
from zerodip.visit.slots import FOUND_PRE_CHARGE, SIGNED
from zerodip.visit.steps.prove import ProveView
from zerodip.visit.steps.remaining import remaining
from zerodip.visit.steps.set_switch import SetView
from zerodip.visit.summary import Summary

__all__ = ["Check", "HandoverView", "Row", "handover_view"]


@dataclass(frozen=True, kw_only=True)
class Row:
    """One figure as found and as left, Pa gauge, freed of what the gauge is known to show too
    little by; None where not read."""

    title: str
    found_gauge_pa: float | None
    left_gauge_pa: float | None


@dataclass(frozen=True, kw_only=True)
class Check:
    """Something to see to before leaving, whether it is confirmed, and the slot where it is."""

    id: str
    does: str
    done: bool
    slot: str


@dataclass(frozen=True, kw_only=True)
class HandoverView:
    """What the last step shows. What remains does not keep a visit from being closed."""

    rows: tuple[Row, ...]
    checks: tuple[Check, ...]
    remaining: tuple[Remaining, ...]
    signed: str


def handover_view(
    figures: Figures,
    left: Figures,
    log: Log,
    done: Summary,
    setting: SetView,
    proof: ProveView,
    units: str,
) -> HandoverView:
    """The hand-over as it stands. `done` are the visit's figures.

    Args:
        figures: The system's figures under its settings.
        left: The same with what was left.
        log: The visit's log.
        done: The visit's figures.
        setting: The step of setting the switch.
        proof: The step of proving.
        units: Unit system of the texts: "us", "metric" or "kpa".

    Returns:
        What the step shows.
    """
    return HandoverView(
        rows=_rows(done, FOUND_PRE_CHARGE.name in kind_of(figures).visit.read),
        checks=_checks(figures, log),
        remaining=remaining(figures, left, log, setting, proof, units),
        signed=log.value(SIGNED) or "",
    )


def _rows(done: Summary, air: bool) -> tuple[Row, ...]:
    found, left = done.found, done.left
    rows = (
        Row(
            title="Cut-in", found_gauge_pa=found.cut_in_gauge_pa, left_gauge_pa=left.cut_in_gauge_pa
        ),
        Row(
            title="Cut-out",
            found_gauge_pa=found.cut_out_gauge_pa,
            left_gauge_pa=left.cut_out_gauge_pa,
        ),
    )
    if not air:
        return rows
    charge = Row(
        title="Pre-charge",
        found_gauge_pa=found.pre_charge_gauge_pa,
        left_gauge_pa=left.pre_charge_gauge_pa,
    )
    return (*rows, charge)


def _checks(figures: Figures, log: Log) -> tuple[Check, ...]:
    checks = kind_of(figures).visit.checks
    return tuple(
        Check(id=each.id, does=each.does, done=bool(log.value(each.slot)), slot=each.slot.name)
        for each in checks
    )
