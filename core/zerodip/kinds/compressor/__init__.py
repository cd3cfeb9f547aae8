"""Air compressors and their receivers."""

from zerodip.kinds.cautions import CODES, FIRST_FILL, MAINS
from zerodip.kinds.compressor.candidates import USUAL_PSI, candidates, floor_pa, keeps
from zerodip.kinds.compressor.chart import air_ribbon
from zerodip.kinds.compressor.figures import CompressorFigures
from zerodip.kinds.compressor.inputs import EDGES, INPUTS
from zerodip.kinds.compressor.limits import LIMITS
from zerodip.kinds.compressor.measured import measured
from zerodip.kinds.compressor.model import COMPRESSOR, CompressorSystem
from zerodip.kinds.compressor.remedies import catalogue
from zerodip.kinds.compressor.results import RESULTS
from zerodip.kinds.compressor.rules import RULES
from zerodip.kinds.compressor.sizing import demands, resized, target
from zerodip.kinds.compressor.troubles import TROUBLES
from zerodip.kinds.compressor.visit import CHECKS, JOBS, STEPS, WATCH, drain
from zerodip.kinds.nominal_sizes import receiver_sizes_m3
from zerodip.kinds.protocol import Diagnosis, Kind, Proposing, Simulating, Sizing, VisitParts
from zerodip.kinds.steps import READ
from zerodip.kinds.templates import usual_settings
from zerodip.units import PSI, to_si

__all__ = ["AIR_COMPRESSOR"]

_STORED_AIR = (
    "Hot parts and stored air: eye and ear protection, bleed slowly, never plug, remove or raise a"
    " safety valve."
)


def _most_use_m3_s(figures: CompressorFigures) -> float:
    return max(figures.store.flows_m3_s[0], figures.use_m3_s or 0.0) * 1.2


AIR_COMPRESSOR = Kind[CompressorSystem, CompressorFigures](
    id=COMPRESSOR,
    title="Air compressor",
    stiff_switch=True,
    model=CompressorSystem,
    figures=CompressorFigures,
    template={
        "system": {
            "receivers": [{"volume_m3": to_si(60, "gal")}],
            "pump": {"points": [{"gauge_pa": 90 * PSI, "flow_m3_s": to_si(10, "cfm")}]},
        },
        "settings": usual_settings(100, 125, None),
    },
    unread=("system.switch.nuts",),
    cautions=(MAINS, _STORED_AIR, FIRST_FILL, CODES),
    rules=RULES,
    limits=LIMITS,
    results=RESULTS,
    inputs=INPUTS,
    edges=EDGES,
    report=("between", "run", "starts", "duty"),
    chart=air_ribbon,
    visit=VisitParts(
        watch=WATCH, make_safe=STEPS, read=READ, checks=CHECKS, jobs=JOBS, drain=drain
    ),
    proposing=Proposing(
        candidates=candidates,
        floor_pa=floor_pa,
        usual_psi=USUAL_PSI,
        shown=("between", "run", "pump_up", "starts", "duty"),
        keeps=keeps,
    ),
    remedies=catalogue,
    sizing=Sizing(
        resized=resized,
        have_m3=lambda figures: figures.volume_m3,
        run_s=lambda figures: figures.run_s,
        starts_per_s=lambda figures: figures.worst_starts_per_s,
        target=target,
        demands=demands,
        nominal_m3=receiver_sizes_m3,
        no_more=(
            "Six receivers are the most that a file holds: put a bigger one in place of one that is"
            " there."
        ),
    ),
    simulating=Simulating(
        store=lambda figures: figures.store,
        most_draw_m3_s=_most_use_m3_s,
        worst_draw_m3_s=lambda figures: figures.worst_draw_m3_s,
        steady="",
        dip=lambda seconds: f"the receiver empty for {seconds:.0f} s",
    ),
    troubles=TROUBLES,
    diagnosis=Diagnosis(
        tests=("leak",),
        run_s=lambda figures: figures.run_s,
        measured=measured,
    ),
)
