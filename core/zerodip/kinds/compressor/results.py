"""The results of compressors."""

from zerodip.kinds.compressor.figures import CompressorFigures as C
from zerodip.kinds.results import ResultSpec
from zerodip.rules.sources import DOE_AIR, GAS_LAW, MASS_BALANCE, SUMP_LAW

__all__ = ["RESULTS"]


def _use_known(figures: C) -> bool:
    return figures.use_m3_s is not None


def _leak_note(figures: C) -> str:
    return f"{C.leak_share} of the delivery" if figures.leak_share is not None else ""


RESULTS: tuple[ResultSpec[C], ...] = (
    ResultSpec(
        id="cut_out",
        title="Cut-out, judged at the click",
        figure=C.cut_out_pa,
        formula=(
            f"The gauge then settles from {C.cut_out_pa} to {C.settled_pa}: p·T/(T + ΔT), absolute,"
            f" with air {C.click_warming_k} warmer than the room, from air that enters at"
            f" {C.delivery_k}."
        ),
        source=GAS_LAW,
        note=lambda figures: f"settles to {C.settled_pa}",
    ),
    ResultSpec(
        id="between",
        title="Free air between the points",
        figure=C.between_m3,
        formula=(
            f"V·(settled − cut-in) / atmosphere = {C.volume_m3} × ({C.settled_pa} − {C.cut_in_pa})"
            f" / {C.atmosphere_pa} = {C.between_m3}: what there is of it once it has cooled."
        ),
        source=GAS_LAW,
    ),
    ResultSpec(
        id="run",
        title="Pump run, nothing used",
        figure=C.run_s,
        formula=(
            f"Hot air fills faster: energy balance with air entering at {C.delivery_k}, {C.run_s};"
            f" the cold form ∫ V dp / (atmosphere · FAD) says {C.cold_run_s}. Mean delivery"
            f" {C.mean_flow_m3_s}."
        ),
        source=MASS_BALANCE,
        note=lambda figures: f"cold form {C.cold_run_s}",
    ),
    ResultSpec(
        id="pump_up",
        title="Pump-up from empty",
        figure=C.pump_up_s,
        formula=(
            f"Energy balance with air entering at {C.delivery_k}, from nothing to cut-out ="
            f" {C.pump_up_s}."
        ),
        source=MASS_BALANCE,
    ),
    ResultSpec(
        id="starts",
        title="Starts, worst hour",
        figure=C.worst_starts_per_s,
        formula=(
            f"1 / (A/Q_use + ∫ dA/(FAD − Q_use)) is largest at {C.worst_draw_m3_s}; for a constant"
            " delivery FAD/(4 A)."
        ),
        source=SUMP_LAW,
        note=lambda figures: "" if figures.worst is None else f"at {C.worst_draw_m3_s}",
    ),
    ResultSpec(
        id="duty",
        title="Duty at this use",
        figure=C.duty,
        formula=f"On / (on + off) at {C.use_m3_s}: {C.duty}, {C.use_starts_per_s}.",
        source=MASS_BALANCE,
        note=lambda figures: f"starting {C.use_starts_per_s}",
        shown=_use_known,
    ),
    ResultSpec(
        id="leak",
        title="Leak",
        figure=C.leak_m3_s,
        formula=(
            f"V·Δp / (t·atmosphere) = {C.leak_m3_s}, mean over the watch; times {C.leak_factor} at "
            "its first pressure."
        ),
        source=DOE_AIR,
        note=_leak_note,
        shown=lambda figures: figures.leak_m3_s is not None,
    ),
)
