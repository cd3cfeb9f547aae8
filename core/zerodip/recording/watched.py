"""What a gauge on the wire offers a visit, at the step where it stands: one reading at a time, each
with how far it may be off. Nothing is taken by itself."""

import math
from collections.abc import Callable, Iterator
from dataclasses import dataclass, replace
from datetime import datetime
from typing import Any

from zerodip.fileformat.ranges import RUN_S
from zerodip.recording.live import Seen
from zerodip.units import PSI, text
from zerodip.visit.log import Log, Record
from zerodip.visit.slots import (
    DIP_SEEN,
    FOUND_CUT_IN,
    FOUND_CUT_OUT,
    FOUND_GAUGE,
    FOUND_RUN,
    KNEE,
    LAP,
    LEAK,
    SLOTS,
    TRY,
    TURNED,
    Slot,
    Step,
    confirmation,
)

__all__ = ["OFFERED", "Hint", "Offered", "Wanted", "hints_of", "offered"]

# What a gauge may give a visit.
OFFERED = frozenset(
    slot.name
    for slot in (
        FOUND_GAUGE,
        FOUND_CUT_IN,
        FOUND_CUT_OUT,
        FOUND_RUN,
        KNEE,
        TRY,
        LAP,
        DIP_SEEN,
        LEAK,
    )
)

_MOST_ERROR_PA = 1.5 * PSI  # beyond which a reading is none


@dataclass(frozen=True, kw_only=True)
class Offered:
    """A reading: the visit's slot and its value (SI), what it is called, how it reads, how far it
    may be off, what stands beside it, and when it was seen (s); the entry that it would correct,
    and whether it is on record already."""

    slot: str
    value: Any
    title: str
    text: str
    within: str
    beside: str
    at_s: float
    supersedes: str | None = None
    taken: bool = False


@dataclass(frozen=True, kw_only=True)
class Wanted:
    """What a visit wants to see: cut-in and cut-out as its gauge shows them (Pa gauge), the run
    (s; None where it is not predicted)."""

    cut_in_pa: float
    cut_out_pa: float
    run_s: float | None


@dataclass(frozen=True, kw_only=True)
class Hint:
    """Why something is not offered, and what to do."""

    title: str
    says: str


@dataclass(frozen=True)
class _Asked:
    """All that offers go by; `error_pa` is what the gauge itself may be off by, `shift_pa` what is
    added so that a pressure is as the visit's own gauge would show it."""

    seen: Seen
    log: Log
    wanted: Wanted
    units: str
    error_pa: float
    shift_pa: float


def offered(
    seen: Seen,
    step: Step,
    log: Log,
    wanted: Wanted,
    units: str,
    error_pa: float = 0.0,
    low_pa: float = 0.0,
) -> list[Offered]:
    """What the gauge offers at a step.

    Args:
        seen: What its line shows.
        step: The step of the visit.
        log: The visit's records.
        wanted: What the visit wants to see.
        units: Unit system of the texts: "us", "metric" or "kpa".
        error_pa: What the gauge may be off by, Pa, by its grade.
        low_pa: What it is known to show too little by, Pa.

    Returns:
        Offers, in the order in which they are seen. A look after a turn only of what came after it.
    """
    shift = low_pa - log.low_by(FOUND_CUT_IN)
    asked = _Asked(seen, log, wanted, units, error_pa, shift)
    return [_known(each, log) for make in _BY_STEP.get(step, ()) for each in make(asked)]


def _known(each: Offered, log: Log) -> Offered:
    """With what stands on record in its place."""
    if SLOTS[each.slot].series:
        taken = any(record.value == each.value for record in log.series.get(each.slot, ()))
        return replace(each, taken=taken)
    record = log.values.get(each.slot)
    if record is None:
        return each
    return replace(each, supersedes=record.id, taken=record.value == each.value)


def _psi(at: _Asked, pa: float) -> str:
    return text(pa, "pressure", at.units)


def _within(at: _Asked, error_pa: float) -> str:
    """How far a pressure may be off, by line and gauge together."""
    return f"± {_psi(at, math.hypot(error_pa, at.error_pa))}"


