"""What a set point's figure may be off by: the parts, and how they add up.

Source: JCGM 100:2008 (GUM), JCGM 101:2008 (propagation of distributions); from memory."""

import math
from collections.abc import Sequence
from dataclasses import dataclass

from zerodip.bench.coverage import Error, pooled
from zerodip.bench.device import BenchDevice, Reference
from zerodip.bench.file import BenchRun

__all__ = ["COVERAGE", "Budget", "Component", "budget_of", "deadband_error", "repeatability"]

COVERAGE = 0.95
# From the change to the reading, s, and the rate near the point where nobody timed it, a share of
# the range in a second: common practice, no source.
DELAY_S = {"lamp": 0.5, "meter": 0.5, "gauge": 0.1}
USUAL_RATE = 0.002


@dataclass(frozen=True, kw_only=True)
class Component:
    """One part of a budget: what it is, how it is spread ("rectangular", "normal", "readings"), the
    half-width or deviation that it was told by and its standard uncertainty, Pa."""

    title: str
    spread: str
    told_pa: float
    standard_pa: float


@dataclass(frozen=True, kw_only=True)
class Budget:
    """The parts, the standard uncertainty of them all, the expanded one that holds 95 %, and how
    many times the one it is (Pa)."""

    components: tuple[Component, ...]
    standard_pa: float
    expanded_pa: float
    coverage: float
    factor: float


def repeatability(*phases: Sequence[BenchRun]) -> tuple[float, float]:
    """The standard deviation of one reading (Pa) by all series of runs, pooled, and its degrees of
    freedom; each point's acting and resetting are a series each, in each phase.

    Args:
        phases: Runs without a turn of a screw between.

    Returns:
        Deviation, Pa, and degrees of freedom.
    """
    series: dict[tuple[int, int, str], list[float]] = {}
    for phase, runs in enumerate(phases):
        for run in runs:
            series.setdefault((phase, run.at, "set"), []).append(run.set_gauge_pa)
            if run.reset_gauge_pa is not None:
                series.setdefault((phase, run.at, "reset"), []).append(run.reset_gauge_pa)
    return pooled(list(series.values()))


def budget_of(
    device: BenchDevice,
    reference: Reference,
    runs: Sequence[BenchRun],
    spread: tuple[float, float],
) -> tuple[Budget, Error]:
    """The budget of the mean of a point's runs.

    Args:
        device: The switch.
        reference: The reference gauge.
        runs: Runs of the one point, one or more.
        spread: What repeats, as `repeatability` tells it.

    Returns:
        The budget, and the distribution of the error behind it.
    """
    at = math.fsum(run.set_gauge_pa for run in runs) / len(runs)
    parts = [
        _reference(reference, at),
        _within("Finest reading", reference.resolution_pa / 2),
        _within("Rate of approach", rate_pa(device, runs)),
    ]
    of_mean = spread[0] / math.sqrt(len(runs))
    parts.append(
        Component(title="Repeatability", spread="readings", told_pa=spread[0], standard_pa=of_mean)
    )
    error = Error(
        half_widths=tuple(each.told_pa for each in parts if each.spread == "rectangular"),
        normal=math.hypot(*(each.standard_pa for each in parts if each.spread == "normal")),
        of_readings=of_mean,
        freedom=spread[1],
    )
    return _added(parts, error), error


def deadband_error(
    device: BenchDevice,
    reference: Reference,
    runs: Sequence[BenchRun],
    spread: tuple[float, float],
) -> Error:
    """What a mean deadband may be off by. What the reference is off by is the same at both ends, so
    near each other, and falls out.

    Args:
        device: The switch.
        reference: The reference gauge.
        runs: Runs of the one point, one or more.
        spread: What repeats, as `repeatability` tells it.

    Returns:
        The distribution.
    """
    each = (reference.resolution_pa / 2, rate_pa(device, runs))
    return Error(
        half_widths=(*each, *each),
        of_readings=spread[0] * math.sqrt(2 / len(runs)),
        freedom=spread[1],
    )


def rate_pa(device: BenchDevice, runs: Sequence[BenchRun]) -> float:
    """How far the pressure moved between the change and the reading of it, at most, Pa."""
    usual = USUAL_RATE * device.span_pa
    return max(
        (usual if run.rate_pa_s is None else run.rate_pa_s)
        * (DELAY_S[run.seen_by] if run.delay_s is None else run.delay_s)
        for run in runs
    )


def _reference(reference: Reference, at: float) -> Component:
    if reference.expanded_pa is not None:
        return Component(
            title="Reference, by its certificate",
            spread="normal",
            told_pa=reference.expanded_pa,
            standard_pa=reference.expanded_pa / 2,
        )
    return _within(f"Reference, grade {reference.grade}", reference.off_pa(at))


def _within(title: str, half_width: float) -> Component:
    return Component(
        title=title,
        spread="rectangular",
        told_pa=half_width,
        standard_pa=half_width / math.sqrt(3),
    )


def _added(parts: Sequence[Component], error: Error) -> Budget:
    expanded = error.half_width(COVERAGE)
    return Budget(
        components=tuple(parts),
        standard_pa=error.standard,
        expanded_pa=expanded,
        coverage=COVERAGE,
        factor=expanded / error.standard,
    )
