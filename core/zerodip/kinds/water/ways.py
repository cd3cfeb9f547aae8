"""What each way of setting would set on one water system: figures for Decide, and ways to weigh
side by side."""

from dataclasses import replace

from zerodip.kinds.water.figures import WaterFigures
from zerodip.practice.matters import BudgetItem, Matter, WayToTry, WayView
from zerodip.practice.ways import CHECK_WAYS, DIFFERENTIAL_WAYS, PRE_CHARGE_WAYS, RUN_TIME_WAYS
from zerodip.text.writer import Writer

__all__ = ["matters", "pre_charge_ways"]


def pre_charge_ways(figures: WaterFigures, write: Writer) -> tuple[WayView, ...]:
    """Every way of pre-charging a bladder tank; none on a plain one.

    Args:
        figures: The system's figures under its settings.
        write: Writes figures in the units asked for.

    Returns:
        The ways, in order.
    """
    if figures.system.plain:
        return ()
    return tuple(
        WayView(
            id=way.id,
            title=way.title(write.system),
            reason=way.reason,
            source=way.source.line,
            target_gauge_pa=figures.way_target_pa(way),
            chosen=way.id == figures.pre_charge_way.id,
            budget=_budget(figures) if way.id == "computed" else (),
        )
        for way in PRE_CHARGE_WAYS
    )


def _budget(figures: WaterFigures) -> tuple[BudgetItem, ...]:
    sums = figures.budget
    return (
        BudgetItem(title="start dip", pressure_pa=sums.dip_pa, counted=True),
        BudgetItem(title="gauge error", pressure_pa=sums.gauge_pa, counted=True),
        BudgetItem(title="warming after setting", pressure_pa=sums.warming_pa, counted=True),
        BudgetItem(title="air lost until the next check", pressure_pa=sums.lost_pa, counted=False),
    )


def matters(figures: WaterFigures, write: Writer) -> tuple[Matter, ...]:
    """Every matter of practice with its ways, as settings to try.

    Args:
        figures: The system's figures under its settings.
        write: Writes figures in the units asked for.

    Returns:
        The matters, in order.
    """
    always = (_differential(figures, write), _run_time(figures))
    if figures.system.plain:
        return always
    return (_pre_charge(figures, write), *always, _check(figures))


def _pre_charge(figures: WaterFigures, write: Writer) -> Matter:
    ways = []
    for way in PRE_CHARGE_WAYS:
        target, now = figures.way_target_pa(way), figures.settings
        ways.append(
            WayToTry(
                id=way.id,
                title=way.title(write.system),
                reason=way.reason,
                settings=now if target is None else replace(now, pre_charge_gauge_pa=target),
                practice={"pre_charge_school": way.id},
                cost="Cannot tell without the peak draw: shown as set." if target is None else "",
            )
        )
    return Matter(
        id="pre_charge",
        title="Pre-charge below cut-in",
        field="pre_charge_school",
        chosen=figures.pre_charge_way.id,
        ways=tuple(ways),
    )


def _differential(figures: WaterFigures, write: Writer) -> Matter:
    now = figures.settings
    return Matter(
        id="differential",
        title="Differential",
        field="differential_school",
        chosen=figures.practice.differential_school,
        ways=tuple(
            WayToTry(
                id=way.id,
                title=way.title(write.system),
                reason=way.reason,
                settings=replace(
                    now,
                    cut_out_gauge_pa=now.cut_in_gauge_pa
                    + way.offers_pa(figures.differential_pa)[-1],
                ),
                practice={"differential_school": way.id},
            )
            for way in DIFFERENTIAL_WAYS
        ),
    )


def _run_time(figures: WaterFigures) -> Matter:
    return Matter(
        id="run_time",
        title="Shortest run",
        field="run_time_school",
        chosen=figures.practice.run_time_school,
        ways=tuple(
            WayToTry(
                id=way.id,
                title=way.title,
                reason=way.reason,
                settings=figures.settings,
                practice={"run_time_school": way.id},
            )
            for way in RUN_TIME_WAYS
        ),
    )


def _check(figures: WaterFigures) -> Matter:
    """Check intervals: what is left of the pre-charge at the end of each."""
    ways = []
    for way in CHECK_WAYS:
        years = way.years(figures.lost_pa_per_year)
        left = max(figures.pre_charge_pa - years * figures.practice.loss_per_year_pa, 0.0)
        ways.append(
            WayToTry(
                id=way.id,
                title=way.title,
                reason=f"Next check in {years:.2g} years.",
                settings=replace(figures.settings, pre_charge_gauge_pa=left),
                practice={"check_school": way.id},
                first=("years", "Next check in", f"{years:.2g} y"),
            )
        )
    return Matter(
        id="check",
        title="Check interval: what is left at its end",
        field="check_school",
        chosen=figures.practice.check_school,
        ways=tuple(ways),
    )
