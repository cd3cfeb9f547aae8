"""What was measured on a compressor beside what was predicted, and what a difference points to. A
receiver is a vessel of known size: what is off is the machine, the room in it, or air that went
elsewhere."""

from collections.abc import Generator, Iterator, Mapping

from zerodip.kinds.compressor.figures import CompressorFigures
from zerodip.kinds.visit_parts import Cause, Measured
from zerodip.units import text
from zerodip.visit.log import Log
from zerodip.visit.records import LeakWatch
from zerodip.visit.slots import LEAK

__all__ = ["causes", "measured", "tell"]

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


def causes(figures: CompressorFigures, by: Mapping[str, Measured]) -> Generator[Cause, None, None]:
    """What would explain a run that does not agree.

    Args:
        figures: The system's figures under its settings.
        by: What was measured, by id.

    Yields:
        The causes, with how well each fits (0 to 1).

    Source: Common practice, no source.
    """
    run, leak = by["run"].ratio if "run" in by else None, by.get("leak")
    if run is None:
        return
    if run < 1:
        why = "It takes the room of air: the run is shorter."
        yield Cause(id="condensate", title="Water in the receiver", fits=0.7, why=why)
        yield Cause(
            id="pump",
            title="Compressor stronger than its plate",
            fits=0.25,
            why="Seldom so by much.",
        )
        return
    used = 0.5 if leak is None else 0.2 if leak.agrees else 0.8
    why = "Part of what it delivers goes elsewhere."
    yield Cause(id="use", title="Air used or leaking while it ran", fits=used, why=why)
    why = "Valves, filter or belt: less is delivered than the plate says."
    yield Cause(id="pump", title="Compressor weaker than its plate", fits=0.9 - used, why=why)


def tell(causes: tuple[Cause, ...], done: set[str]) -> str:
    """The one measurement that would tell the two likeliest causes apart.

    Args:
        causes: The causes, likeliest first.
        done: Ids of what was measured.

    Returns:
        The measurement, in words; empty for none.
    """
    if causes[0].id == "condensate":
        return "Bleed the drain cock until only air comes, then time the run again."
    if "leak" in done:
        return "Time the pump-up from empty, everything shut: it tells what the machine delivers."
    return (
        "Watch the gauge with the machine off and nothing used: it tells a leak from a weak"
        " machine."
    )
