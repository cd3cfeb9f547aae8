"""Everything that can be worked out of one system under one set of settings, each figure computed once, when asked for."""

from ..errors import InvalidInput
from ..system import CompressorSystem, Practice, Settings, System, TanklessSystem, fits
from .base import Facts
from .readings import READINGS
from .receiver import ReceiverFacts
from .tankless import TanklessFacts
from .water import WaterFacts

__all__ = ["READINGS", "Facts", "ReceiverFacts", "TanklessFacts", "WaterFacts", "facts_for"]


def facts_for(system: System, settings: Settings, practice: Practice | None = None) -> Facts:
    """The figures of a system of any kind. Raises InvalidInput when the settings lack what this kind needs."""
    faults = fits(system, settings)
    if faults:
        raise InvalidInput(faults)
    followed = practice or Practice()
    if isinstance(system, CompressorSystem):
        return ReceiverFacts(system, settings, followed)
    if isinstance(system, TanklessSystem):
        return TanklessFacts(system, settings, followed)
    return WaterFacts(system, settings, followed)
