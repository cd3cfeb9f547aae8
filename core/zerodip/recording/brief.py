"""What stands out of a line for a few samples: spikes, which are none of the pressure's, and the
collapses of a start, which are told as dips."""

import numpy as np

from zerodip.recording.arrays import Floats, Places, blocks

__all__ = ["without_brief"]

_SPIKE = 6.0  # noise times by which one sample differs from the next where something stands out
_BRIEF = 5  # samples that a collapse lasts at most
_CALM = 12  # samples before it in which the line moves little: a collapse is no draw
_SLOWER = 4.0  # times that it is deeper than that
_DEEP = 10.0  # noise times that it is deep
_AT_ONCE = 0.45  # share of its depth that it comes to from one sample to the next: a draw does not
_AROUND = np.arange(-3, 3)  # samples that tell how fast the line moves beside one
_FASTER = 2.0  # times that it stands out by beyond that


def without_brief(gauge: Floats, noise: float, usual_low: float = np.inf) -> Floats:
    """The line by which runs are found.

    Args:
        gauge: The line.
        noise: Standard deviation of one sample.
        usual_low: From where the line usually rises, as far as known, Pa: what goes no deeper is
            the turn itself and no collapse.

    Returns:
        The line with what stands out for one or two samples replaced by the middle of five, and
        collapses of up to five filled to where they began; the line itself where nothing does.
    """
    found = [np.flatnonzero(np.abs(np.diff(x)) > _SPIKE * noise) + at for at, x in blocks(gauge)]
    jumps = np.concatenate(found) if found else np.zeros(0, dtype=np.intp)
    if not len(jumps) or len(gauge) < 4 * _BRIEF:
        return gauge
    out = np.unique(np.clip(jumps[:, None] + np.arange(0, 3), 2, len(gauge) - 3))
    middle = np.median(gauge[out[:, None] + np.arange(-2, 3)], axis=1)
    # The top of a fast rise stands out, too, but no further than the line moves beside it.
    beside = np.clip(out[:, None] + _AROUND, 0, len(gauge) - 1)
    usual = np.median(np.abs(np.diff(gauge[beside], axis=1)), axis=1)
    spikes = np.abs(gauge[out] - middle) > _SPIKE * noise + _FASTER * usual
    falls, before = _collapses(gauge, jumps, noise, usual_low)
    if not spikes.any() and not len(falls):
        return gauge
    made = gauge.copy()
    made[out[spikes]] = middle[spikes]
    for at, level in zip(falls, before, strict=True):
        part = slice(at + 1, at + 1 + _BRIEF)
        made[part] = np.maximum(made[part], level)
    return made


def _collapses(
    gauge: Floats, jumps: Places, noise: float, usual_low: float
) -> tuple[Places, Floats]:
    """The last place before each collapse, and the level there: as deep as noise is not, much
    deeper than the line moved before, and over within a few samples."""
    falls = jumps[gauge[jumps + 1] < gauge[jumps]]
    falls = falls[(falls >= _CALM) & (falls < len(gauge) - 2 * _BRIEF)]
    before = np.median(gauge[falls[:, None] - np.arange(0, 3)], axis=1)
    moved = np.ptp(gauge[falls[:, None] - np.arange(0, _CALM)], axis=1)
    ahead = gauge[falls[:, None] + np.arange(1, _BRIEF + 1)]
    depth = before - ahead.min(axis=1)
    back = gauge[falls[:, None] + np.arange(_BRIEF, 2 * _BRIEF)].max(axis=1)
    brief = (depth > _SLOWER * (moved - _SPIKE * noise)) & (depth > _DEEP * noise)
    brief &= before - back < 0.5 * depth
    at_once = -np.diff(gauge[falls[:, None] + np.arange(0, _BRIEF + 1)], axis=1).min(axis=1)
    brief &= at_once > _AT_ONCE * depth
    brief &= ahead.min(axis=1) < usual_low - _SPIKE * noise
    return falls[brief], before[brief]
