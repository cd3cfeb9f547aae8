"""Sizing the accumulator of a tankless pump."""

from dataclasses import replace
from typing import Literal

from zerodip.kinds.settings import Settings
from zerodip.kinds.tankless.figures import TanklessFigures
from zerodip.kinds.tankless.model import Accumulator, TanklessSystem

__all__ = ["none_needed", "resized", "settings_to_size_at", "target"]

_SHARE_OF_CUT_IN = 0.9  # the pre-charge of an accumulator that is only thought of


def resized(system: TanklessSystem, volume_m3: float, beside: bool) -> TanklessSystem | None:
    """The system with an accumulator of that volume; there is no second one beside it.

    Args:
        system: Everything read off the system.
        volume_m3: Volume, m³, above 0.
        beside: Beside what is there, rather than in its place.

    Returns:
        The system with it; None where no more can be entered.
    """
    if beside:
        return None
    plate = system.accumulator.max_gauge_pa if system.accumulator else None
    return replace(system, accumulator=Accumulator(volume_m3=volume_m3, max_gauge_pa=plate))


def settings_to_size_at(figures: TanklessFigures, system: TanklessSystem) -> Settings:
    """An accumulator that is only thought of has its air a little below cut-in.

    Args:
        figures: The system's figures as it is.
        system: The system with another accumulator.

    Returns:
        The settings to judge it at.
    """
    settings = figures.settings
    if figures.system.accumulator is not None:
        return settings
    return replace(settings, pre_charge_gauge_pa=_SHARE_OF_CUT_IN * settings.cut_in_gauge_pa)


def target(figures: TanklessFigures) -> tuple[Literal["run", "starts"], float]:
    """The pulses that can be borne, 1/s.

    Args:
        figures: The system's figures under its settings.

    Returns:
        What is wanted (run or starts) and its value (s or 1/s).
    """
    return "starts", figures.tolerable_pulses_per_s


def none_needed(figures: TanklessFigures) -> str:
    """Why no accumulator is needed; "" where one would help.

    Args:
        figures: The system's figures under its settings.

    Returns:
        The reason; empty for none.
    """
    if figures.pulses_at_all:
        return ""
    return "The pump runs through at the smallest outlet: no accumulator is needed."
