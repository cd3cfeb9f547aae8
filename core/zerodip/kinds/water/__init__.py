"""Systems that keep water under pressure in tanks: wells, cisterns, boosted supplies. They share
their plates and their figures; each has its own rules, steps and cautions."""

from dataclasses import replace
from typing import Any

from zerodip.errors import Fault
from zerodip.kinds.cautions import CODES, FIRST_FILL, MAINS, PIT, STRETCH
from zerodip.kinds.nominal_sizes import tank_sizes_m3
from zerodip.kinds.protocol import (
    Diagnosis,
    History,
    Kind,
    Label,
    Proposing,
    Simulating,
    Sizing,
    VisitParts,
)
from zerodip.kinds.settings import Settings
from zerodip.kinds.templates import usual_settings
from zerodip.kinds.water.advice import air_check, charge_why, trip_says
from zerodip.kinds.water.air import air_view
from zerodip.kinds.water.candidates import (
    USUAL_PSI,
    aired,
    alike,
    candidates,
    finer,
    floor_pa,
    keeps,
    usual_charge_pa,
)
from zerodip.kinds.water.chart import water_ribbon
from zerodip.kinds.water.figures import WaterFigures
from zerodip.kinds.water.found import with_found
from zerodip.kinds.water.inputs import EDGES, INPUTS, bounds, never_stops
from zerodip.kinds.water.jobs import (
    BOOSTED_JOBS,
    BOOSTED_PARTS,
    CISTERN_JOBS,
    CISTERN_PARTS,
    PLAIN_JOBS,
    WELL_JOBS,
)
from zerodip.kinds.water.limits import LIMITS
from zerodip.kinds.water.measured import measured
from zerodip.kinds.water.model import BOOSTED, CISTERN, PLAIN_WELL, WELL, WaterSystem
from zerodip.kinds.water.noticed import noticed
from zerodip.kinds.water.remedies import catalogue
from zerodip.kinds.water.results import RESULTS
from zerodip.kinds.water.rules import BOOSTED_RULES, CISTERN_RULES, PLAIN_WELL_RULES, WELL_RULES
from zerodip.kinds.water.sizing import aired_says, charged, demands, resized, second_opinion, target
from zerodip.kinds.water.troubles import BLADDER_TROUBLES, BOOSTED_TROUBLES, PLAIN_TROUBLES
from zerodip.kinds.water.visit import (
    BOOSTED_STEPS,
    CHECKS,
    PLAIN_CHECKS,
    READ_WATER,
    WATCH,
    WATER_STEPS,
    WELL_STEPS,
    drain,
    questions,
)
from zerodip.kinds.water.ways import matters, pre_charge_ways
from zerodip.physics.atmosphere import head_pa
from zerodip.units import PSI, to_si

__all__ = ["BOOSTED_SUPPLY", "CISTERN_SUPPLY", "PLAIN_TANK_WELL", "WELL_WITH_BLADDER"]

_SYSTEM: dict[str, Any] = {
    "tanks": [{"volume_m3": to_si(44, "gal")}],
    "pump": {"model": "constant", "flow_m3_s": to_si(10, "gpm")},
}
# The report's results, as a customer can follow them: what is there, how long, how often, what is
# in reserve.
_REPORT = ("drawdown", "run", "starts", "reserve")
_NON_POTABLE = "Non-potable water. Do not drink."


def _settings_faults(system: WaterSystem, settings: Settings) -> list[Fault]:
    faults = []
    if settings.pre_charge_gauge_pa is None:
        path = "settings.pre_charge_gauge_pa"
        faults.append(Fault(path=path, code="missing", title="Pre-charge", says="is missing."))
    if head_pa(system.tanks_above_m) > settings.cut_in_gauge_pa:
        says = "is so much that at cut-in no water reaches them; raise cut-in or measure again."
        path, title = "system.tanks_above_m", "Tanks above the gauge"
        faults.append(Fault(path=path, code="order", title=title, says=says))
    return faults


def _dip(seconds: float) -> str:
    return f"taps dry for {seconds:.1f} s while the pump starts"


def _band_pa(figures: WaterFigures) -> float:
    """The lowest pre-charge that is still as it was decided to be set."""
    return figures.pre_charge_pa - figures.way_tolerance_pa


def _undrinkable(figures: WaterFigures) -> str:
    """Untreated, or not known to be treated. Source: IPC 608 and UPC 601 (from memory)."""
    return "" if figures.treated else _NON_POTABLE


_USUAL_LOSS_PA = 2 * PSI

