"""Watches and stand-ins as the API shows them."""

import time
from typing import Any, Literal
from uuid import UUID

from ninja import Schema

from visits.selectors import document_of, records_of
from zerodip.bench.stand_in import BenchHands
from zerodip.fileformat.document import Document
from zerodip.fileformat.fields import read
from zerodip.gauges import GaugeSpec, error_pa
from zerodip.kinds.registry import kind_of
from zerodip.recording.live import seen_restored
from zerodip.recording.watched import Hint, Offered, Wanted, hints_of, offered
from zerodip.stand_in import Hands
from zerodip.visit.dial import Dial, dial_of
from zerodip.visit.log import Log, log_of
from zerodip.visit.slots import FOUND_CUT_IN, Step
from zerodip.visit.view import place_of
from zerodip.wire import PROBLEMS

from .keeping import line_of, one_of
from .models import BenchStandIn, BenchWatch, StandIn, Watch

__all__ = [
    "BenchStandInOut",
    "BenchWatchOut",
    "LookIn",
    "LookOut",
    "StandInIn",
    "StandInOut",
    "TakenIn",
    "WatchIn",
    "WatchLine",
    "WatchOut",
    "bench_stand_in_out",
    "bench_watch_out",
    "look_out",
    "stand_in_out",
    "watch_line",
    "watch_out",
]

_MOST_POINTS = 1500
_NO_END_S = 36_000.0


class LookIn(Schema):
    """Where a gauge's figure is fetched (zerodip.wire.WireSpec)."""

    wire: dict[str, Any]


class LookOut(Schema):
    """What a first look tells: the id of a problem and in words, or none, and what it reads."""

    problem: str | None
    says: str
    gauge_pa: float | None


class WatchIn(Schema):
    """Which gauge is watched."""

    gauge: UUID


class TakenIn(Schema):
    """One reading as it was offered, and the entry that it corrects."""

    slot: str
    value: Any = None
    supersedes: UUID | None = None


class WatchOut(Schema):
    """A watch: its gauge and what that may be off by (Pa), the step where the visit stands, the
    dial, what the pump does and since when (s), what is offered at this step, and why something is
    not. `recording` is what it became, once it ended."""

    id: UUID
    gauge: UUID
    gauge_name: str
    error_pa: float
    from_s: float
    now_s: float
    open: bool
    recording: UUID | None
    step: Step
    dial: Dial
    pump: Literal["runs", "rests", "unknown"]
    since_s: float | None
    offered: list[Offered]
    hints: list[Hint]


class WatchLine(Schema):
    """The last of a line: times (s since 1970) and pressures (Pa gauge), equally many."""

    time_s: list[float]
    gauge_pa: list[float]


class StandInIn(Schema):
    """What hands do (zerodip.stand_in.Hands)."""

    hands: dict[str, Any]


class StandInOut(Schema):
    """A stand-in: the system whose plant it is, its unit number, and what hands do there."""

    system: UUID
    name: str
    site: str
    unit: int
    hands: Hands


def look_out(problem: str | None, pressure: float | None) -> LookOut:
    """A first look in words."""
    return LookOut(problem=problem, says=PROBLEMS[problem] if problem else "", gauge_pa=pressure)


def watch_out(watch: Watch, units: str) -> WatchOut:
    """A watch with what it offers now."""
    log, document = log_of(records_of(watch.visit)), document_of(watch.visit)
    step, spec = place_of(log), read(GaugeSpec, watch.gauge.data)[0]
    low = spec.low_pa if spec else 0.0
    dial = dial_of(document, units, low)
    error = error_pa(spec, dial.cut_in_gauge_pa, dial.cut_out_gauge_pa) if spec else 0.0
    seen = seen_restored(watch.seen) if watch.seen else None
    wanted = _wanted(document, log)
    return WatchOut(
        id=watch.pk,
        gauge=watch.gauge_id,
        gauge_name=str(watch.gauge),
        error_pa=error,
        from_s=watch.from_s,
        now_s=time.time(),
        open=watch.until_s is None,
        recording=watch.recording_id,
        step=step,
        dial=dial,
        pump=seen.pump if seen else "unknown",
        since_s=seen.since_s if seen else None,
        offered=offered(seen, step, log, wanted, units, error, low) if seen else [],
        hints=hints_of(seen, step, units) if seen else [],
    )


def _wanted(document: Document, log: Log) -> Wanted:
    """As the visit's own gauge shows it."""
    figures, low = document.figures(), log.low_by(FOUND_CUT_IN)
    run_s = kind_of(figures).diagnosis.run_s(figures)
    ends = run_s is not None and run_s < _NO_END_S
    return Wanted(
        cut_in_pa=document.settings.cut_in_gauge_pa - low,
        cut_out_pa=document.settings.cut_out_gauge_pa - low,
        run_s=run_s if ends else None,
    )


def watch_line(watch: Watch, seconds: float) -> WatchLine:
    """The last seconds of a watch's line; of a fast one every so many samples."""
    until = watch.until_s or time.time()
    line = one_of(line_of(watch.gauge_id, max(watch.from_s, until - seconds), until))
    shown = line.taken(slice(None, None, -(-len(line) // _MOST_POINTS) or 1))
    return WatchLine(
        time_s=shown.time_s.round(3).tolist(), gauge_pa=shown.gauge_pa.round(1).tolist()
    )


def stand_in_out(stand_in: StandIn) -> StandInOut:
    """A stand-in."""
    hands, _ = read(Hands, stand_in.hands)
    return StandInOut(
        system=stand_in.system_id,
        name=stand_in.system.name,
        site=stand_in.system.site.name,
        unit=stand_in.unit,
        hands=hands or Hands(),
    )


class BenchWatchOut(Schema):
    """The reference of a calibration being read: the gauge, and until when (s since 1970)."""

    gauge_name: str
    until_s: float


class BenchStandInOut(Schema):
    """A stand-in's bench: the switch, its unit number, whether it has two points, and what hands do
    there."""

    device: UUID
    name: str
    site: str
    unit: int
    dual: bool
    hands: BenchHands


def bench_watch_out(watch: BenchWatch) -> BenchWatchOut:
    """A reference being read."""
    return BenchWatchOut(gauge_name=str(watch.gauge), until_s=watch.until_s)


def bench_stand_in_out(stand_in: BenchStandIn) -> BenchStandInOut:
    """A stand-in's bench."""
    hands, _ = read(BenchHands, stand_in.hands)
    return BenchStandInOut(
        device=stand_in.device_id,
        name=str(stand_in.device),
        site=stand_in.device.site.name,
        unit=stand_in.unit,
        dual=len(stand_in.device.data["points"]) > 1,
        hands=hands or BenchHands(),
    )
