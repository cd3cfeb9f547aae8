"""What a visit recorded, as evidence of a diagnosis: freed of what its gauges are known to show too
little by."""

import statistics
from collections.abc import Callable, Iterator
from typing import Any, TypeVar

from zerodip.diagnosis.parts import Needs, Observation, Troubles
from zerodip.kinds.figures import Figures
from zerodip.kinds.registry import kind_of
from zerodip.kinds.visit_parts import air_reads_as_gauge, bladder_burst
from zerodip.physics.drain_knee import knee
from zerodip.visit.log import Log, Record
from zerodip.visit.slots import (
    AIR_LEFT,
    BUCKET,
    COMPLAINT,
    CONTACTS_BURNT,
    DECIDED,
    DIP_SEEN,
    DRAIN,
    FOUND_CUT_IN,
    FOUND_CUT_OUT,
    FOUND_GAUGE,
    FOUND_PRE_CHARGE,
    FOUND_RUN,
    GAUGE_STUCK,
    KNEE,
    LAP,
    LEAK,
    LEAKS_SEEN,
    NIPPLE_CLOGGED,
    SAW,
    SWITCH_REPLACED,
    TANK_REPLACED,
    TRY,
    TURNED,
    WATER_AT_VALVE,
    Slot,
)
from zerodip.visit.steps.make_safe import power_state
from zerodip.visit.summary import summarize_log

__all__ = ["condition_of", "impossible_here", "observations_of", "proved"]

T = TypeVar("T")
_NEVER = "\uffff"  # later than any time
_DECIDED = (1.0,)

# What a call complains of, by the symptom that it is.
_COMPLAINTS = {
    "clicks": ("clicks", "chatter"),
    "dip": ("breath",),
    "endless": ("endless",),
    "silent": ("silent",),
    "starts_alone": ("alone",),
    "trips": ("trips",),
}
_LOOKED_AT = (
    (WATER_AT_VALVE, "water_at_valve"),
    (CONTACTS_BURNT, "contacts"),
    (NIPPLE_CLOGGED, "nipple"),
    (GAUGE_STUCK, "gauge_differs"),
    (DIP_SEEN, "breath"),
)
# Seen in passing: nothing seen says little.
_NOTICED = ((LEAKS_SEEN, "leak_heard"), (LEAKS_SEEN, "drips"))


def observations_of(figures: Figures, log: Log, mended: bool = False) -> tuple[Observation, ...]:
    """What was seen and measured before anything was done on this visit; or, `mended`, what was
    measured since, without the complaint that it answers. Both together would contradict.

    Args:
        figures: The system's figures under its settings.
        log: The visit's log.
        mended: Whether the state after the work is asked for.

    Returns:
        The observations, oldest first, only of items that are asked of this kind of system; an
        answer given to the diagnosis itself goes before what is told by a reading.
    """
    troubles, begun = kind_of(figures).troubles, _begun_at(figures, log)
    seen = _left(log) if mended else _found(log, begun)

    def counts(record: Record) -> bool:
        """Whether it belongs to the state that is asked for."""
        return (record.at >= begun) == mended

    tests, answers = _tests(log, counts), _answered(log, troubles, counts)
    return tuple(each for each in (*seen, *tests, *answers) if troubles.item(each.item))


def proved(figures: Figures, log: Log) -> bool:
    """Whether a run was timed after something was done: then that state is judged.

    Args:
        figures: The system's figures under its settings.
        log: The visit's log.

    Returns:
        True where the work is done and proved by a run.
    """
    begun = _begun_at(figures, log)
    return any(record.at >= begun for record in log.records_in(LAP))


def _begun_at(figures: Figures, log: Log) -> str:
    """When the first thing was done that changes the system; after everything where nothing was."""
    jobs = (job.slots()[-1] for job in kind_of(figures).visit.jobs)
    done = [log.record(slot) for slot in (AIR_LEFT, TURNED, TANK_REPLACED, SWITCH_REPLACED, *jobs)]
    times = [record.at for record in done if record is not None and record.value]
    times += [
        record.at
        for record, tried in zip(log.records_in(TRY), log.all(TRY), strict=True)
        if tried.turned
    ]
    return min(times, default=_NEVER)


