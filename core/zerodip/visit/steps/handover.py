"""Handing over: as found and as left, what was checked, what remains and was advised, what is still
open."""

from dataclasses import dataclass

from zerodip.kinds.figures import Figures
from zerodip.kinds.findings import findings_of
from zerodip.kinds.registry import kind_of
from zerodip.kinds.visit_parts import AirView
from zerodip.rules.engine import Verdict, worded
from zerodip.text.writer import Writer
from zerodip.units import text
from zerodip.visit.log import Log
from zerodip.visit.slots import SIGNED
from zerodip.visit.steps.make_safe import power_state
from zerodip.visit.steps.set_switch import SetView
from zerodip.visit.summary import Summary

__all__ = ["Check", "HandoverView", "Remaining", "Row", "handover_view"]


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
class Remaining:
    """A limit that is not kept by the settings in force, and what was advised."""

    verdict: str
    title: str
    figure: str
    advice: str


@dataclass(frozen=True, kw_only=True)
class HandoverView:
    """What the last step shows. `still_open` says what was begun and not ended; it does not keep a
    visit from being closed."""

    rows: tuple[Row, ...]
    checks: tuple[Check, ...]
    remaining: tuple[Remaining, ...]
    still_open: tuple[str, ...]
    signed: str


def handover_view(
    figures: Figures, log: Log, done: Summary, air: AirView | None, setting: SetView, units: str
) -> HandoverView:
    """The hand-over as it stands. `done` are the visit's figures.

    Args:
        figures: The system's figures under its settings.
        log: The visit's log.
        done: The visit's figures.
        air: The pre-charge step; None where there is none.
        setting: The step of setting the switch.
        units: Unit system of the texts: "us", "metric" or "kpa".

    Returns:
        What the step shows.
    """
    return HandoverView(
        rows=_rows(done, air is not None),
        checks=_checks(figures, log),
        remaining=_remaining(figures, units),
        still_open=tuple(_still_open(log, air, setting, units)),
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


def _remaining(figures: Figures, units: str) -> tuple[Remaining, ...]:
    found, write = findings_of(figures), Writer(figures, units)
    left = [
        worded(each, write) for each in found if each.verdict in (Verdict.STOP, Verdict.CAUTION)
    ]
    return tuple(
        Remaining(verdict=w.verdict, title=w.title, figure=w.figure, advice=w.advice) for w in left
    )


def _still_open(log: Log, air: AirView | None, setting: SetView, units: str) -> list[str]:
    found = []
    if power_state(log) == "off":
        found.append("Power is still off.")
    if air is not None and air.left_gauge_pa is not None and not air.right:
        found.append(f"The pre-charge left is not {text(air.target_gauge_pa, 'pressure', units)}.")
    if setting.do == "see":
        found.append("Nuts were turned and the points not watched since.")
    elif setting.tries and setting.do != "done":
        found.append(f"The switch is not called set: {setting.sure:.0%} sure.")
    return found
