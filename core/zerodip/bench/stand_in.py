"""A stand-in for a switch on the bench: a hand pump, the reference on the wire and the contact, in
real time. Made up, to try everything without a device."""

from dataclasses import dataclass

from zerodip.bench.course import usual_deadband
from zerodip.bench.device import BenchDevice
from zerodip.bench.file import POINTS
from zerodip.fileformat.fields import Checked, choice, quantity

__all__ = ["BenchHands", "BenchStandIn"]

# Shares of the range in a second by what the pump does.
_RATES = {"hold": 0.0, "up": 0.02, "up_slowly": 0.0015, "down": -0.02, "down_slowly": -0.0015}
_A_TURN, _ACROSS = 0.055, 0.08  # of the range a turn; of that, what the other point moves
_FOUND_OFF = (0.3, 1.6)  # tolerances, by which its points stand off as found


@dataclass(frozen=True, kw_only=True)
class BenchHands(Checked):
    """What hands do: whether the gauge is on the line, what the pump does, which point's contact
    the lead is on, and how far the screws were turned since the beginning (clockwise positive)."""

    line: str = choice("Gauge", ("on", "off"), default="on")
    pump: str = choice("Pump", _RATES, default="hold")
    lead: str = choice("Lead on", POINTS, default="lower")
    lower: float = quantity("Turns of the lower screw", "number", -8, 8, default=0.0)
    upper: float = quantity("Turns of the upper screw", "number", -8, 8, default=0.0)


class BenchStandIn:
    """A switch with its pump in real time, beginning without pressure. Times in s, rising from call
    to call."""

    def __init__(self, device: BenchDevice, hands: BenchHands, at_s: float) -> None:
        self._device, self._hands, self._from_s = device, hands, at_s
        self._from_pa = min(max(0.0, device.low_gauge_pa), device.high_gauge_pa)
        self._acted = [not point.rises for point in device.points]

    def move(self, hands: BenchHands, at_s: float) -> None:
        """Hands do something else from now on."""
        self._acted = [self._acts(at, at_s) for at in range(len(self._device.points))]
        self._from_pa, self._from_s = self.gauge_pa(at_s), at_s
        self._hands = hands
        self._acted = [self._acts(at, at_s) for at in range(len(self._device.points))]

    def gauge_pa(self, at_s: float) -> float:
        """The pressure, Pa gauge; the pump stops at the ends of the range."""
        moved = _RATES[self._hands.pump] * self._device.span_pa * (at_s - self._from_s)
        low = min(self._device.low_gauge_pa, 0.0)
        return min(max(self._from_pa + moved, low), max(self._device.high_gauge_pa, 0.0))

    def closed(self, at_s: float) -> bool:
        """Whether the contact is closed that the lead is on: it closes where its point acts."""
        points = len(self._device.points)
        return self._acts(min(POINTS.index(self._hands.lead), points - 1), at_s)

    def points(self) -> tuple[float, ...]:
        """Where its points truly act, Pa gauge."""
        return tuple(self._acts_at(at) for at in range(len(self._device.points)))

    def _acts_at(self, at: int) -> float:
        device, turns = self._device, (self._hands.lower, self._hands.upper)
        own, other = turns[at], turns[1 - at] if len(device.points) > 1 else 0.0
        turned = (own + _ACROSS * other) * _A_TURN * device.span_pa
        off = _FOUND_OFF[1 if len(device.points) == 1 else at] * device.tolerance_pa(at)
        return device.points[at].gauge_pa + off + turned

    def _acts(self, at: int, at_s: float) -> bool:
        """Whether a point has acted: the pressure only went one way since hands moved."""
        point, device = self._device.points[at], self._device
        acts, now = self._acts_at(at), self.gauge_pa(at_s)
        beyond = now - acts if point.rises else acts - now
        return beyond >= 0 or (self._acted[at] and beyond > -usual_deadband(device, at))