_SIZING = Sizing[WaterSystem, WaterFigures](
    resized=resized,
    have_m3=lambda figures: figures.nominal_m3,
    run_s=lambda figures: figures.run_s,
    starts_per_s=lambda figures: figures.worst_starts_per_s,
    target=target,
    demands=demands,
    settings=charged,
    aired=aired_says,
    nominal_m3=tank_sizes_m3,
    no_more=(
        "Twelve tanks are the most that a file holds: put a bigger one in place of one that is"
        " there."
    ),
    second=second_opinion,
)

WELL_WITH_BLADDER = Kind[WaterSystem, WaterFigures](
    id=WELL,
    title="Well, bladder tank",
    model=WaterSystem,
    figures=WaterFigures,
    template={"system": _SYSTEM, "settings": usual_settings(40, 60, 38)},
    unread=("system.switch.nuts", "system.pump.motor"),
    cautions=(MAINS, FIRST_FILL, STRETCH, PIT, CODES),
    rules=WELL_RULES,
    limits=LIMITS,
    results=RESULTS,
    inputs=INPUTS,
    edges=EDGES,
    bounds=bounds,
    report=_REPORT,
    chart=water_ribbon,
    visit=VisitParts(
        watch=WATCH,
        make_safe=WELL_STEPS,
        read=READ_WATER,
        checks=CHECKS,
        jobs=WELL_JOBS,
        drain=drain,
        questions=questions,
        air=air_view,
        air_check=air_check,
        trip_says=trip_says,
        noticed=noticed,
    ),
    proposing=Proposing(
        candidates=candidates,
        finer=finer,
        floor_pa=floor_pa,
        usual_psi=USUAL_PSI,
        usual_charge_pa=usual_charge_pa,
        shown=("tap", "drawdown", "run", "starts", "reserve", "lowest"),
        never_stops=never_stops,
        alike=alike,
        keeps=keeps,
        charge=charge_why,
        aired=aired,
    ),
    remedies=catalogue,
    sizing=_SIZING,
    simulating=Simulating(
        store=lambda figures: figures.store,
        most_draw_m3_s=lambda figures: (
            max(figures.line.flows_m3_s[0], figures.peak_draw_m3_s or 0.0) * 1.2
        ),
        worst_draw_m3_s=lambda figures: figures.worst_draw_m3_s,
        steady=", no dip",
        dip=_dip,
    ),
    diagnosis=Diagnosis(
        tests=("bucket", "drain", "leak"),
        run_s=lambda figures: figures.run_s,
        wanted_run_s=lambda figures: figures.wanted_run_s,
        measured=measured,
    ),
    troubles=BLADDER_TROUBLES,
    history=History(
        band_pa=_band_pa,
        years=lambda figures, loss: figures.check_way.years(loss),
        by=lambda figures: figures.check_way.title,
        usual_loss_pa=_USUAL_LOSS_PA,
    ),
    label=Label(pre_charge=True),
    ways=pre_charge_ways,
    matters=matters,
    settings_faults=_settings_faults,
    with_found=with_found,
)

PLAIN_TANK_WELL = replace(
    WELL_WITH_BLADDER,
    id=PLAIN_WELL,
    title="Well, plain tank",
    template={"system": _SYSTEM, "settings": usual_settings(30, 50, 0)},
    cautions=(MAINS, FIRST_FILL, PIT, CODES),
    rules=PLAIN_WELL_RULES,
    visit=replace(
        WELL_WITH_BLADDER.visit,
        make_safe=WELL_STEPS,
        checks=PLAIN_CHECKS,
        jobs=PLAIN_JOBS,
        air=lambda figures, log, units: None,
    ),
    troubles=PLAIN_TROUBLES,
    history=replace(WELL_WITH_BLADDER.history, band_pa=lambda figures: None),
)
CISTERN_SUPPLY = replace(
    WELL_WITH_BLADDER,
    id=CISTERN,
    title="Cistern or rainwater",
    template={"system": _SYSTEM, "settings": usual_settings(30, 50, 28)},
    cautions=(MAINS, FIRST_FILL, STRETCH, CODES),
    rules=CISTERN_RULES,
    visit=replace(
        WELL_WITH_BLADDER.visit,
        make_safe=WATER_STEPS,
        jobs=CISTERN_JOBS,
        parts=CISTERN_PARTS,
    ),
    label=Label(pre_charge=True, warning=_undrinkable),
)
BOOSTED_SUPPLY = replace(
    WELL_WITH_BLADDER,
    id=BOOSTED,
    title="Boosted supply",
    cautions=(MAINS, FIRST_FILL, STRETCH, CODES),
    rules=BOOSTED_RULES,
    troubles=BOOSTED_TROUBLES,
    visit=replace(
        WELL_WITH_BLADDER.visit,
        make_safe=BOOSTED_STEPS,
        jobs=BOOSTED_JOBS,
        parts=BOOSTED_PARTS,
    ),
)
