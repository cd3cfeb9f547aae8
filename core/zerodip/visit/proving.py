"""Proving: runs timed from click to click, a bucket, a drain, a leak watch; predicted beside measured, and what a difference
points to."""

import statistics
from collections.abc import Iterator, Mapping
from dataclasses import dataclass

from ..facts import Facts, ReceiverFacts, WaterFacts
from ..prove.knee import knee
from ..system import BLADDER_KINDS
from ..tanks.bladder import water_m3
from ..tanks.bucket import bucket_pre_charges_abs_pa
from ..tanks.plain import charge_abs_pa
from ..units import text
from .records import Bucket, Drain, LeakWatch, Log

__all__ = ["Cause", "Measured", "ProveView", "prove_view"]

_IDLE = 0.15  # a cause that fits no better is not worth a line
_APART = 0.12  # of the prediction: nearer than this is the same


@dataclass(frozen=True, kw_only=True)
class Measured:
    """One thing measured beside what was predicted (SI; None where nothing is), in words."""

    id: str
    title: str
    measured: float | None
    predicted: float | None
    dimension: str
    agrees: bool | None
    says: str


@dataclass(frozen=True, kw_only=True)
class Cause:
    """What would explain a difference, how well it fits what was measured (0 to 1), and why."""

    id: str
    title: str
    fits: float
    why: str


@dataclass(frozen=True, kw_only=True)
class ProveView:
    """What was measured, the causes of a difference with the likeliest first, and the one measurement that would tell."""

    measured: tuple[Measured, ...]
    causes: tuple[Cause, ...]
    tell: str


def prove_view(facts: Facts, log: Log, units: str) -> ProveView:
    """Predicted beside measured. Source: gas law and mass balance; the causes are common practice, no source."""
    found = [_run(facts, log, units)]
    found += [_bucket(facts, bucket, units) for bucket in log.records("bucket")]
    found += [_drained(facts, drain, units) for drain in log.records("drain")]
    found += [_leak(facts, leak, units) for leak in log.records("leak")]
    measured = tuple(each for each in found if each is not None)
    causes = _causes(facts, measured)
    return ProveView(measured=measured, causes=causes, tell=_tell(causes, measured))


def _agrees(measured: float, predicted: float) -> bool:
    return abs(measured - predicted) <= _APART * abs(predicted)


def _run(facts: Facts, log: Log, units: str) -> Measured | None:
    laps = log.records("lap")
    predicted = getattr(facts, "run_s", None)
    if not laps or predicted is None:
        return None
    middle = statistics.median(lap.run_s for lap in laps)
    told = f"{len(laps)} lap{'s' if len(laps) > 1 else ''}; predicted {text(predicted, 'duration', units)}"
    return Measured(
        id="run", title="Pump run", measured=middle, predicted=predicted if predicted < 1e9 else None,
        dimension="duration", agrees=_agrees(middle, predicted) if predicted < 1e9 else False, says=told,
    )  # fmt: skip


def _bucket(facts: Facts, bucket: Bucket, units: str) -> Measured | None:
    if not isinstance(facts, WaterFacts):
        return None
    low, high = bucket.to_gauge_pa + facts.atmosphere_pa, bucket.from_gauge_pa + facts.atmosphere_pa
    predicted = water_m3(facts.bank, high) - water_m3(facts.bank, low)
    if facts.kind in BLADDER_KINDS:
        says = _bladder_says(facts, bucket, low, high, units)
    else:
        charge = charge_abs_pa(facts.nominal_m3, bucket.caught_m3, low, high, facts.practice.gas_exponent)
        says = f"So the tank has {text(charge / facts.pre_charge_abs_pa, 'share', units)} of its air."
    agrees = _agrees(bucket.caught_m3, predicted) if predicted > 0 else False
    return Measured(
        id="bucket", title="Drawdown caught", measured=bucket.caught_m3, predicted=predicted, dimension="volume",
        agrees=agrees, says=says,
    )  # fmt: skip


def _bladder_says(facts: WaterFacts, bucket: Bucket, low: float, high: float, units: str) -> str:
    """One measured drawdown fits two pre-charges: both are said, and what tells them apart."""
    below, above = bucket_pre_charges_abs_pa(facts.nominal_m3, bucket.caught_m3, low, high, facts.practice.gas_exponent)
    told = [text(c - facts.atmosphere_pa, "pressure", units) for c in (below, above) if c is not None]
    if len(told) == 2:
        return f"It fits a pre-charge of {told[0]} and one of {told[1]}: the knee of a drain, or the drained reading, tells which."
    if not told:
        return "More than this tank can give between these pressures: read volume and gauge again."
    return f"It fits a pre-charge of {told[0]}."


def _drained(facts: Facts, drain: Drain, units: str) -> Measured | None:
    seen = knee(drain.times_s, drain.gauges_pa)
    predicted = getattr(facts, "pre_charge_pa", None) if isinstance(facts, WaterFacts) else None
    if seen is None:
        return Measured(
            id="knee", title="Knee of the drain", measured=None, predicted=predicted, dimension="pressure", agrees=None,
            says="No knee is seen: drain further, until the gauge collapses, and read more often.",
        )  # fmt: skip
    agrees = None if predicted is None else abs(seen.gauge_pa - predicted) <= 2 * facts.gauge_error_pa
    return Measured(
        id="knee", title="Pre-charge, by the knee of the drain", measured=seen.gauge_pa, predicted=predicted,
        dimension="pressure", agrees=agrees, says=f"The fall is {min(seen.steeper, 99):.0f} times steeper below it.",
    )  # fmt: skip


