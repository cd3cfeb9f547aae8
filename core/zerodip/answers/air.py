"""The answers for compressors."""

from ..facts import ReceiverFacts
from ..sources import DOE_AIR, GAS_LAW, MASS_BALANCE, SUMP_LAW
from ..units import Shown
from .parts import AnswerKind

__all__ = ["AIR"]


def _use_known(facts: ReceiverFacts) -> bool:
    return facts.use_m3_s is not None


def _leak_note(facts: ReceiverFacts, f: Shown) -> str:
    return f"{f.leak_share:share} of the delivery" if facts.leak_share is not None else ""


AIR = (
    AnswerKind(
        id="cut_out",
        title="Cut-out, judged at the click",
        figure="cut_out_pa",
        dimension="pressure",
        formula="The gauge then settles from {f.cut_out_pa:pressure} to {f.settled_pa:pressure}: p·T/(T + ΔT), absolute, with air "
        "{f.click_warming_k:temperature_step} warmer than the room.",
        source=GAS_LAW,
        note=lambda facts, f: f"settles to {f.settled_pa:pressure}",
    ),
    AnswerKind(
        id="between",
        title="Free air between the points",
        figure="between_m3",
        dimension="air_volume",
        formula="V·Δp / atmosphere = {f.volume_m3:volume} × {f.differential_pa:pressure} / {f.atmosphere_pa:pressure} = "
        "{f.between_m3:air_volume}.",
        source=GAS_LAW,
    ),
    AnswerKind(
        id="run",
        title="Pump run, nothing used",
        figure="run_s",
        dimension="duration",
        formula="∫ V dp / (atmosphere · FAD) from cut-in to cut-out = {f.run_s:duration}; mean delivery "
        "{f.mean_flow_m3_s:air_flow}.",
        source=MASS_BALANCE,
    ),
    AnswerKind(
        id="pump_up",
        title="Pump-up from empty",
        figure="pump_up_s",
        dimension="duration",
        formula="∫ V dp / (atmosphere · FAD) from nothing to cut-out = {f.pump_up_s:duration}.",
        source=MASS_BALANCE,
    ),
    AnswerKind(
        id="starts",
        title="Starts, worst hour",
        figure="worst_starts_per_s",
        dimension="rate",
        formula="1 / (A/Q_use + ∫ dA/(FAD − Q_use)) is largest at {f.worst_draw_m3_s:air_flow}; for a constant delivery FAD/(4 A).",
        source=SUMP_LAW,
        note=lambda facts, f: "" if facts.worst is None else f"at {f.worst_draw_m3_s:air_flow}",
    ),
    AnswerKind(
        id="duty",
        title="Duty at this use",
        figure="duty",
        dimension="share",
        formula="On / (on + off) at {f.use_m3_s:air_flow}: {f.duty:share}, {f.use_starts_per_s:rate}.",
        source=MASS_BALANCE,
        note=lambda facts, f: f"starting {f.use_starts_per_s:rate}",
        shown=_use_known,
    ),
    AnswerKind(
        id="leak",
        title="Leak",
        figure="leak_m3_s",
        dimension="air_flow",
        formula="V·Δp / (t·atmosphere) = {f.leak_m3_s:air_flow}, mean over the watch; times {f.leak_factor:number} at "
        "its first pressure.",
        source=DOE_AIR,
        note=_leak_note,
        shown=lambda facts: facts.leak_m3_s is not None,
    ),
)
