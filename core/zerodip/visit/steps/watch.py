"""Coming and watching: the complaint and one whole cycle as found, before anything is switched
off."""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from zerodip.kinds.figures import Figures
from zerodip.kinds.registry import kind_of
from zerodip.kinds.steps import WATCHED
from zerodip.visit.log import Log
from zerodip.visit.slots import COMPLAINT, COMPLAINTS, FOUND_RUN
from zerodip.visit.steps.read import ReadField, read_fields

__all__ = ["ComplaintChoice", "WatchView", "watch_view"]


@dataclass(frozen=True, kw_only=True)
class ComplaintChoice:
    """A complaint that can be chosen, in the words of a call."""

    id: str
    title: str


@dataclass(frozen=True, kw_only=True)
class WatchView:
    """What the first step shows: how one cycle is watched, line by line; the complaint among those
    that can be chosen ("": not asked), and what explains it here; what is read on the gauge; the
    run timed (s; None: not yet)."""

    how: tuple[str, ...]
    complaint: str
    complaints: tuple[ComplaintChoice, ...]
    explains: str
    read: tuple[ReadField, ...]
    run_s: float | None


def watch_view(figures: Figures, log: Log, last: Mapping[str, Any], units: str) -> WatchView:
    """The first step as it stands.

    Args:
        figures: The system's figures under its settings.
        log: The visit's log.
        last: What the last visit left, by slot.
        units: Unit system of the texts: "us", "metric" or "kpa".

    Returns:
        What the step shows.

    Source: Common practice, no source.
    """
    names = (name for name in WATCHED if name != FOUND_RUN.name)
    return WatchView(
        how=kind_of(figures).visit.watch,
        complaint=log.value(COMPLAINT) or "",
        complaints=tuple(ComplaintChoice(id=id, title=said) for id, said in COMPLAINTS.items()),
        explains=kind_of(figures).visit.trip_says(figures, units)
        if log.value(COMPLAINT) == "trips"
        else "",
        read=read_fields(names, log, last, units),
        run_s=log.value(FOUND_RUN),
    )
