"""Proving: runs timed from click to click, a bucket, a drain, a leak watch; predicted beside measured, and what a difference
points to."""

import statistics
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
        each for each in (by.get("run"), by.get("bucket"), by.get("knee")) if each is not None and each.agrees is False
    ]
    if not off or not isinstance(facts, WaterFacts):
        return ()
    run, bucket, seen = by.get("run"), by.get("bucket"), by.get("knee")
    ratio = _ratio(run)
    drawn = _ratio(bucket)
    causes = []
    if facts.kind == "well_air":
        causes.append(
            Cause(
                id="air",
                title="Air lost",
                fits=_fit(drawn if drawn is not None else ratio, below=True),
                why="Less air gives less water and a shorter run.",
            )
        )
    else:
        knee_off = (
            0.9 if seen is not None and seen.agrees is False else 0.1 if seen is not None and seen.agrees else 0.5
        )
        fits = knee_off * (_fit(drawn, below=None) if drawn is not None else 0.8)
        causes.append(
            Cause(
                id="pre_charge",
                title="Pre-charge off",
                fits=fits,
                why="Lower or above cut-in, the tank gives less; the run is shorter.",
            )
        )
    water_right = drawn is not None and abs(drawn - 1) <= _APART
    unseen = 0.45 if drawn is None else 0.9 if water_right else 0.1
    if ratio is not None and abs(ratio - 1) > _APART:
        longer = ratio > 1
        title = "Pump weaker than its plate, or a leak" if longer else "Pump stronger than its plate"
        why = {True: "The water is as predicted, the time is not.", False: "But then the water would be as predicted."}
        untold = "The time alone would fit; the water was not caught."
        causes.append(Cause(id="pump", title=title, fits=unseen, why=untold if drawn is None else why[water_right]))
    causes.append(
        Cause(id="gauge", title="Gauge error", fits=0.3 if len(off) > 1 else 0.2, why="Both points are read on it.")
    )
    return tuple(sorted(causes, key=lambda cause: -cause.fits))


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
    if "bucket" not in done:
        return "Catch the water from cut-out to cut-in, power off: it tells tank from pump."
    if "knee" not in done and causes[0].id == "pre_charge":
        return "Drain on and watch for the knee, or read the drained pre-charge: it tells which pre-charge it is."
    return "Hold a second gauge beside this one."
