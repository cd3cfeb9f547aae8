"""What is said of a correction: what it was, and what it is."""

from zerodip.bench.device import BenchDevice
from zerodip.bench.file import POINTS
from zerodip.bench.log import SCREWS, Confirmed, Read, Turned, Value
from zerodip.bench.words import shown, titles
from zerodip.switch.words import turn_words

__all__ = ["correction_says"]


def correction_says(
    before: Value, after: Value, device: BenchDevice, grain_pa: float, units: str
) -> str:
    """A correction in words.

    Args:
        before: What was entered.
        after: What stands in its place.
        device: The switch.
        grain_pa: The finest that the reference is read, Pa.
        units: Unit system of the texts: "us", "metric" or "kpa".

    Returns:
        The words.
    """
    was, now = (_figure(each, grain_pa, units) for each in (before, after))
    of, by = _what(before, device), _what(after, device)
    if not now:
        return f"{of} {was}: taken out".strip()
    return f"{by} {now}, was {was if of == by else f'{of} {was}'}".strip()


def _what(value: Value, device: BenchDevice) -> str:
    if not isinstance(value, Read):
        return ""
    title = titles(device)[min(POINTS.index(value.point), len(device.points) - 1)]
    return f"{title} {'acted' if value.which == 'set' else 'reset'} at"


def _figure(value: Value, grain_pa: float, units: str) -> str:
    """What was entered; "" of what takes out."""
    if isinstance(value, Read):
        return shown(value.gauge_pa, units, 10 * grain_pa)
    if isinstance(value, Turned):
        made = {each: getattr(value, each) for each in SCREWS}
        words = {name: turn_words(turns) for name, turns in made.items() if turns}
        return "; ".join(f"{name.replace('_', ' ')} screw {each}" for name, each in words.items())
    return value.what if isinstance(value, Confirmed) else ""
