"""Handing over: as found and as left, what was checked, what remains and was advised."""

from dataclasses import dataclass

from zerodip.kinds.figures import Figures
from zerodip.kinds.registry import kind_of
from zerodip.kinds.steps import COVER
from zerodip.kinds.visit_parts import CheckSpec, Remaining
from zerodip.visit.log import Log
from zerodip.visit.slots import FOUND_PRE_CHARGE, PHOTO, SIGNED
from zerodip.visit.steps.make_safe import power_state
from zerodip.visit.steps.prove import ProveView
from zerodip.visit.steps.remaining import remaining
from zerodip.visit.steps.set_switch import SetView
from zerodip.visit.summary import Summary

__all__ = ["Check", "HandoverView", "Row", "handover_view"]


@dataclass(frozen=True, kw_only=True)
class Row:
    """One figure as found and as left (SI; pressures gauge, freed of what the gauge is known to
    show too little by); None where not read."""

    title: str
    dimension: str
    found: float | None
    left: float | None


@dataclass(frozen=True, kw_only=True)
class Check:
    """Something to see to before leaving, whether it is confirmed, and the slot where it is."""

    id: str
    does: str
    done: bool
    slot: str


@dataclass(frozen=True, kw_only=True)
class HandoverView:
    """What the last step shows. What remains does not keep a visit from being closed. `photos` are
    those that the report shows, by their ids."""

    rows: tuple[Row, ...]
    checks: tuple[Check, ...]
    remaining: tuple[Remaining, ...]
    photos: tuple[str, ...]
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
        photos=_photos(log),
        signed=log.value(SIGNED) or "",
    )


def _photos(log: Log) -> tuple[str, ...]:
    """The photos chosen for the report, by what was last said of each."""
    last = {each.photo: each.shown for each in log.all(PHOTO)}
    return tuple(photo for photo, shown in last.items() if shown)


def _rows(done: Summary, air: bool) -> tuple[Row, ...]:
    found, left = done.found, done.left
    charge = (found.pre_charge_gauge_pa, left.pre_charge_gauge_pa)
    rows = (
        _row("Cut-in", found.cut_in_gauge_pa, left.cut_in_gauge_pa),
        _row("Cut-out", found.cut_out_gauge_pa, left.cut_out_gauge_pa),
        *((_row("Pre-charge", *charge),) if air else ()),
    )
    runs = (done.found_run_s, done.run_s)
    return (*rows, _row("Pump run, by stopwatch", *runs, "duration")) if any(runs) else rows


def _row(title: str, found: float | None, left: float | None, dimension: str = "pressure") -> Row:
    return Row(title=title, dimension=dimension, found=found, left=left)


def _checks(figures: Figures, log: Log) -> tuple[Check, ...]:
    checks = kind_of(figures).visit.checks
    return tuple(
        Check(id=each.id, does=each.does, done=_done(each, log), slot=each.slot.name)
        for each in checks
    )


def _done(check: CheckSpec, log: Log) -> bool:
    """As confirmed; whoever powered up put the cover on first."""
    covered = check is COVER and power_state(log) == "on"
    return covered or bool(log.value(check.slot))
