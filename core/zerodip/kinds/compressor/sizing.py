"""Sizing the receivers of a compressor."""

from dataclasses import replace
from typing import Literal

from zerodip.kinds.compressor.figures import CompressorFigures
from zerodip.kinds.compressor.model import MOST_RECEIVERS, CompressorSystem, Receiver
from zerodip.kinds.protocol import Demand, hourly_starts

__all__ = ["demands", "resized", "target"]

_USUAL_STARTS_PER_S = 10 / 3600  # where the motor's power is not known: common practice, no source


def resized(system: CompressorSystem, volume_m3: float, beside: bool) -> CompressorSystem | None:
    """The system with one receiver of that volume in place of its own, or one more; None where no
    more can be entered.

    Args:
        system: Everything read off the system.
        volume_m3: Volume, m³, above 0.
        beside: Beside what is there, rather than in its place.

    Returns:
        The system with it; None where no more can be entered.
    """
    receiver = Receiver(volume_m3=volume_m3)
    if not beside:
        return replace(system, receivers=(receiver,))
    if len(system.receivers) >= MOST_RECEIVERS:
        return None
    return replace(system, receivers=(*system.receivers, receiver))


def target(figures: CompressorFigures) -> tuple[Literal["run", "starts"], float]:
    """The starts that the motor bears, 1/s.

    Args:
        figures: The system's figures under its settings.

    Returns:
        What is wanted (run or starts) and its value (s or 1/s).
    """
    return "starts", figures.hourly_limit_per_s or _USUAL_STARTS_PER_S


def demands(figures: CompressorFigures) -> tuple[Demand, ...]:
    """The starts in an hour that the motor bears.

    Args:
        figures: The system's figures under its settings.

    Returns:
        What a size has to meet.
    """
    starts, borne = figures.worst_starts_per_s, figures.hourly_limit_per_s
    return (hourly_starts(starts, borne, CompressorFigures.power_w.reading),)
