"""Which class reads which kind of system, and what the settings of each kind must hold."""

from typing import Any

from ..errors import Fault
from .compressor import CompressorSystem
from .settings import Settings
from .tankless import TanklessSystem
from .water import WaterSystem

__all__ = ["BLADDER_KINDS", "KINDS", "WATER_KINDS", "System", "fits"]

System = WaterSystem | CompressorSystem | TanklessSystem
BLADDER_KINDS = ("well_bladder", "cistern", "boosted")
WATER_KINDS = (*BLADDER_KINDS, "well_air")
KINDS: dict[str, Any] = {
    **dict.fromkeys(("well_bladder", "well_air", "cistern", "boosted"), WaterSystem),
    "compressor": CompressorSystem,
    "tankless": TanklessSystem,
}


def fits(system: System, settings: Settings) -> list[Fault]:
    """Faults of settings that are right by themselves but not for this system, paths from the document's root."""
    needs_air = getattr(system, "tanks", None) or getattr(system, "accumulator", None)
    if needs_air and settings.pre_charge_gauge_pa is None:
        return [Fault(path="settings.pre_charge_gauge_pa", code="missing", title="Pre-charge", says="is missing.")]
    return []
