"""Recordings as the API shows them."""

from dataclasses import asdict
from datetime import datetime
from typing import Any, Literal
from uuid import UUID

import numpy as np
from ninja import Schema

from zerodip.fileformat.document import read_document
from zerodip.recording.arrays import taken
from zerodip.recording.guess import Guess
from zerodip.recording.offers import offers_of
from zerodip.recording.plain import plain
from zerodip.recording.predicted import predicted
from zerodip.recording.stretches import gap_s
from zerodip.recording.told import cycle_rows, said_of

from . import services
from .models import Recording, State
from .store import cycles_of, line, reading_of

__all__ = [
    "CyclesOut",
    "GuessOut",
    "LineOut",
    "OfferOut",
    "PredictedOut",
    "ReadIn",
    "RecordingIn",
    "RecordingOut",
    "RecordingRow",
    "TakenOut",
    "cycles_out",
    "guess_out",
    "line_out",
    "predicted_out",
    "recording_out",
    "recording_row",
]

MOST_CYCLES = 500
_BEFORE_S = 600.0  # drawn of a predicted cycle before its start


class RecordingIn(Schema):
    """A recording to come: what it is called, and its size in bytes."""

    name: str
    size: int


class ReadIn(Schema):
    """How the file is written (zerodip.recording.layout)."""

    layout: dict[str, Any]


class RecordingRow(Schema):
    """A recording and how far it is; `parts` are those that came, of `part_size` bytes each."""

    id: UUID
    system: UUID
    name: str
    size: int
    state: Literal["coming", "here", "reading", "read", "refused"]
    problem: str
    done: float
    samples: int
    first_s: float | None
    last_s: float | None
    made_at: datetime
    parts: list[int]
    part_size: int


class OfferOut(Schema):
    """A reading that a recording offers a visit."""

    slot: str
    title: str
    text: str


class TakenOut(Schema):
    """Readings taken into a visit, and those that were left, by their titles."""

    taken: list[str]
    left: list[str]


class RecordingOut(RecordingRow):
    """A recording with what it says (zerodip.recording.told), once it was read."""

    system_name: str
    site_name: str
    may_change: bool
    zone: str
    told: dict[str, Any] | None
    offers: list[OfferOut]


class GuessOut(Schema):
    """How a file seems to be written, its first rows, and what is not sure."""

    layout: dict[str, Any]
    lines: list[str]
    doubts: list[str]


class LineOut(Schema):
    """A window of a line, in buckets: when each begins, its least and most (Pa gauge; null where
    figures are missing). `gap_s` is from how long on no sample is a gap."""

    time_s: list[float]
    least_pa: list[float | None]
    most_pa: list[float | None]
    gap_s: float


class PredictedOut(Schema):
    """A cycle as the system's file predicts it: times (s since 1970), pressures (Pa gauge), how
    long the pump runs; empty where the plates tell of none."""

    time_s: list[float]
    gauge_pa: list[float]
    run_s: float | None


class CyclesOut(Schema):
    """Cycles within a window, the first 500, and how many there are."""

    count: int
    rows: list[dict[str, float | None]]


def recording_row(recording: Recording) -> RecordingRow:
    """A recording and how far it is."""
    return RecordingRow(**_row(recording))


def _row(recording: Recording) -> dict[str, Any]:
    coming = recording.state == State.COMING
    return {
        "id": recording.pk,
        "system": recording.system_id,
        "name": recording.name,
        "size": recording.size,
        "state": recording.state,
        "problem": recording.problem,
        "done": recording.done,
        "samples": recording.samples,
        "first_s": recording.first_s,
        "last_s": recording.last_s,
        "made_at": recording.made_at,
        "parts": sorted(recording.parts.values_list("number", flat=True)) if coming else [],
        "part_size": services.PART_SIZE,
    }


def recording_out(recording: Recording, may_change: bool, units: str) -> RecordingOut:
    """A recording with what it says, in a unit system's words."""
    zone = (recording.layout or {}).get("zone", "")
    told, offered = None, []
    reading = reading_of(recording)
    if reading is not None:
        document = read_document(recording.system.document)
        told = said_of(reading, zone, document, units)
        altitude_m = document.system.site.altitude_m
        offered = offers_of(reading, recording.name, units, altitude_m)
    return RecordingOut(
        **_row(recording),
        system_name=recording.system.name,
        site_name=recording.system.site.name,
        may_change=may_change,
        zone=zone,
        told=told,
        offers=[OfferOut(slot=each.slot, title=each.title, text=each.text) for each in offered],
    )


def guess_out(guess: Guess) -> GuessOut:
    """A guess."""
    return GuessOut(layout=asdict(guess.layout), lines=list(guess.lines), doubts=list(guess.doubts))


def line_out(recording: Recording, from_s: float, until_s: float, points: int) -> LineOut:
    """A window of the line."""
    drawn = line(recording, from_s, until_s, points)
    quality = (recording.reading or {}).get("quality", {})
    return LineOut(
        time_s=plain(drawn.time_s.tolist()),
        least_pa=plain(drawn.least.round(0).tolist()),
        most_pa=plain(drawn.most.round(0).tolist()),
        gap_s=gap_s(float(quality.get("step_s") or 1.0)),
    )


def predicted_out(recording: Recording, start_s: float) -> PredictedOut:
    """The cycle that starts nearest to a time, as the system's file predicts it: under the draw
    that the fall before the start tells, as a share of the pump's delivery."""
    cycles = cycles_of(recording)
    starts = np.abs(cycles.start_s - start_s)
    nothing = PredictedOut(time_s=[], gauge_pa=[], run_s=None)
    if not np.isfinite(starts).any():
        return nothing
    at = int(np.nanargmin(starts))
    bend = cycles.rise_after[at] - cycles.fall_before[at]
    share = float(np.clip(-cycles.fall_before[at] / bend, 0.0, 0.95)) if bend > 0 else 0.0
    made = predicted(read_document(recording.system.document), share, _BEFORE_S)
    if made is None:
        return nothing
    start = float(cycles.start_s[at])
    times = [start + each for each in made.time_s]
    return PredictedOut(time_s=times, gauge_pa=list(made.gauge_pa), run_s=made.run_s)


def cycles_out(recording: Recording, from_s: float, until_s: float) -> CyclesOut:
    """The cycles that touch a window."""
    cycles = cycles_of(recording)
    # What was not seen of a run may lie within the window.
    inside = ~(cycles.stop_s < from_s) & ~(cycles.start_s > until_s)
    shown = np.flatnonzero(inside)[:MOST_CYCLES]
    return CyclesOut(count=int(inside.sum()), rows=cycle_rows(taken(cycles, shown)))
