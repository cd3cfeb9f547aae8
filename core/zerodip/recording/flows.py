"""What a recorded flow tells beside the pressure: at the taps it gives the air, at the pump the
pump's delivery."""

from dataclasses import dataclass

import numpy as np

from zerodip.recording.cycles import Cycles
from zerodip.recording.rests import Falls
from zerodip.recording.samples import Samples

__all__ = ["Flows", "flows_of"]

_OPEN = 5.0  # standard errors by which a minute falls in which a tap is open
_AT_TAPS = 0.5  # share of such minutes in which a meter at the taps shows a flow
_LEAST_M3_S = 1e-7
_MIDDLE = (0.3, 0.7)  # of a run, in which the pump delivers what it does in mid-band


@dataclass(frozen=True)
class Flows:
    """Sums over minutes and runs: where the meter sits at the taps, what weighs V·c (Pa·m³); where
    it sits at the pump, its delivery in mid-band (m³/s), by how many runs."""

    weighted: float = 0.0
    weight: float = 0.0
    minutes: int = 0
    delivery: float = 0.0
    runs: int = 0

    @property
    def air_pa_m3(self) -> float | None:
        """V·c by the flow at the taps; None where the meter does not sit there."""
        return self.weighted / self.weight if self.minutes and self.weight > 0 else None

    @property
    def delivery_m3_s(self) -> float | None:
        """The pump's delivery; None where the meter does not sit at the pump."""
        return self.delivery / self.runs if self.runs and not self.minutes else None

    def __add__(self, other: "Flows") -> "Flows":
        mine, yours = self.__dict__.values(), other.__dict__.values()
        return Flows(*(a + b for a, b in zip(mine, yours, strict=True)))


def flows_of(samples: Samples, minutes: Falls, cycles: Cycles) -> Flows:
    """What a stretch tells; nothing without a column of flow.

    Args:
        samples: Samples in order of time.
        minutes: What falls from minute to minute.
        cycles: The stretch's cycles.

    Returns:
        Sums, to be added to those of other stretches.
    """
    flow = samples.flow_m3_s
    if flow is None:
        return Flows()
    heaped = np.concatenate([[0.0], np.cumsum(np.nan_to_num(flow))])
    open_ = minutes.rate > _OPEN * minutes.error
    first = np.searchsorted(samples.time_s, minutes.time_s[open_])
    last = np.searchsorted(samples.time_s, (minutes.time_s + minutes.seconds)[open_])
    drawn = (heaped[last] - heaped[first]) / np.maximum(last - first, 1)
    rate, error = minutes.rate[open_], minutes.error[open_]
    shows = drawn > _LEAST_M3_S
    whole = np.flatnonzero(np.isfinite(cycles.run_s))
    runs = [_in_middle(samples, heaped, cycles.start_s[k], cycles.stop_s[k]) for k in whole]
    running = [each for each in runs if each > _LEAST_M3_S]
    if not len(shows) or shows.mean() < _AT_TAPS:
        return Flows(delivery=float(sum(running)), runs=len(running))
    weights = 1 / error[shows] ** 2
    return Flows(
        weighted=float((weights * drawn[shows] * rate[shows]).sum()),
        weight=float((weights * rate[shows] ** 2).sum()),
        minutes=int(shows.sum()),
        delivery=float(sum(running)),
        runs=len(running),
    )


def _in_middle(samples: Samples, heaped: np.ndarray, start: float, stop: float) -> float:
    ends = [start + share * (stop - start) for share in _MIDDLE]
    first, last = np.searchsorted(samples.time_s, ends)
    return float((heaped[last] - heaped[first]) / max(last - first, 1))
