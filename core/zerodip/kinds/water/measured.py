"""What was measured on a water system beside what was predicted."""

from collections.abc import Iterator

from zerodip.kinds.visit_parts import Measured
from zerodip.kinds.water.figures import WaterFigures
from zerodip.physics.bladder_tank import water_m3
from zerodip.physics.bucket_test import bucket_pre_charges_abs_pa
from zerodip.physics.drain_knee import knee
from zerodip.physics.plain_tank import charge_abs_pa
from zerodip.practice.agreement import agrees
from zerodip.units import text
from zerodip.visit.log import Log
from zerodip.visit.records import Bucket, Drain, LeakWatch
from zerodip.visit.slots import AIR_LEFT, BUCKET, DRAIN, FOUND_PRE_CHARGE, KNEE, LEAK

__all__ = ["measured"]

_TIGHT_M3_S = 1e-7


def measured(figures: WaterFigures, log: Log, units: str) -> Iterator[Measured]:
    """Buckets, drains and leak watches.

    Args:
        figures: The system's figures under its settings.
        log: The visit's log.
        units: Unit system of the texts: "us", "metric" or "kpa".

    Yields:
        What was measured, beside what was predicted.

    Source: The gas law and mass balance.
    """
    yield from (_bucket(figures, bucket, units) for bucket in log.all(BUCKET))
    yield from _collapsed(figures, log)
    drains = zip(log.records_in(DRAIN), log.all(DRAIN), strict=True)
    yield from (_drained(figures, drain, _charge_then(figures, log, r.at)) for r, drain in drains)
    yield from (_leak(figures, leak, units) for leak in log.all(LEAK))


def _bucket(figures: WaterFigures, bucket: Bucket, units: str) -> Measured:
    low, high = (
        bucket.to_gauge_pa + figures.datum_pa,
        bucket.from_gauge_pa + figures.datum_pa,
    )
    predicted = water_m3(figures.bank, high) - water_m3(figures.bank, low)
    says = _plain_says if figures.system.plain else _bladder_says
    return Measured(
        id="bucket",
        title="Drawdown caught",
        measured=bucket.caught_m3,
        predicted=predicted,
        dimension="volume",
        agrees=agrees(bucket.caught_m3, predicted) if predicted > 0 else False,
        says=says(figures, bucket, low, high, units),
    )


def _plain_says(figures: WaterFigures, bucket: Bucket, low: float, high: float, units: str) -> str:
    charge = charge_abs_pa(
        figures.nominal_m3, bucket.caught_m3, low, high, figures.practice.gas_exponent
    )
    return f"So the tank has {text(charge / figures.pre_charge_abs_pa, 'share', units)} of its air."


def _bladder_says(
    figures: WaterFigures, bucket: Bucket, low: float, high: float, units: str
) -> str:
    """One measured drawdown fits two pre-charges: both are said, and what tells them apart."""
    fits = bucket_pre_charges_abs_pa(
        figures.nominal_m3, bucket.caught_m3, low, high, figures.practice.gas_exponent
    )
    told = [
        text(charge - figures.atmosphere_pa, "pressure", units)
        for charge in fits
        if charge is not None and charge >= figures.atmosphere_pa
    ]
    if not told and any(charge is not None for charge in fits):
        return "So little fits no pre-charge: the bladder is burst, or the tank full of water."
    if len(told) == 2:
        which = "the knee of a drain, or the drained reading, tells which."
        return f"It fits a pre-charge of {told[0]} and one of {told[1]}: {which}"
    if not told:
        return "More than this tank can give between these pressures: read volume and gauge again."
    return f"It fits a pre-charge of {told[0]}."


def _charge_then(figures: WaterFigures, log: Log, at: str) -> float | None:
    """The pre-charge that a drain at that time should show: what was left before it, else what was
    found dry, else what is set; None where it was set anew only later and never read before."""
    left, found = log.record(AIR_LEFT), log.true(FOUND_PRE_CHARGE)
    if left is not None and left.value is not None:
        if left.at < at:
            return log.true(AIR_LEFT)
        return found
    return figures.pre_charge_pa if found is None else found


def _collapsed(figures: WaterFigures, log: Log) -> Iterator[Measured]:
    """The knee as one number: where the gauge was seen to collapse."""
    record, seen = log.record(KNEE), log.true(KNEE)
    if record is not None and seen is not None:
        says = "Seen by eye on the gauge; the dry reading tells it better."
        yield _by_knee(figures, seen, _charge_then(figures, log, record.at), says)


def _drained(figures: WaterFigures, drain: Drain, predicted: float | None) -> Measured:
    seen = knee(drain.times_s, drain.gauges_pa)
    if seen is not None:
        says = f"The fall is {min(seen.steeper, 99):.0f} times steeper below it."
        return _by_knee(figures, seen.gauge_pa, predicted, says)
    return Measured(
        id="knee",
        title="Knee of the drain",
        measured=None,
        predicted=predicted,
        dimension="pressure",
        agrees=None,
        says="No knee is seen: drain further, until the gauge collapses, and read more often.",
    )


def _by_knee(
    figures: WaterFigures, gauge_pa: float, predicted: float | None, says: str
) -> Measured:
    charge = gauge_pa - figures.tank_head_pa
    near = 2 * figures.gauge_error_pa
    return Measured(
        id="knee",
        title="Pre-charge, by the knee of the drain",
        measured=charge,
        predicted=predicted,
        dimension="pressure",
        agrees=None if predicted is None else abs(charge - predicted) <= near,
        says=says,
    )


def _leak(figures: WaterFigures, leak: LeakWatch, units: str) -> Measured:
    first, later = (
        water_m3(figures.bank, p + figures.datum_pa)
        for p in (leak.first_gauge_pa, leak.later_gauge_pa)
    )
    lost = (first - later) / leak.seconds
    tight = lost < _TIGHT_M3_S
    says = "Tight." if tight else f"{text(lost, 'flow', units)} runs away with nothing open."
    return Measured(
        id="leak",
        title="Leak",
        measured=lost,
        predicted=0.0,
        dimension="flow",
        agrees=tight,
        says=says,
    )