def condition_of(log: Log) -> Needs:
    """How the system stands: powered, off, or off and drained.

    Args:
        log: The visit's log.

    Returns:
        The condition.
    """
    if power_state(log) != "off":
        return "powered"
    return "drained" if log.confirmed("drained") else "off"


def impossible_here(log: Log) -> frozenset[str]:
    """The items that cannot be looked at here, as was answered last; nor whether the breaker is off
    where it was put off on this visit.

    Args:
        log: The visit's log.

    Returns:
        Their ids.
    """
    last = {each.item: each.says for each in log.all(SAW)}
    cannot = frozenset(item for item, says in last.items() if says == "cannot")
    return cannot | {"breaker"} if power_state(log) == "off" else cannot


def _found(log: Log, begun: str) -> Iterator[Observation]:
    """As found. Points read before new ones were decided on may have gone astray; after that they
    only tell where they stand, and their context says so."""
    for symptom in _COMPLAINTS.get(log.value(COMPLAINT) or "", ()):
        yield Observation(symptom, True)
    for slot, item in _LOOKED_AT:
        record = log.record(slot)
        if record is not None and record.value is not None and record.at < begun:
            yield Observation(item, bool(record.value))
    for slot, item in _NOTICED:
        if log.value(slot):
            yield Observation(item, True)
    context = _DECIDED if log.value(DECIDED) else ()
    for point, item in ((FOUND_CUT_IN, "cut_in"), (FOUND_CUT_OUT, "cut_out")):
        shown = log.true(point)
        if shown is not None:
            yield Observation(item, shown, context)
    charge, run = log.true(FOUND_PRE_CHARGE), log.value(FOUND_RUN)
    if charge is not None and not log.value(WATER_AT_VALVE) and not air_reads_as_gauge(log):
        yield Observation("pre_charge", charge, context)
    if run is not None:
        yield Observation("run", float(run))
    knee_seen = log.true(KNEE)
    if knee_seen is not None:
        yield Observation("knee", knee_seen, context)


def _left(log: Log) -> Iterator[Observation]:
    """As left: the points and the air that were set."""
    left = summarize_log(log).left
    for item, point in (("cut_in", left.cut_in_gauge_pa), ("cut_out", left.cut_out_gauge_pa)):
        if point is not None:
            yield Observation(item, point, _DECIDED)
    if left.pre_charge_gauge_pa is not None and not bladder_burst(log):
        yield Observation("pre_charge", left.pre_charge_gauge_pa)


def _tests(log: Log, counts: Callable[[Record], bool]) -> Iterator[Observation]:
    """Runs, drains, buckets and leak watches of one state."""
    low = log.low_by(FOUND_GAUGE)
    laps = [lap.run_s for lap in _those(log, LAP, counts)]
    if laps:
        yield Observation("run", statistics.median(laps))
    for drain in _those(log, DRAIN, counts):
        found = knee(drain.times_s, drain.gauges_pa)
        if found is not None:
            yield Observation("knee", found.gauge_pa + low)
    for bucket in _those(log, BUCKET, counts):
        between = (bucket.from_gauge_pa + low, bucket.to_gauge_pa + low)
        yield Observation("caught", bucket.caught_m3, between)
    for leak in _those(log, LEAK, counts):
        shut = log.confirmed("house_shut") if leak.house_open is None else not leak.house_open
        item = "fall_shut" if shut else "fall_open"
        first = leak.first_gauge_pa + low
        yield Observation(item, leak.later_gauge_pa + low, (first, leak.seconds))


def _those(log: Log, slot: Slot[T], counts: Callable[[Record], bool]) -> Iterator[T]:
    pairs = zip(log.records_in(slot), log.all(slot), strict=True)
    return (value for record, value in pairs if counts(record))


def _answered(
    log: Log, troubles: Troubles[Any], counts: Callable[[Record], bool]
) -> Iterator[Observation]:
    """The last answer about each item, and the last one after it was looked at once more."""
    last = {(each.item, bool(each.again)): each for each in _those(log, SAW, counts)}
    for (id, again), each in last.items():
        item = troubles.item(id)
        if item is None or each.says == "cannot":
            continue
        if each.value is not None and item.is_figure:
            yield Observation(id, each.value, (), again)
        elif each.says == "yes" and item.never:
            yield Observation(id, True, (), again)
        elif each.says in ("yes", "no") and not item.is_figure:
            yield Observation(id, each.says == "yes", (), again)
