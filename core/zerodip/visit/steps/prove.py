"""Proving: runs timed from click to click, a bucket, a drain, a leak watch; predicted beside
measured, and what a difference points to."""

import statistics
from dataclasses import dataclass

from zerodip.kinds.figures import Figures
from zerodip.kinds.protocol import ProofTest
from zerodip.kinds.registry import kind_of
from zerodip.kinds.visit_parts import Measured
from zerodip.practice.agreement import agrees
from zerodip.units import text
from zerodip.visit.log import Log
from zerodip.visit.slots import LAP

__all__ = ["ProveView", "RunWatch", "prove_view"]

_NO_END_S = 1e9
_ALARM_S = 600.0  # a pump that runs so long with all taps shut does not stop by itself


@dataclass(frozen=True, kw_only=True)
class RunWatch:
    """What a stopwatch says while it runs: from `alarm_s` on, and of a run that ended before
    `wanted_s` (None where no run time is wanted)."""

    wanted_s: float | None
    short_says: str
    alarm_s: float
    alarm_says: str


@dataclass(frozen=True, kw_only=True)
class ProveView:
    """The tests that can be made here, what was measured, how a run is judged as it is timed,
    and whether one can be timed."""

    tests: tuple[ProofTest, ...]
    measured: tuple[Measured, ...]
    watch: RunWatch
    timed: bool

    @property
    def apart(self) -> bool:
        """Whether something was measured that does not agree."""
        return any(each.agrees is False for each in self.measured)


def prove_view(figures: Figures, log: Log, units: str) -> ProveView:
    """Predicted beside measured.

    Args:
        figures: The system's figures under its settings.
        log: The visit's log.
        units: Unit system of the texts: "us", "metric" or "kpa".

    Returns:
        What the step shows.

    Source: Gas law and mass balance.
    """
    diagnosis, run = kind_of(figures).diagnosis, _run(figures, log, units)
    found = diagnosis.measured(figures, log, units)
    measured = (*([run] if run else []), *found)
    return ProveView(
        tests=diagnosis.tests,
        measured=measured,
        watch=_watch(figures, units),
        timed=diagnosis.run_s(figures) is not None,
    )


def _watch(figures: Figures, units: str) -> RunWatch:
    """Source: common practice, no source."""
    wanted = kind_of(figures).diagnosis.wanted_run_s(figures)
    least = "" if wanted is None else text(wanted, "duration", units)
    return RunWatch(
        wanted_s=wanted,
        short_says=f"Short cycling: a run of at least {least} is wanted." if least else "",
        alarm_s=_ALARM_S,
        alarm_says=(
            "It does not stop. Look for an open tap or a leak, cut-out above what the pump reaches,"
            " a clogged nipple. Stop it before it runs hot."
        ),
    )


def _run(figures: Figures, log: Log, units: str) -> Measured | None:
    diagnosis = kind_of(figures).diagnosis
    laps, predicted = log.all(LAP), diagnosis.run_s(figures)
    if not laps or predicted is None:
        return None
    middle, ends = statistics.median(lap.run_s for lap in laps), predicted < _NO_END_S
    counted = f"{len(laps)} lap{'s' if len(laps) > 1 else ''}"
    wanted = diagnosis.wanted_run_s(figures)
    beside = "" if wanted is None else f"; wanted {text(wanted, 'duration', units)} or more"
    return Measured(
        id="run",
        title="Pump run",
        measured=middle,
        predicted=predicted if ends else None,
        dimension="duration",
        agrees=agrees(middle, predicted) if ends else False,
        says=f"{counted}; predicted {text(predicted, 'duration', units)}{beside}",
    )
