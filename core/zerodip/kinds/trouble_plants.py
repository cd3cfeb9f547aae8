"""What the plants of every kind share in a diagnosis: where points were found, how a run is timed,
how chances rise. Errors and chances are judgement, no source."""

import math
from dataclasses import dataclass, replace
from typing import Any, Self

from zerodip.diagnosis.parts import Forecast, Observation
from zerodip.kinds.figures import Figures
from zerodip.units import PSI

__all__ = [
    "SwitchedPlant",
    "drawn",
    "is_endless",
    "points_found",
    "runs_on",
    "settings_unread",
    "sigmoid",
    "timed_run",
    "widening_helps",
]

_CLAMP = 0.08
_WELL_OVER_PA = 6 * PSI
_WATCH_S = 1.0  # of the stopwatch, one standard deviation


@dataclass(frozen=True)
class SwitchedPlant:
    """What a pressure switch, its motor and its gauge give every plant: `points` where the switch
    acts, `wanted` where it was set and `found` where it was read (Pa gauge), `moved` how far each
    stands from where it was set, and whether they have `drifted`; whether it starts and stops; what
    the gauge shows too little (Pa); the current as a share of the plate's, and what it draws
    `stalled`."""

    figures: Any
    points: tuple[float, float]
    wanted: tuple[float, float]
    found: tuple[float, float] | None
    starts: bool = True
    stops: bool = True
    drifted: bool = False
    moved: tuple[float, float] = (0.0, 0.0)
    gauge_low_pa: float = 0.0
    current: float = 1.0
    stalled: float = 0.0

    @property
    def decided(self) -> Self:
        """The plant with what Decide would set put right, as far as it is no point."""
        return self

    def runs_over(self, highest_pa: float) -> float:
        """How likely it is said to run on although the gauge stands well above cut-out, where it
        comes to that pressure."""
        if not self.starts:
            return 0.0
        shown = highest_pa - self.gauge_low_pa - self.wanted[1]
        most = 0.6 if self.stops else 0.95  # one that stops in the end is seen to
        return most * sigmoid((shown - _WELL_OVER_PA) / (2 * PSI))

    def tells_of_points(self, context: tuple[float, ...]) -> bool:
        """Whether a point that was read may have gone astray: not one that was turned on this
        visit, nor where nobody knows how the switch was set."""
        return not context and not settings_unread(self.figures)

    def point(
        self, at: int, context: tuple[float, ...], sds: tuple[float, float]
    ) -> Forecast | None:
        """Cut-in (0) or cut-out (1) as the gauge would show it, with the deviation of a sound
        switch or of one that drifts; None where that tells nothing."""
        if not self.tells_of_points(context) or (at and not self.stops):
            return None
        mean = self.wanted[at] + self.moved[at] - self.gauge_low_pa
        return Forecast(mean=mean, sd=sds[self.drifted])

    def stopped_at(self, gauge_pa: float, sds: tuple[float, float]) -> Forecast:
        """The gauge once it has clicked out at a pressure, with the deviation of a sound switch or
        of one that stops who knows where."""
        loose = self.drifted or not self.tells_of_points(())
        return Forecast(mean=gauge_pa - self.gauge_low_pa, sd=sds[loose])


def sigmoid(x: float) -> float:
    """A chance that rises from 0 to 1 around 0.

    Args:
        x: Any number.

    Returns:
        A chance, 0 to 1.
    """
    return 1 / (1 + math.exp(-max(min(x, 40.0), -40.0)))


def settings_unread(figures: Figures) -> bool:
    """Whether nobody knows where the switch was set: then no point has gone astray.

    Args:
        figures: The system's figures under its settings.

    Returns:
        True where cut-in or cut-out is only the usual one.
    """
    return any(figures.is_assumed(f"settings.{each}_gauge_pa") for each in _POINTS)


def points_found(
    figures: Figures, seen: tuple[Observation, ...]
) -> tuple[tuple[float, float], tuple[float, float], tuple[float, float] | None]:
    """Cut-in and cut-out where they stand if nothing went astray, where they were set, and where
    they were seen.

    Args:
        figures: The system's figures under its settings.
        seen: What was observed.

    Returns:
        Both points, Pa gauge: as seen where that is near, or they were turned on this visit, or
        nobody knows where they were set, else as set; both as set; and both as seen, more than
        1 psi apart, or None where what was seen is no band.
    """
    wanted = figures.settings.cut_in_gauge_pa, figures.settings.cut_out_gauge_pa
    by = {each.item: each for each in seen if each.item in _POINTS}
    low, high = (
        max(float(by[item].value), PSI) if item in by else set_
        for item, set_ in zip(_POINTS, wanted, strict=True)
    )
    if not by or high - low <= PSI:
        return wanted, wanted, None
    free = settings_unread(figures) or any(each.context for each in by.values())
    near = max(abs(low - wanted[0]), abs(high - wanted[1])) <= _NEAR_PA
    return ((low, high) if free or near else wanted), wanted, (low, high)


_NEAR_PA, _NARROW_PA, _USUAL_PA = 4 * PSI, 16 * PSI, 20 * PSI
_POINTS = ("cut_in", "cut_out")


def drawn(plant: SwitchedPlant) -> Forecast:
    """The current by a clamp meter, as a share of the plate's.

    Args:
        plant: A plant.

    Returns:
        The forecast.
    """
    return Forecast(mean=plant.current if plant.starts else plant.stalled, sd=_CLAMP)


def widening_helps(plant: Any, short_s: float) -> bool:
    """Whether cut-in and cut-out were set closer together than is usual, and would make runs that
    are long enough if they were not.

    Args:
        plant: A plant with `run_s`.
        short_s: A run that is too short, s.

    Returns:
        True below 16 psi where 20 psi would do; 20 psi and more are common practice, no source.
    """
    low, high = plant.wanted
    if high - low >= _NARROW_PA:
        return False
    return short_s <= float(replace(plant, points=(low, low + _USUAL_PA)).run_s) < math.inf


def is_endless(plant: Any) -> bool:
    """Whether it runs on once it has started.

    Args:
        plant: A plant with `run_s`, that stops or not.

    Returns:
        True where the switch does not stop it, or it never gets there.
    """
    return not plant.stops or plant.run_s == math.inf


def timed_run(plant: Any, spread: float) -> Forecast:
    """A run by the stopwatch.

    Args:
        plant: A plant with `run_s`, that starts and stops or not.
        spread: One standard deviation of the run by the plates, as a share.

    Returns:
        The forecast; without end where it never stops, none where it does not start.
    """
    if not plant.starts:
        return Forecast(absent=True)
    if is_endless(plant):
        return Forecast(never=True)
    return Forecast(mean=plant.run_s, sd=math.hypot(spread, _WATCH_S / plant.run_s))


def runs_on(plant: Any, long_s: float) -> float:
    """How likely it is said that it never stops.

    Args:
        plant: A plant with `run_s`, that starts and stops or not.
        long_s: A run that is taken for endless as often as not, s.

    Returns:
        A chance, 0 to 1.
    """
    if not plant.starts:
        return 0.0
    if is_endless(plant):
        return 0.95
    return 0.9 * sigmoid(math.log(plant.run_s / long_s) / 0.25)
