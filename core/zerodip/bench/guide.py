"""What is next in a calibration, and the calibration that its entries come to."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from datetime import date

from zerodip.bench.adjusting import BenchLook, BenchStep, expected_after, next_adjustment
from zerodip.bench.budget import budget_of, repeatability
from zerodip.bench.course import (
    LEFT,
    Instruction,
    before_turning,
    crossed,
    next_run,
    preparations,
    restoring,
)
from zerodip.bench.deadbands import deadband_step
from zerodip.bench.device import BenchDevice, Reference
from zerodip.bench.file import (
    LOWER,
    POINTS,
    UPPER,
    BenchTurn,
    Calibration,
    PastRow,
    acted_at,
    deadband_of,
)
from zerodip.bench.judge import RUNS, verdict_on
from zerodip.bench.log import Progress, Segment
from zerodip.bench.words import shown, titles

__all__ = ["LastTime", "Next", "calibration_of", "last_time", "next_of", "past_row"]

_STOP = Instruction(
    id="stop",
    title="Stop turning",
    text="No turn is sure to help. Look at switch and screws, or leave it as it is.",
)
_SET_ASIDE = 0.05  # of the range, that points are first brought beyond their targets


@dataclass(frozen=True, kw_only=True)
class Next:
    """What is next: the instruction (None once all is done), and the turns that are asked for."""

    instruction: Instruction | None
    step: BenchStep | None = None


@dataclass(frozen=True)
class LastTime:
    """Where each point was left (Pa gauge) and how wide each deadband was (Pa) at the calibration
    before, the lower first; None where that tells nothing."""

    acted: tuple[float | None, ...] = ()
    bands: tuple[float | None, ...] = ()


def last_time(device: BenchDevice, of: Calibration) -> LastTime:
    """What an earlier calibration tells of a switch as it is now.

    Args:
        device: The switch.
        of: The earlier calibration.

    Returns:
        What it tells: nothing of a point that is asked for elsewhere by now.
    """
    asked = [point.gauge_pa for point in device.points]
    then = [point.gauge_pa for point in of.device.points]
    if len(then) != len(asked):
        return LastTime()
    runs = [[run for run in of.as_left if run.at == at] for at in range(len(asked))]
    return LastTime(
        acted=tuple(
            acted_at(of.as_left, at) if then[at] == asked[at] else None for at in range(len(asked))
        ),
        bands=tuple(deadband_of(of.device, each) for each in runs),
    )


def next_of(
    device: BenchDevice,
    reference: Reference,
    progress: Progress,
    units: str,
    last: LastTime | None = None,
) -> Next:
    """What is next.

    Args:
        device: The switch.
        reference: The reference gauge.
        progress: How far the calibration is.
        units: Unit system of the texts: "us", "metric" or "kpa".
        last: What the calibration before tells.

    Returns:
        The next instruction, with the turns where it asks for some.
    """
    for each in preparations(device, units):
        if each.id not in progress.confirmed:
            return Next(instruction=each)
    now = progress.segments[-1]
    earlier = [run for each in progress.segments[:-1] for run in each.runs]
    last = last or LastTime()
    expected = _expected(device, progress) or (() if progress.adjusted else last.acted)
    first = next_run(device, now.runs, 1, units, earlier, expected, last.bands)
    if first is not None:
        return Next(instruction=first)
    if LEFT not in progress.confirmed:
        adjust = _put_right(device, reference, progress, units)
        if adjust is not None:
            return adjust
    more = next_run(device, now.runs, RUNS, units, earlier)
    if more is not None:
        return Next(instruction=more)
    if LEFT not in progress.confirmed and _is_out(device, now):
        return Next(instruction=_STOP)
    left = [each for each in restoring() if each.id not in progress.confirmed]
    return Next(instruction=left[0] if left else None)


def calibration_of(
    device: BenchDevice,
    reference: Reference,
    progress: Progress,
    on: date,
    past: Sequence[PastRow] = (),
) -> Calibration | None:
    """The calibration that entries come to.

    Args:
        device: The switch.
        reference: The reference gauge.
        progress: How far it is.
        on: Its day.
        past: Earlier calibrations.

    Returns:
        The calibration; None before each point was read once, as found and after the last turn.
    """
    points = range(len(device.points))
    ends = (progress.segments[0], progress.segments[-1])
    if any(segment.mean(at) is None for segment in ends for at in points):
        return None
    return Calibration(
        device=device,
        reference=reference,
        on=on.isoformat(),
        found=progress.found,
        turns=tuple(_turns(progress)),
        left=progress.segments[-1].runs if progress.adjusted else (),
        past=tuple(past),
    )


def _turns(progress: Progress) -> list[BenchTurn]:
    """Turns after which both points were read."""
    return [
        BenchTurn(
            lower=segment.turned.lower,
            upper=segment.turned.upper,
            lower_deadband=segment.turned.lower_deadband,
            upper_deadband=segment.turned.upper_deadband,
            lower_gauge_pa=lower,
            upper_gauge_pa=segment.mean(UPPER),
        )
        for segment in progress.segments[1:]
        if segment.turned is not None and (lower := segment.mean(LOWER)) is not None
    ]


def _expanded(device: BenchDevice, reference: Reference, segment: Segment, at: int) -> float:
    runs = [run for run in segment.runs if run.at == at]
    spread = repeatability(segment.runs)
    return budget_of(device, reference, runs, spread)[0].expanded_pa


def _passes(device: BenchDevice, reference: Reference, segment: Segment) -> bool:
    """Whether each point lies within its tolerance, its uncertainty included, as far as it was
    read."""
    for at, point in enumerate(device.points):
        mean = segment.mean(at)
        if mean is None:
            return False
        expanded = _expanded(device, reference, segment, at)
        tolerance = device.tolerance_pa(at)
        # Where no reading can pass, within the tolerance is as near as it can be told.
        wanted = ("pass",) if expanded < tolerance else ("pass", "conditional_pass")
        if verdict_on(mean - point.gauge_pa, tolerance, expanded) not in wanted:
            return False
    return True


def _is_out(device: BenchDevice, segment: Segment) -> bool:
    """Whether a point lies outside its tolerance, as read."""
    return any(
        abs((segment.mean(at) or 0.0) - point.gauge_pa) > device.tolerance_pa(at) * (1 + 1e-9)
        for at, point in enumerate(device.points)
    )


def _put_right(
    device: BenchDevice, reference: Reference, progress: Progress, units: str
) -> Next | None:
    """The next turn of a point's screw while one is off, then of a deadband's; None where all stand
    or the planner would leave them alone."""
    if not _passes(device, reference, progress.segments[-1]):
        return _adjust(device, reference, progress, units)
    spread = repeatability(*(each.runs for each in progress.segments))
    step = deadband_step(device, reference, progress.segments, spread)
    if step is not None and step.do in ("turn", "stop"):
        return Next(instruction=_turning(device, step), step=step)
    return None


def _adjust(
    device: BenchDevice, reference: Reference, progress: Progress, units: str
) -> Next | None:
    """The next turn; None where the planner would leave the screws alone, as near as can be
    told."""
    now = progress.segments[-1]
    lower, upper = now.mean(LOWER), now.mean(UPPER)
    if lower is not None and upper is not None and crossed(device, lower, upper):
        return Next(instruction=_set_apart(device, units))
    step = _step(device, reference, progress)
    if step.do in ("turn", "stop"):
        return Next(instruction=_turning(device, step), step=step)
    return None


def _expected(device: BenchDevice, progress: Progress) -> Sequence[float] | None:
    """Where the last turn should have brought the points, while one of them was not read since;
    None before the first turn."""
    now, looks = progress.segments[-1], _looks(device, progress.segments[:-1])
    turned = now.turned
    read = all(now.count(at) for at in range(len(device.points)))
    if turned is None or not looks or read:
        return None
    return expected_after(device, looks, turned.lower, turned.upper, _repeats(progress))


def _step(device: BenchDevice, reference: Reference, progress: Progress) -> BenchStep:
    """The planner's step by every look since points last stood well apart."""
    now = progress.segments[-1]
    expanded = max(_expanded(device, reference, now, at) for at in range(len(device.points)))
    looks = _looks(device, progress.segments)
    return next_adjustment(device, looks, _repeats(progress), expanded)


