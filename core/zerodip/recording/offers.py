"""What a recording offers a visit: readings a technician would take by eye and stopwatch, each with
its spread. Nothing is taken by itself."""

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

import numpy as np

from zerodip.physics.atmosphere import pressure_abs_pa
from zerodip.recording.figures import Figure
from zerodip.recording.reading import Reading
from zerodip.units import number, text

__all__ = ["Offer", "offers_of"]

_FEWEST = 3  # cycles that make a reading
_WATCH_S = 600.0
_DIPPING = 0.3  # share of starts that dip, from which on a line does not tell cut-in
_ALIKE = 1.3  # of the longest and shortest run: more is taps (judgement, no source)
_SHORT_RUN_S = 30.0  # under which it clicks on and off at every tap: common practice, no source


@dataclass(frozen=True)
class Offer:
    """One reading: the visit's slot and its value (SI), and how a person reads it."""

    slot: str
    value: Any
    title: str
    text: str


def offers_of(reading: Reading, name: str, units: str, altitude_m: float = 0.0) -> list[Offer]:
    """The readings that a recording offers, a remark about them last.

    Args:
        reading: What the recording says.
        name: What it is called.
        units: Unit system of the texts: "us", "metric" or "kpa".
        altitude_m: Altitude of the site, m.

    Returns:
        Offers; none where there is nothing to read.
    """
    if reading.coarse:
        return []
    found = [
        *_figures(reading, units),
        *_leak(reading, pressure_abs_pa(altitude_m), units),
        *_seen(reading),
    ]
    if not found:
        return []
    told = "; ".join(f"{each.title} {each.text}".strip() for each in found) + _drawn(reading, units)
    remark = f"Read off the recording “{name}”: {told}."
    return [*found, Offer("note", {"text": remark[:500]}, "Remark", "where they come from")]


def _figures(reading: Reading, units: str) -> Iterator[Offer]:
    rows: tuple[tuple[str, str, Figure | None, str], ...] = (
        ("found.cut_in", "Cut-in", reading.cut_in, "pressure"),
        ("found.cut_out", "Cut-out", reading.cut_out, "pressure"),
        ("found.run", "Run", reading.run, "duration"),
    )
    for slot, title, figure, dimension in rows:
        if figure is None or figure.cycles < _FEWEST:
            continue
        if slot == "found.cut_in" and _dips(reading):
            continue  # it collapses before the switch clicks: what it fell from is the air
        if slot == "found.run" and _is_drawn(figure):
            continue  # a run of the stopwatch is one with all taps shut
        usual = text(figure.usual, dimension, units)
        least, most = (number(v, dimension, units) for v in (figure.least, figure.most))
        yield Offer(slot, figure.usual, title, f"{usual} ({least} to {most})")


def _is_drawn(run: Figure) -> bool:
    """Whether runs differ so much that taps were open in many: none of them is a stopwatch's."""
    return run.most > _ALIKE * run.least


def _drawn(reading: Reading, units: str) -> str:
    """Runs with draws, as what they are: for the remark alone."""
    run = reading.run
    if run is None or run.cycles < _FEWEST or not _is_drawn(run):
        return ""
    least, most = number(run.least, "duration", units), text(run.most, "duration", units)
    return f"; runs {least} to {most} with draws, none taken as a run with all taps shut"


def _dips(reading: Reading) -> bool:
    """Whether it dips at so many starts that a line does not tell cut-in."""
    starts = int(np.isfinite(reading.cycles.start_s).sum())
    return starts > 0 and reading.dips > _DIPPING * starts


def _leak(reading: Reading, air: float, units: str) -> Iterator[Offer]:
    """A watch of ten minutes, as the quiet times say it would come out."""
    leak = reading.leak
    if leak is None or not leak.is_there:
        return
    later = 1 / (1 / (leak.gauge_pa + air) + leak.rate * _WATCH_S) - air
    value = {"first_gauge_pa": leak.gauge_pa, "later_gauge_pa": later, "seconds": _WATCH_S}
    value |= {"house_open": True}  # nobody shuts it for days
    fall = text(leak.gauge_pa - later, "pressure", units)
    yield Offer("leak", value, "Leak watch", f"{fall} in ten minutes, house valve open")


def _seen(reading: Reading) -> Iterator[Offer]:
    """What was seen, as Trouble takes it."""
    if reading.run and reading.run.cycles >= _FEWEST and reading.run.usual < _SHORT_RUN_S:
        yield Offer(
            "saw", {"item": "clicks", "says": "yes"}, "It clicks on and off at every tap", ""
        )
    if _dips(reading):
        yield Offer("saw", {"item": "breath", "says": "yes"}, "It dips at each start", "")
    if any(not run.ended for run in reading.endless):
        yield Offer("saw", {"item": "endless", "says": "yes"}, "It never stopped", "")
