"""Demand pumps without a tank, on 12 or 24 V."""

from zerodip.errors import Fault
from zerodip.kinds.cautions import CODES
from zerodip.kinds.nominal_sizes import accumulator_sizes_m3
from zerodip.kinds.protocol import Kind, Label, Proposing, Sizing, VisitParts
from zerodip.kinds.settings import Settings
from zerodip.kinds.steps import READ
from zerodip.kinds.tankless.candidates import candidates, preference, why
from zerodip.kinds.tankless.chart import window
from zerodip.kinds.tankless.figures import TanklessFigures
from zerodip.kinds.tankless.inputs import INPUTS
from zerodip.kinds.tankless.limits import LIMITS
from zerodip.kinds.tankless.model import TANKLESS, TanklessSystem
from zerodip.kinds.tankless.remedies import catalogue
from zerodip.kinds.tankless.results import RESULTS
from zerodip.kinds.tankless.rules import RULES
from zerodip.kinds.tankless.sizing import none_needed, resized, settings_to_size_at, target
from zerodip.kinds.tankless.troubles import TROUBLES
from zerodip.kinds.tankless.visit import CHECKS, JOBS, STEPS, WATCH
from zerodip.kinds.templates import usual_settings
from zerodip.units import PSI, to_si

__all__ = ["TANKLESS_PUMP"]

_LOW_VOLTAGE = (
    "Pull the fuse before the switch is opened; a pump that runs on against dead-head gets hot."
)
_CURVE = ((0, 58), (1.0, 45), (2.0, 31), (3.0, 14))  # gpm, psi


def _pre_charge_missing(system: TanklessSystem, settings: Settings) -> list[Fault]:
    if system.accumulator is None or settings.pre_charge_gauge_pa is not None:
        return []
    return [
        Fault(
            path="settings.pre_charge_gauge_pa",
            code="missing",
            title="Pre-charge",
            says="is missing.",
        )
    ]


TANKLESS_PUMP = Kind[TanklessSystem, TanklessFigures](
    id=TANKLESS,
    title="Tankless demand pump",
    model=TanklessSystem,
    figures=TanklessFigures,
    template={
        "system": {
            "pump": {
                "points": [
                    {"flow_m3_s": to_si(gpm, "gpm"), "gauge_pa": psi * PSI} for gpm, psi in _CURVE
                ]
            },
            "battery": {"least_v": 11.6, "most_v": 13.8},
            "outlets": [{"name": "Tap", "flow_m3_s": to_si(2, "gpm"), "gauge_pa": 20 * PSI}],
        },
        "settings": usual_settings(35, 46, None),
    },
    unread=("system.switch.nuts", "system.pump.works", "system.pump.nominal_v"),
    cautions=(_LOW_VOLTAGE, CODES),
    rules=RULES,
    limits=LIMITS,
    results=RESULTS,
    inputs=INPUTS,
    report=("running", "dead_head", "pulses", "drawdown"),
    chart=window,
    visit=VisitParts(watch=WATCH, make_safe=STEPS, read=READ, checks=CHECKS, jobs=JOBS),
    proposing=Proposing(
        candidates=candidates,
        shown=("running", "dead_head", "pulses", "drawdown"),
        preference=preference,
        why=why,
    ),
    remedies=catalogue,
    sizing=Sizing(
        resized=resized,
        have_m3=lambda figures: figures.accumulator_m3 or 0.0,
        starts_per_s=lambda figures: figures.pulses_per_s,
        target=target,
        settings=settings_to_size_at,
        least_m3=0.00005,
        most_m3=0.1,
        nominal_m3=accumulator_sizes_m3,
        starts_words=("per_minute", "pulses"),
        none_needed=none_needed,
    ),
    troubles=TROUBLES,
    label=Label(pre_charge=True),
    settings_faults=_pre_charge_missing,
)
