"""The next turn of a deadband's screw, by the same planner: a deadband is a point on a scale from
nothing to the range. Clockwise widens (common practice, no source); what a turn does is learned."""

from collections.abc import Sequence
from dataclasses import dataclass, replace

from zerodip.bench.adjusting import BenchLook, BenchStep, next_adjustment
from zerodip.bench.budget import deadband_error
from zerodip.bench.device import BenchDevice, Reference, SetPoint
from zerodip.bench.file import POINTS, BenchRun, deadband_of
from zerodip.bench.judge import verdict_on
from zerodip.bench.log import Segment

__all__ = ["SCREWS", "deadband_step"]

SCREWS = tuple(f"{point}_deadband" for point in POINTS)


@dataclass(frozen=True)
class _Deadband:
    """One that can be adjusted: whose, how wide it was after each turn, and how far it may be off
    beside its uncertainty, Pa."""

    at: int
    wanted_pa: float
    looks: tuple[tuple[float, float], ...]
    tolerance_pa: float
    expanded_pa: float

    @property
    def passes(self) -> bool:
        """Whether it stands, its uncertainty included, as near as it can be told."""
        off = self.looks[-1][0] - self.wanted_pa
        verdict = verdict_on(off, self.tolerance_pa, self.expanded_pa)
        if self.expanded_pa >= self.tolerance_pa:
            return verdict in ("pass", "conditional_pass")
        return verdict == "pass"


def deadband_step(
    device: BenchDevice,
    reference: Reference,
    segments: Sequence[Segment],
    spread: tuple[float, float],
) -> BenchStep | None:
    """The next step at the screw of a deadband that can be adjusted and is off.

    Args:
        device: The switch.
        reference: The reference gauge.
        segments: Every segment so far.
        spread: What repeats, as `zerodip.bench.budget.repeatability` tells it.

    Returns:
        The step, its turns by the names of `SCREWS`; None where every deadband stands, or is not
        to be adjusted, or was not read, or read the wrong way round.
    """
    for at, point in enumerate(device.points):
        now = _deadband(device, reference, segments, at, spread)
        if point.deadband == "adjustable" and now is not None and not now.passes:
            return _step(device, now, spread[0])
    return None


def _deadband(
    device: BenchDevice,
    reference: Reference,
    segments: Sequence[Segment],
    at: int,
    spread: tuple[float, float],
) -> _Deadband | None:
    """By every look since a set point's own screw was turned: that may have moved it, too."""
    looks: list[tuple[float, float]] = []
    runs: list[BenchRun] = []
    for segment in segments:
        turned = segment.turned
        runs = [run for run in segment.runs if run.at == at and run.reset_gauge_pa is not None]
        width = deadband_of(device, runs)
        if turned is not None and (turned.lower or turned.upper):
            looks = []
        if width is not None:
            looks.append((width, getattr(turned, SCREWS[at]) if turned and looks else 0.0))
    if not looks or not runs or looks[-1][0] <= 0:  # ends that are mixed up are no width
        return None
    return _Deadband(
        at=at,
        wanted_pa=device.points[at].deadband_pa or 0.0,
        looks=tuple(looks),
        tolerance_pa=device.tolerance_pa(at),
        expanded_pa=deadband_error(device, reference, runs, spread).half_width(),
    )


def _step(device: BenchDevice, of: _Deadband, repeats_pa: float) -> BenchStep:
    scale = BenchDevice(
        name="deadband",
        high_gauge_pa=device.span_pa,
        points=(SetPoint(gauge_pa=of.wanted_pa, acts="rising", tolerance_pa=of.tolerance_pa),),
    )
    looks = [BenchLook(lower_pa=width, lower_turns=turns) for width, turns in of.looks]
    step = next_adjustment(scale, looks, 2**0.5 * repeats_pa, of.expanded_pa)
    title = "deadband screw" if len(device.points) == 1 else f"{POINTS[of.at]} deadband screw"
    return replace(
        step,
        turns=dict(zip([SCREWS[of.at]], step.turns.values(), strict=False)),
        says=tuple(each.replace("set-point screw", title) for each in step.says),
        expected_pa=(),
    )