def _pressure(
    at: _Asked, slot: Slot[Any], pa: float, error_pa: float, title: str, beside: str, at_s: float
) -> Iterator[Offered]:
    value = max(pa + at.shift_pa, 0.0)
    yield Offered(
        slot=slot.name,
        value=round(value, 1),
        title=title,
        text=_psi(at, value),
        within=_within(at, error_pa),
        beside=beside,
        at_s=at_s,
    )


def _now(at: _Asked) -> Iterator[Offered]:
    if at.seen.still and at.log.value(FOUND_GAUGE) is None:
        yield from _pressure(at, FOUND_GAUGE, at.seen.gauge_pa, 0.0, "Gauge now", "", at.seen.at_s)


def _cut_in(at: _Asked) -> Iterator[Offered]:
    start = at.seen.start
    if start and not start.dips and start.error_pa <= _MOST_ERROR_PA:
        beside = f"set for {_psi(at, at.wanted.cut_in_pa)}"
        yield from _pressure(
            at, FOUND_CUT_IN, start.gauge_pa, start.error_pa, "Cut-in", beside, start.at_s
        )


def _cut_out(at: _Asked) -> Iterator[Offered]:
    stop = at.seen.stop
    if stop and stop.error_pa <= _MOST_ERROR_PA:
        beside = f"set for {_psi(at, at.wanted.cut_out_pa)}"
        yield from _pressure(
            at, FOUND_CUT_OUT, stop.gauge_pa, stop.error_pa, "Cut-out", beside, stop.at_s
        )


def _run(slot: Slot[Any], made: Callable[[Seen], Any]) -> Callable[[_Asked], Iterator[Offered]]:
    def run(at: _Asked) -> Iterator[Offered]:
        seen, predicted = at.seen, at.wanted.run_s
        if seen.run_s is None or seen.stop is None or seen.run_s < RUN_S[0]:
            return
        beside = "" if predicted is None else f"predicted {text(predicted, 'duration', at.units)}"
        yield Offered(
            slot=slot.name,
            value=made(seen),
            title="Run, click to click",
            text=text(seen.run_s, "duration", at.units),
            within=f"± {max(seen.time_error_s, 0.1):.1f} s",
            beside=beside,
            at_s=seen.stop.at_s,
        )

    return run


def _lap(seen: Seen) -> dict[str, float | None]:
    run_s, rest_s = seen.run_s or 0.0, seen.rest_s
    return {"run_s": round(run_s, 1), "rest_s": None if rest_s is None else round(rest_s, 1)}


def _knee(at: _Asked) -> Iterator[Offered]:
    knee = at.seen.knee
    if knee:
        title = "The gauge collapsed at"
        yield from _pressure(
            at, KNEE, knee.gauge_pa, 0.5 * PSI, title, "the pre-charge", at.seen.at_s
        )


def _look(at: _Asked) -> Iterator[Offered]:
    """Both points of one cycle that began after the last turn and after power came back; of a cycle
    that was taken, what is on record."""
    start, stop, turned = at.seen.start, at.seen.stop, at.log.turned()
    if start is None or stop is None or start.dips or start.error_pa > _MOST_ERROR_PA:
        return
    began_s = min(start.at_s, stop.at_s)
    if stop.gauge_pa <= start.gauge_pa:
        return
    if began_s <= _changed_s(at.log):
        yield from _looked(at, began_s)
        return
    within = _within(at, max(start.error_pa, stop.error_pa))
    low, high = (max(each.gauge_pa + at.shift_pa, 0.0) for each in (start, stop))
    yield Offered(
        slot=TRY.name,
        value={
            "first": turned.first if turned else 0.0,
            "second": turned.second if turned else 0.0,
            "after": len(at.log.records_in(TRY)),
            "cut_in_gauge_pa": round(low, 1),
            "cut_out_gauge_pa": round(high, 1),
        },
        title="Both points",
        text=f"{_psi(at, low)} in, {_psi(at, high)} out",
        within=within,
        beside=f"wanted {_psi(at, at.wanted.cut_in_pa)} and {_psi(at, at.wanted.cut_out_pa)}",
        at_s=max(start.at_s, stop.at_s),
    )