def _leak(facts: Facts, leak: LeakWatch, units: str) -> Measured | None:
    if isinstance(facts, ReceiverFacts):
        lost = (facts.store.held_m3(leak.first_gauge_pa) - facts.store.held_m3(leak.later_gauge_pa)) / leak.seconds
        flow = text(lost, "air_flow", units)
    elif isinstance(facts, WaterFacts):
        held = [water_m3(facts.bank, p + facts.atmosphere_pa) for p in (leak.first_gauge_pa, leak.later_gauge_pa)]
        lost, flow = (held[0] - held[1]) / leak.seconds, ""
    else:
        return None
    dimension = "air_flow" if isinstance(facts, ReceiverFacts) else "flow"
    tight = lost < (1e-7 if dimension == "flow" else 1e-6)
    says = "Tight." if tight else f"{flow or text(lost, dimension, units)} runs away with nothing open."
    return Measured(id="leak", title="Leak", measured=lost, predicted=0.0, dimension=dimension, agrees=tight, says=says)


def _causes(facts: Facts, measured: tuple[Measured, ...]) -> tuple[Cause, ...]:
    """What would explain runs or drawdown that do not agree, ranked by how well it fits all that was measured."""
    by = {each.id: each for each in measured}
    off = [
        each for each in (by.get(id) for id in ("run", "bucket", "knee")) if each is not None and each.agrees is False
    ]
    if not off:
        return ()
    causes = [*(_water_causes(facts, by) if isinstance(facts, WaterFacts) else _air_causes(by))]
    causes.append(
        Cause(id="gauge", title="Gauge error", fits=0.3 if len(off) > 1 else 0.2, why="Both points are read on it.")
    )
    return tuple(sorted((cause for cause in causes if cause.fits > _IDLE), key=lambda cause: -cause.fits))


def _water_causes(facts: WaterFacts, by: Mapping[str, Measured]) -> Iterator[Cause]:
    run, drawn = _ratio(by.get("run")), _ratio(by.get("bucket"))
    if facts.kind == "well_air":
        fits = _fit(drawn if drawn is not None else run, below=True)
        yield Cause(id="air", title="Air lost", fits=fits, why="Less air gives less water and a shorter run.")
    else:
        why = "Lower or above cut-in, the tank gives less; the run is shorter."
        fits = _knee_fit(by.get("knee")) * (_fit(drawn, below=None) if drawn is not None else 0.8)
        yield Cause(id="pre_charge", title="Pre-charge off", fits=fits, why=why)
    if run is None or abs(run - 1) <= _APART:
        return
    title = "Pump weaker than its plate, or a leak" if run > 1 else "Pump stronger than its plate"
    if drawn is None:
        yield Cause(id="pump", title=title, fits=0.45, why="The time alone would fit; the water was not caught.")
    elif abs(drawn - 1) <= _APART:
        yield Cause(id="pump", title=title, fits=0.9, why="The water is as predicted, the time is not.")


def _knee_fit(seen: Measured | None) -> float:
    return 0.5 if seen is None or seen.agrees is None else 0.1 if seen.agrees else 0.9


def _air_causes(by: Mapping[str, Measured]) -> Iterator[Cause]:
    """A receiver is a vessel of known size: what is off is the machine, the room in it, or air that went elsewhere."""
    run, leak = _ratio(by.get("run")), by.get("leak")
    if run is None:
        return
    if run < 1:
        yield Cause(
            id="condensate",
            title="Water in the receiver",
            fits=0.7,
            why="It takes the room of air: the run is shorter.",
        )
        yield Cause(id="pump", title="Compressor stronger than its plate", fits=0.25, why="Seldom so by much.")
        return
    used = 0.5 if leak is None else 0.2 if leak.agrees else 0.8
    yield Cause(
        id="use", title="Air used or leaking while it ran", fits=used, why="Part of what it delivers goes elsewhere."
    )
    why = "Valves, filter or belt: less is delivered than the plate says."
    yield Cause(id="pump", title="Compressor weaker than its plate", fits=0.9 - used, why=why)


def _ratio(of: Measured | None) -> float | None:
    return of.measured / of.predicted if of and of.measured is not None and of.predicted else None


def _fit(ratio: float | None, below: bool | None) -> float:
    if ratio is None:
        return 0.5
    if abs(ratio - 1) <= _APART:
        return 0.1
    return 0.9 if below is None or (ratio < 1) == below else 0.2


def _tell(causes: tuple[Cause, ...], measured: tuple[Measured, ...]) -> str:
    """The one measurement that would tell the two likeliest causes apart. Pressure alone cannot tell a low pre-charge from a
    small tank."""
    if len(causes) < 2:
        return ""
    done = {each.id for each in measured if each.agrees is not None}
    if causes[0].id == "condensate":
        return "Bleed the drain cock until only air comes, then time the run again."
    if "use" in {cause.id for cause in causes}:
        watch = "Watch the gauge with the machine off and nothing used: it tells a leak from a weak machine."
        return (
            "Time the pump-up from empty, everything shut: it tells what the machine delivers."
            if "leak" in done
            else watch
        )
    if "bucket" not in done:
        return "Catch the water from cut-out to cut-in, power off: it tells tank from pump."
    if "knee" not in done and causes[0].id == "pre_charge":
        return "Drain on and watch for the knee, or read the drained pre-charge: it tells which pre-charge it is."
    return "Hold a second gauge beside this one."
