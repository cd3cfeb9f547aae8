"""Systems to test with, given in the units a technician would read them in."""

import copy
from typing import Any

from zerodip.kinds.compressor.model import AirPump, CompressorSystem, FreeAirPoint, Receiver
from zerodip.kinds.parts import Pipe, Relief, Switch
from zerodip.kinds.settings import Practice, Settings
from zerodip.kinds.tankless.model import (
    Accumulator,
    Battery,
    DemandPump,
    Outlet,
    PressurePoint,
    TanklessSystem,
)
from zerodip.kinds.water.figures import WaterFigures
from zerodip.kinds.water.model import Tank, WaterSystem
from zerodip.kinds.water.pumps import ConstantFlow, CurvePoint, HeadCurve, Pump, RatedPoint
from zerodip.physics.bladder_tank import Bank, Vessel
from zerodip.physics.simulation import WaterStore
from zerodip.units import PSI, to_si
from zerodip.visit.log import Record

GAL, GPM, FT = to_si(1, "gal"), to_si(1, "gpm"), to_si(1, "ft")
SEA_LEVEL = 101325.0

CONSTANT = ConstantFlow(flow_m3_s=10 * GPM)
RATED = RatedPoint(flow_m3_s=10 * GPM, gauge_pa=50 * PSI, lift_m=20, dead_head_gauge_pa=85 * PSI)
CURVE = HeadCurve(
    points=tuple(
        CurvePoint(flow_m3_s=q * GPM, head_m=h) for q, h in ((0, 85), (5, 78), (10, 62), (15, 40))
    ),
    lift_m=20,
    drop_pipe=Pipe(length_m=40, diameter_m=0.0266, c_factor=150),
)
PUMPS: dict[str, Pump] = {"constant": CONSTANT, "rated": RATED, "curve": CURVE}


def settings(cut_in: float = 40, cut_out: float = 60, air: float = 38) -> Settings:
    """Settings in psi."""
    return Settings(
        cut_in_gauge_pa=cut_in * PSI, cut_out_gauge_pa=cut_out * PSI, pre_charge_gauge_pa=air * PSI
    )


def system(pump: Pump = CONSTANT, gallons: float = 44, **parts: Any) -> WaterSystem:
    """A well with one bladder tank."""
    tanks = parts.pop("tanks", (Tank(volume_m3=gallons * GAL, max_gauge_pa=100 * PSI),))
    return WaterSystem(kind=parts.pop("kind", "well_bladder"), tanks=tanks, pump=pump, **parts)


CFM = to_si(1, "cfm")


def air_settings(cut_in: float = 100, cut_out: float = 125) -> Settings:
    """Settings of a compressor, in psi."""
    return Settings(cut_in_gauge_pa=cut_in * PSI, cut_out_gauge_pa=cut_out * PSI)


def compressor(
    points: tuple[tuple[float, float], ...] = ((90, 10),), **parts: Any
) -> CompressorSystem:
    """A 60 gal receiver, 150 psi on every plate; free air in cfm at psi."""
    delivered = tuple(FreeAirPoint(gauge_pa=psi * PSI, flow_m3_s=cfm * CFM) for psi, cfm in points)
    plates = {
        "receivers": (Receiver(volume_m3=60 * GAL, max_gauge_pa=150 * PSI),),
        "pump": AirPump(points=delivered, max_gauge_pa=150 * PSI, power_w=2237),
        "relief": Relief(present=True, setting_gauge_pa=150 * PSI),
    }
    return CompressorSystem(kind="compressor", **{**plates, **parts})


def tankless(
    outlet_gpm: float = 1.8,
    volts: tuple[float, float] = (11.6, 13.8),
    litres: float = 0,
    plate: float = 0,
    **parts: Any,
) -> TanklessSystem:
    """A 12 V demand pump that stands at 58 psi, with one outlet rated at 20 psi."""
    curve = ((0, 58), (1.0, 45), (2.0, 31), (3.0, 14), (3.4, 6))
    points = tuple(PressurePoint(flow_m3_s=gpm * GPM, gauge_pa=psi * PSI) for gpm, psi in curve)
    plates = {
        "pump": DemandPump(points=points),
        "battery": Battery(least_v=volts[0], most_v=volts[1]),
        "outlets": (Outlet(flow_m3_s=outlet_gpm * GPM, gauge_pa=20 * PSI),),
        "accumulator": (
            Accumulator(volume_m3=litres * 1e-3, max_gauge_pa=plate * PSI or None)
            if litres
            else None
        ),
        "switch": Switch(nuts="one"),
    }
    return TanklessSystem(kind="tankless", **{**plates, **parts})


def figures(
    of: WaterSystem | None = None, at: Settings | None = None, practice: Practice | None = None
) -> WaterFigures:
    """Figures of a water system."""
    return WaterFigures(of or system(), at or settings(), practice or Practice())


def plant(
    pump: Pump = CONSTANT,
    gallons: float = 44,
    cut_in: float = 40,
    cut_out: float = 60,
    air: float = 38,
    lag: float = 1.5,
) -> WaterStore:
    """A plant at sea level, set in psi."""
    bank = Bank((Vessel(gallons * GAL, air * PSI + SEA_LEVEL),))
    return WaterStore(bank, pump.delivery(), SEA_LEVEL, cut_in * PSI, cut_out * PSI, lag)


FILE: dict[str, Any] = {
    "format": "zerodip-system",
    "version": 1,
    "system": {
        "kind": "well_bladder",
        "name": "A well",
        "tanks": [{"volume_m3": 44 * GAL, "max_gauge_pa": 100 * PSI}],
        "pump": {"model": "constant", "flow_m3_s": 10 * GPM},
    },
    "settings": {
        "cut_in_gauge_pa": 40 * PSI,
        "cut_out_gauge_pa": 60 * PSI,
        "pre_charge_gauge_pa": 38 * PSI,
    },
}


def file(**changes: Any) -> dict[str, Any]:
    """A system file with values put at dotted paths (written with __ for the dots)."""
    made = copy.deepcopy(FILE)
    for path, value in changes.items():
        *steps, last = path.split("__")
        part: Any = made
        for step in steps:
            part = part[int(step)] if step.isdigit() else part.setdefault(step, {})
        part[int(last) if last.isdigit() else last] = value
    return made


def entries(*pairs: tuple[str, Any], at: str = "") -> list[Record]:
    """Records of a visit by slot and value, in order; one after the other, or all at one time."""
    return [
        Record(str(k), slot, value, at=at or f"{k:04}") for k, (slot, value) in enumerate(pairs)
    ]
