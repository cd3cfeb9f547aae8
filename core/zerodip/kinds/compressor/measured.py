"""What was measured on a compressor beside what was predicted."""

from collections.abc import Iterator

from zerodip.kinds.compressor.figures import CompressorFigures
from zerodip.kinds.visit_parts import Measured
from zerodip.units import text
from zerodip.visit.log import Log
from zerodip.visit.records import LeakWatch
from zerodip.visit.slots import LEAK

__all__ = ["measured"]

_TIGHT_M3_S = 1e-6


def measured(figures: CompressorFigures, log: Log, units: str) -> Iterator[Measured]:
    """Leak watches.

    Args:
        figures: The system's figures under its settings.
        log: The visit's log.
        units: Unit system of the texts: "us", "metric" or "kpa".

    Returns:
        What was measured, beside what was predicted.

    Source: The gas law.
    """
    return (_leak(figures, leak, units) for leak in log.all(LEAK))


def _leak(figures: CompressorFigures, leak: LeakWatch, units: str) -> Measured:
    store = figures.cold_store  # the machine stands: the air has the room's temperature
    lost = (store.held_m3(leak.first_gauge_pa) - store.held_m3(leak.later_gauge_pa)) / leak.seconds
    tight = lost < _TIGHT_M3_S
    says = "Tight." if tight else f"{text(lost, 'air_flow', units)} runs away with nothing open."
    return Measured(
        id="leak",
        title="Leak",
        measured=lost,
        predicted=0.0,
        dimension="air_flow",
        agrees=tight,
        says=says,
    )