def _repeats(progress: Progress) -> float:
    return repeatability(*(each.runs for each in progress.segments))[0]


def _looks(device: BenchDevice, segments: Sequence[Segment]) -> list[BenchLook]:
    """Where points acted in each segment since they last stood well apart."""
    looks: list[BenchLook] = []
    for segment in segments:
        lower, upper = segment.mean(LOWER), segment.mean(UPPER)
        if lower is None:
            continue
        if upper is not None and crossed(device, lower, upper):
            looks = []
            continue
        turned = segment.turned
        looks.append(
            BenchLook(
                lower_pa=lower,
                upper_pa=upper,
                lower_turns=turned.lower if turned and looks else 0.0,
                upper_turns=turned.upper if turned and looks else 0.0,
            )
        )
    return looks


def _turning(device: BenchDevice, step: BenchStep) -> Instruction:
    if step.do == "stop" and step.complaint is not None:
        look = "; ".join(step.complaint.look)
        return replace(_STOP, text=f"{step.complaint.says} Look for: {look}.")
    if step.do == "stop":
        return _STOP
    return Instruction(
        id="turned",
        title="Turn, then read each point once",
        text=". ".join(each[:1].upper() + each[1:] for each in step.says) + ".",
        caution=before_turning(device),
        enters="turn",
    )


def _set_apart(device: BenchDevice, units: str) -> Instruction:
    """Before they are set one by one: the upper above its target, the lower below."""
    aside = _SET_ASIDE * device.span_pa
    lower, upper = (device.points[at].gauge_pa for at in (LOWER, UPPER))
    grain = device.tolerance_pa(LOWER) / 5
    above = shown(min(upper + aside, device.high_gauge_pa), units, grain)
    below = shown(max(lower - aside, device.low_gauge_pa), units, grain)
    names = titles(device)
    return Instruction(
        id="set_apart",
        title="Set the points apart first",
        text=(
            f"{names[UPPER]} to about {above}, {names[LOWER].lower()} to about {below}. "
            "Note the turns. Then the upper is set first."
        ),
        caution=before_turning(device),
        enters="turn",
    )


def past_row(of: Calibration) -> PastRow:
    """By how much each point was off, as found and as left: what a later calibration is told of an
    earlier one.

    Args:
        of: The earlier calibration.

    Returns:
        Its row.
    """
    off = {
        f"{phase}_{POINTS[at]}_pa": acted - point.gauge_pa
        for phase, runs in (("found", of.found), ("left", of.as_left))
        for at, point in enumerate(of.device.points)
        if (acted := acted_at(runs, at)) is not None
    }
    return PastRow(on=of.on, **off)