def _looked(at: _Asked, began_s: float) -> Iterator[Offered]:
    """The last look, where the gauge gave it of this cycle."""
    for record in at.log.records_in(TRY)[-1:]:
        if record.by_gauge and _turned_s(at.log) < began_s < _at_s(record):
            low, high = (record.value[f"cut_{name}_gauge_pa"] for name in ("in", "out"))
            yield Offered(
                slot=TRY.name,
                value=record.value,
                title="Both points",
                text=f"{_psi(at, low)} in, {_psi(at, high)} out",
                within="",
                beside="",
                at_s=began_s,
            )


def _changed_s(log: Log) -> float:
    """When something was last changed under the cover, or looked at (s)."""
    return max([_turned_s(log), *map(_at_s, log.records_in(TRY)[-1:])])


def _turned_s(log: Log) -> float:
    """When a nut was last turned, or power came back (s)."""
    return max(_at_s(log.record(TURNED)), _at_s(log.record(confirmation("power_up"))))


def _at_s(record: Record | None) -> float:
    return datetime.fromisoformat(record.at).timestamp() if record and record.at else 0.0


def _lowest(at: _Asked) -> Iterator[Offered]:
    """Whether the taps felt the start."""
    start = at.seen.start
    if start is None:
        return
    low = max(start.lowest_pa + at.shift_pa, 0.0)
    seconds = text(start.below_s, "duration", at.units)
    yield Offered(
        slot=DIP_SEEN.name,
        value=start.dips,
        title="Lowest in a start",
        text=_psi(at, low),
        within=_within(at, 0.0),
        beside=f"it dips for {seconds}" if start.dips else "no dip",
        at_s=start.at_s,
    )


def _leak(at: _Asked) -> Iterator[Offered]:
    quiet = at.seen.quiet
    if quiet is None or quiet.first_pa + at.shift_pa <= PSI:
        return
    first, later = quiet.first_pa + at.shift_pa, max(quiet.later_pa + at.shift_pa, 0.0)
    seconds = text(quiet.seconds, "duration", at.units)
    yield Offered(
        slot=LEAK.name,
        value={
            "first_gauge_pa": round(first, 1),
            "later_gauge_pa": round(later, 1),
            "seconds": round(quiet.seconds, 1),
        },
        title="Leak watch",
        text=f"{_psi(at, first - later)} in {seconds}",
        within=f"± {_psi(at, quiet.error_pa)}",
        beside="with nothing open",
        at_s=at.seen.at_s,
    )


_BY_STEP: dict[Step, tuple[Callable[[_Asked], Iterator[Offered]], ...]] = {
    "watch": (
        _now,
        _cut_in,
        _cut_out,
        _run(FOUND_RUN, lambda seen: round(seen.run_s or 0.0, 1)),
    ),
    "safe": (_knee,),
    "set": (_look,),
    "prove": (_run(LAP, _lap), _lowest, _leak),
}


def hints_of(seen: Seen, step: Step, units: str) -> list[Hint]:
    """Why something that was seen is not offered.

    Args:
        seen: What the line shows.
        step: The step of the visit.
        units: Unit system of the texts: "us", "metric" or "kpa".

    Returns:
        Hints, each with what to do.
    """
    start = seen.start
    if step not in ("watch", "set", "prove"):
        return []
    if start is None and seen.stop is None:
        return []
    if start is None or (seen.stop and seen.stop.at_s > start.at_s and seen.run_s is None):
        says = "Open a tap a little, and shut it as soon as the pump starts."
        return [Hint(title="The start was not clear", says=says)]
    if start.dips:
        fell = text(start.lowest_pa, "pressure", units)
        says = f"The gauge fell to {fell} at the start. Read cut-in by ear: where it clicks."
        return [Hint(title="It dips: cut-in is hidden", says=says)]
    if start.error_pa > _MOST_ERROR_PA:
        says = "It falls too fast to see where it clicks. Open the tap less and let it start again."
        return [Hint(title="Too fast for cut-in", says=says)]
    return []
