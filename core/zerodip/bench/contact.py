"""Where a contact changed, on the line of a reference gauge that is read with it."""

import math
from collections import deque
from collections.abc import Sequence
from dataclasses import dataclass

from zerodip.bench.course import Instruction
from zerodip.bench.device import BenchDevice
from zerodip.bench.file import POINTS, BenchRun
from zerodip.bench.log import Read
from zerodip.errors import Fault, InvalidInput

__all__ = ["Change", "ContactLine", "Sample", "reading_of"]

HELD_S = 0.25  # for which a contact stays before its change counts: contacts bounce
_FITTED_S = 1.0  # of the line before a change that tell where it was and how fast
_FEW, _SAME = 4, 4.0  # samples of the end; times their scatter that the whole may lie off
_MOST_GAP_S = 1.5  # between samples, for a change between them to be read off
_LEAST_DELAY_S = 0.1  # of an input and its line: common practice, no source
_FAR = 0.05  # of the range, from where a point should change, that another may be meant
_STILL = 2e-4  # of the range in a second, below which the pressure goes neither way


@dataclass(frozen=True)
class Sample:
    """What the gauge showed: when (s), how much (Pa gauge), and whether the contact was closed."""

    at_s: float
    gauge_pa: float
    closed: bool


@dataclass(frozen=True, kw_only=True)
class Change:
    """A change of the contact: when (s) and where (Pa gauge), how fast the pressure moved (Pa/s,
    rising positive), within how long it was seen (s), and whether the contact closed."""

    at_s: float
    gauge_pa: float
    rate_pa_s: float
    delay_s: float
    closed: bool


class ContactLine:
    """The line as it comes. A change is told once the contact stayed so for a moment; one that came
    while the gauge was lost is not told."""

    def __init__(self) -> None:
        self._before: deque[Sample] = deque()
        self._since: list[Sample] = []

    @property
    def rate_pa_s(self) -> float:
        """How fast the pressure moves by the last second, Pa/s, rising positive."""
        line = [*self._before, *self._since]
        return _straight([e for e in line if e.at_s >= line[-1].at_s - _FITTED_S], line[-1].at_s)[1]

    def add(self, sample: Sample) -> Change | None:
        """The next sample; the change that it makes sure of.

        Args:
            sample: Later than those before.

        Returns:
            The change; None for none.
        """
        if not self._before or sample.closed == self._before[-1].closed:
            self._before.extend((*self._since, sample))
            self._since.clear()
            while self._before[0].at_s < sample.at_s - _FITTED_S - HELD_S:
                self._before.popleft()
            return None
        self._since.append(sample)
        if sample.at_s - self._since[0].at_s < HELD_S:
            return None
        made = _change(self._before, self._since[0])
        self._before = deque(self._since)
        self._since = []
        return made


def _change(before: Sequence[Sample], after: Sample) -> Change | None:
    last = before[-1]
    gap = after.at_s - last.at_s
    if gap > _MOST_GAP_S:
        return None
    at = (last.at_s + after.at_s) / 2
    line = [*(each for each in before if each.at_s >= last.at_s - _FITTED_S), after]
    gauge_pa, rate = _straight(line, at)
    return Change(
        at_s=at,
        gauge_pa=gauge_pa,
        rate_pa_s=rate,
        delay_s=max(gap / 2, _LEAST_DELAY_S),
        closed=after.closed,
    )


def _straight(line: Sequence[Sample], at_s: float) -> tuple[float, float]:
    """Where a line is at a time near its end, and how steep: by all of it, or by its last samples
    where it turned before those."""
    end = line[-_FEW:]
    short, whole = _fitted(end, at_s), _fitted(line, at_s)
    off = [each.gauge_pa - short[0] - short[1] * (each.at_s - at_s) for each in end]
    scatter = math.hypot(*off) / math.sqrt(max(len(end) - 2, 1))
    return whole if abs(whole[0] - short[0]) <= _SAME * scatter else short


def _fitted(line: Sequence[Sample], at_s: float) -> tuple[float, float]:
    """A straight line through samples: where it is at a time, and how steep."""
    mean_s = sum(each.at_s for each in line) / len(line)
    mean_pa = sum(each.gauge_pa for each in line) / len(line)
    spread = sum((each.at_s - mean_s) ** 2 for each in line)
    if not spread:
        return mean_pa, 0.0
    rate = sum((each.at_s - mean_s) * (each.gauge_pa - mean_pa) for each in line) / spread
    return mean_pa + rate * (at_s - mean_s), rate


def reading_of(
    device: BenchDevice,
    asked: Instruction | None,
    change: Change,
    runs: Sequence[BenchRun] = (),
) -> Read:
    """The reading that a change makes where one is asked for.

    Args:
        device: The switch.
        asked: What is asked next; None for nothing.
        change: The change.
        runs: What was read since the last turn.

    Returns:
        The reading, as seen by the gauge.

    Raises:
        InvalidInput: Where none is asked for, the pressure moved the other way, or it came where
            the other point changes: the lead is on the wrong contact.
    """
    if asked is None or asked.enters not in ("set", "reset"):
        raise _not_this("came while no reading was asked for. It was not taken.")
    rising = device.points[POINTS.index(asked.point)].rises == (asked.enters == "set")
    if (change.rate_pa_s if rising else -change.rate_pa_s) < -_STILL * device.span_pa:
        way, wanted = ("fell", "rises") if rising else ("rose", "falls")
        raise _not_this(f"came while the pressure {way}; asked is where it {wanted}. Not taken.")
    other = _other_there(device, asked, change.gauge_pa, runs)
    if other:
        raise _not_this(f"came where the {other} point changes: is the lead on its contact?")
    return Read(
        point=asked.point,
        which=asked.enters,
        gauge_pa=change.gauge_pa,
        rate_pa_s=abs(change.rate_pa_s),
        seen_by="gauge",
        delay_s=change.delay_s,
    )


def _other_there(
    device: BenchDevice, asked: Instruction, gauge_pa: float, runs: Sequence[BenchRun]
) -> str:
    """Which other point is known to change near a pressure, far from where this one should; ""
    for none."""
    off = abs(gauge_pa - (asked.expected_pa or 0.0))
    if len(device.points) < 2 or off <= _FAR * device.span_pa:
        return ""
    other = next(point for point in POINTS if point != asked.point)
    ends = [
        end
        for run in runs
        if run.point == other
        for end in (run.set_gauge_pa, run.reset_gauge_pa)
        if end is not None
    ]
    ends = ends or [device.points[POINTS.index(other)].gauge_pa]
    return other if min(abs(gauge_pa - end) for end in ends) < off / 2 else ""


def _not_this(says: str) -> InvalidInput:
    return InvalidInput([Fault(path="change", code="not_asked", title="The change", says=says)])
