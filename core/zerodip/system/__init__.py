"""The things that are read off a site, by kind of system; the settings; the practice followed.

All pressures are gauge unless the name says `abs`; all numbers SI. Ranges are what a small system can be at all, wide
enough never to refuse a true reading; what is *advisable* is the rules' business (`zerodip.rulebook`).
"""

from .compressor import AirPump, AirUse, CompressorSystem, FreeAirPoint, LeakTest, Receiver
from .fittings import Pipe, Relief, Site, Switch
from .kinds import BLADDER_KINDS, KINDS, WATER_KINDS, System, fits
from .pumps import ConstantFlow, CurvePoint, HeadCurve, Pump, RatedPoint
from .settings import Practice, Settings
from .tankless import Accumulator, Battery, DemandPump, Outlet, PressurePoint, TanklessSystem
from .water import Demand, Found, Supply, Tank, WaterSystem

__all__ = [
    "BLADDER_KINDS", "KINDS", "WATER_KINDS", "Accumulator", "AirPump", "AirUse", "Battery", "CompressorSystem",
    "ConstantFlow", "CurvePoint", "Demand", "DemandPump", "Found", "FreeAirPoint", "HeadCurve", "LeakTest", "Outlet",
    "Pipe", "Practice", "PressurePoint", "Pump", "RatedPoint", "Receiver", "Relief", "Settings", "Site", "Supply", "Switch",
    "System", "Tank", "TanklessSystem", "WaterSystem", "fits",
]  # fmt: skip
