"""The next turn of a set-point switch's screws, by the planner that sets every switch.

Points are told to it as shares of the range (a hundred parts of it are a hundred psi), so that what
is known before of a turn holds for any range: six parts a turn, from one to thirty (common
practice, no source)."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Literal

from zerodip.bench.device import BenchDevice
from zerodip.bench.file import LOWER
from zerodip.switch.belief import Watch, predict
from zerodip.switch.classes import CUT_IN, CUT_OUT, Nut, SwitchClass, scales
from zerodip.switch.goal import Goal, Work
from zerodip.switch.health import Complaint, complaints
from zerodip.switch.planner import Step, next_step
from zerodip.switch.watching import believed
from zerodip.switch.words import turn_words
from zerodip.units import PSI

__all__ = ["BenchLook", "BenchStep", "expected_after", "next_adjustment"]

_PARTS_PA = 100 * PSI  # what the range is told as
_SCALES = scales(6.0, 0.5, 1.0, 30.0)
_BELOW_PA = 10 * PSI  # where the other point of a single switch is told to stand
_LEAST_NOISE = 1e-4  # of the range: nothing repeats better
_WIDEST = 0.5  # of the tolerance, within which a point is aimed at least


def _screw(id: str, title: str, point: int, moves: tuple[bool, bool], alike: float = 0.0) -> Nut:
    return Nut(
        id=id,
        title=title,
        sets=point,
        moves=moves,
        scales_pa=_SCALES,
        cross_pa=0.5 * PSI,
        alike=alike,
    )


_DUAL = SwitchClass(
    id="bench_dual",
    nuts=(
        _screw("upper", "upper set-point screw", CUT_OUT, (False, True)),
        _screw("lower", "lower set-point screw", CUT_IN, (True, False)),
    ),
    drift_pa=0.1 * PSI,
    begin=0.5,
    finest=0.0625,
)
_SINGLE = SwitchClass(
    id="bench_single",
    nuts=(_screw("lower", "set-point screw", CUT_OUT, (True, True), 0.97),),
    drift_pa=0.1 * PSI,
    follows=True,
    begin=0.5,
    finest=0.0625,
)


@dataclass(frozen=True, kw_only=True)
class BenchLook:
    """Where the points acted (Pa gauge; None where there is no upper one), and the turns made since
    the look before, clockwise positive."""

    lower_pa: float
    upper_pa: float | None = None
    lower_turns: float = 0.0
    upper_turns: float = 0.0


@dataclass(frozen=True, kw_only=True)
class BenchStep:
    """What to do next: "turn" the screws, "watch" once more, "done", or "stop" where no turn is
    sure to stay within the range or the switch does not answer (`complaint`); turns by screw
    (clockwise positive), in words, and where each point is expected then with its standard
    deviation (Pa gauge)."""

    do: Literal["turn", "watch", "done", "stop"]
    turns: dict[str, float]
    says: tuple[str, ...]
    expected_pa: tuple[tuple[float, float], ...]
    complaint: Complaint | None = None


def next_adjustment(
    device: BenchDevice, looks: Sequence[BenchLook], repeats_pa: float, expanded_pa: float
) -> BenchStep:
    """The next step at the screws.

    Args:
        device: The switch.
        looks: Where its points acted, oldest first, one at least; turns before the first do not
            count.
        repeats_pa: Standard deviation of one reading, Pa.
        expanded_pa: The expanded uncertainty of a point, Pa: points are aimed at so near that they
            pass with it.

    Returns:
        The step.
    """
    of, noise = _class_of(device), _noise(device, repeats_pa)
    watches = [Watch(*_told(device, look), _turned(look, of)) for look in looks]
    belief = believed(of, watches, noise)
    step = next_step(belief, _goal(device, expanded_pa), Work(noise_pa=noise))
    # Two screws of their own move their points apart: that alone is no complaint here.
    wrong = (each for each in complaints(belief, watches, noise) if each.id == "no-answer")
    return _as_told(device, of, step, next(wrong, None))


def expected_after(
    device: BenchDevice, looks: Sequence[BenchLook], lower: float, upper: float, repeats_pa: float
) -> tuple[float, ...]:
    """Where points should act once screws were turned, by what the looks before taught.

    Args:
        device: The switch.
        looks: Where its points acted, oldest first, one at least.
        lower: Turns of the lower screw, clockwise positive.
        upper: Turns of the upper screw.
        repeats_pa: Standard deviation of one reading, Pa.

    Returns:
        Where each point is expected, Pa gauge, the lower first.
    """
    of = _class_of(device)
    watches = [Watch(*_told(device, look), _turned(look, of)) for look in looks]
    turns = BenchLook(lower_pa=0.0, lower_turns=lower, upper_turns=upper)
    belief = believed(of, watches, _noise(device, repeats_pa))
    after = predict(belief, _turned(turns, of)).mean
    points = (CUT_IN, CUT_OUT) if len(device.points) == 2 else (CUT_OUT,)
    return tuple(device.low_gauge_pa + after[at] * device.span_pa / _PARTS_PA for at in points)


def _class_of(device: BenchDevice) -> SwitchClass:
    return _DUAL if len(device.points) == 2 else _SINGLE


def _noise(device: BenchDevice, repeats_pa: float) -> float:
    """A reading's deviation in parts of the range."""
    return max(repeats_pa / device.span_pa, _LEAST_NOISE) * _PARTS_PA


def _told(device: BenchDevice, look: BenchLook) -> tuple[float, float]:
    """Both points in parts of the range; of a single one the other is told to stand below it."""
    lower = _parts(device, look.lower_pa)
    if look.upper_pa is None:
        return lower - _BELOW_PA, lower
    return lower, _parts(device, look.upper_pa)


def _parts(device: BenchDevice, gauge_pa: float) -> float:
    return (gauge_pa - device.low_gauge_pa) * _PARTS_PA / device.span_pa


def _turned(look: BenchLook, of: SwitchClass) -> tuple[float, ...]:
    return tuple(look.upper_turns if nut.id == "upper" else look.lower_turns for nut in of.nuts)


def _goal(device: BenchDevice, expanded_pa: float) -> Goal:
    wanted = [_parts(device, point.gauge_pa) for point in device.points]
    near = min(device.tolerance_pa(at) for at in range(len(wanted)))
    aimed = max(near - expanded_pa, _WIDEST * near) * _PARTS_PA / device.span_pa
    return Goal(
        cut_in_pa=wanted[LOWER] if len(wanted) == 2 else wanted[LOWER] - _BELOW_PA,
        cut_out_pa=wanted[-1],
        tolerance_pa=aimed,
        highest_pa=_PARTS_PA,
    )


def _as_told(
    device: BenchDevice, of: SwitchClass, step: Step, wrong: Complaint | None
) -> BenchStep:
    if wrong is not None and step.do == "turn":
        step = replace(step, do="stop", turns=())
    made = {nut.id: turn for nut, turn in zip(of.nuts, step.turns, strict=False) if turn}
    names = {nut.id: nut.title for nut in of.nuts}
    back = device.span_pa / _PARTS_PA
    points = (step.cut_in_pa, step.cut_out_pa) if len(device.points) == 2 else (step.cut_out_pa,)
    return BenchStep(
        do="stop" if step.do == "read" else "watch" if step.do == "see" else step.do,
        turns=made,
        says=tuple(f"{names[id]}: {turn_words(turn)}" for id, turn in made.items()),
        complaint=wrong,
        expected_pa=tuple((device.low_gauge_pa + mean * back, sd * back) for mean, sd in points),
    )
