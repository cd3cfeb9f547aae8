"""What is wrong with a recording: found and told, never mended in silence.

Times: gaps, repeated, out of order, clocks put back or forward. Pressures: missing figures, spikes,
a sensor that stands still, one that reads below nothing. Counted a block at a time.
"""

from dataclasses import dataclass, field

import numpy as np

from zerodip.recording.arrays import Floats
from zerodip.recording.samples import Samples
from zerodip.recording.stretches import gap_s, step_of
from zerodip.recording.swings import noise_of
from zerodip.units import PSI

__all__ = ["Gap", "Quality", "in_order"]

_MOST_GAPS = 50  # that are told one by one
_SPIKE = 12.0  # noise times which one sample stands out, and at least
_SPIKE_PA = 5 * PSI
_STILL_S, _STILL_SAMPLES = 600.0, 120
_BELOW_PA, _NOISY_PA = -1 * PSI, 0.05 * PSI
_UNDER = 6.0  # noise times under nothing, that a drained gauge may show


@dataclass(frozen=True)
class Gap:
    """A time without samples: from when (s), for how long (s)."""

    at_s: float
    seconds: float


@dataclass
class Quality:
    """Counts of what is wrong, over all blocks fed so far."""

    samples: int = 0
    first_s: float | None = None
    last_s: float | None = None
    step_s: float = 0.0
    noise_pa: float = 0.0
    no_time: int = 0
    missing: int = 0
    repeated: int = 0
    back: int = 0
    clock_changes: int = 0  # put back an hour
    clock_forward: int = 0
    gaps: int = 0
    gap_s: float = 0.0
    longest: list[Gap] = field(default_factory=list)
    spikes: int = 0
    still_s: float = 0.0
    still_from_s: float | None = None
    below: int = 0
    _still: tuple[float, float] | None = None  # value, since when

    def feed(self, block: Samples) -> None:
        """Counts one block, in the file's own order."""
        self.samples += len(block)
        self.clock_changes += block.put_back
        self.clock_forward += block.put_forward
        timed = np.isfinite(block.time_s)
        self.no_time += int((~timed).sum())
        known = np.isfinite(block.gauge_pa)
        self.missing += int((~known).sum())
        self._times(block.time_s[timed])
        both = timed & known
        self._pressures(block.time_s[both], block.gauge_pa[both])

    def _times(self, times: Floats) -> None:
        if not len(times):
            return
        self.step_s = self.step_s or step_of(times)
        if self.last_s is not None:
            times = np.concatenate([[self.last_s], times])
        else:
            self.first_s = float(times[0])
        steps = np.diff(times)
        self.repeated += int((steps == 0).sum())
        self.back += int((steps < 0).sum())
        gaps = np.flatnonzero(steps > gap_s(self.step_s))
        self.gaps += len(gaps)
        self.gap_s += float(steps[gaps].sum())
        found = [Gap(float(times[at]), float(steps[at])) for at in gaps[np.argsort(-steps[gaps])]]
        self.longest = sorted([*self.longest, *found[:_MOST_GAPS]], key=lambda g: -g.seconds)
        self.longest = self.longest[:_MOST_GAPS]
        self.last_s = float(times[-1])

    def _pressures(self, times: Floats, gauges: Floats) -> None:
        if len(gauges) < 3:
            return
        noise = noise_of(gauges)
        self.noise_pa = max(self.noise_pa, noise)
        least = max(_SPIKE * noise, _SPIKE_PA)
        up, down = gauges[1:-1] - gauges[:-2], gauges[1:-1] - gauges[2:]
        alone = (np.abs(up) > least) & (np.abs(down) > least) & (up * down > 0)
        self.spikes += int(alone.sum())
        self.below += int((gauges < min(_BELOW_PA, -_UNDER * noise)).sum())
        self._stands_still(times, gauges)

    def _stands_still(self, times: Floats, gauges: Floats) -> None:
        """The longest time in which the figure is one and the same."""
        changes = np.flatnonzero(np.diff(gauges) != 0) + 1
        starts = np.concatenate([[0], changes])
        ends = np.concatenate([changes, [len(gauges)]]) - 1
        since = times[starts].copy()
        if self._still is not None and self._still[0] == gauges[0]:
            since[0] = self._still[1]
        lasted = times[ends] - since
        at = int(lasted.argmax())
        if lasted[at] > self.still_s:
            self.still_s, self.still_from_s = float(lasted[at]), float(since[at])
        self._still = (float(gauges[-1]), float(since[-1]))

    @property
    def is_stuck(self) -> bool:
        """Whether the sensor stood still for longer than a line can whose figures jump about
        elsewhere: a coarse gauge on a quiet line stands still, too."""
        enough = max(_STILL_S, _STILL_SAMPLES * self.step_s)
        return self.still_s >= enough and self.noise_pa > _NOISY_PA


def in_order(samples: Samples) -> Samples:
    """The samples that can be read, in order of time, each moment once: for the reading alone, the
    recording stays as it stands.

    Args:
        samples: Samples as they stand.

    Returns:
        Those with a time (s) and a pressure, times rising.
    """
    kept = samples.taken(np.isfinite(samples.time_s) & np.isfinite(samples.gauge_pa))
    steps = np.diff(kept.time_s)
    if (steps < 0).any():
        kept = kept.taken(np.argsort(kept.time_s, kind="stable"))
        steps = np.diff(kept.time_s)
    if (steps == 0).any():
        kept = kept.taken(np.concatenate([[True], steps > 0]))
    return kept
