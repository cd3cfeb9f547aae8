"""What a visit to a water system found of its tank and did not put right."""

from collections.abc import Iterator

from zerodip.kinds.visit_parts import Remaining, air_now, bladder_burst
from zerodip.kinds.water.air import air_view
from zerodip.kinds.water.figures import WaterFigures
from zerodip.rules.engine import exceeds
from zerodip.units import text
from zerodip.visit.log import Log
from zerodip.visit.slots import FOUND_PRE_CHARGE

__all__ = ["noticed"]

# Rules that advise to change the air of a tank that holds none.
_OF_AIR = (
    "bladder-acceptance",
    "pre-charge-below-cut-in",
    "pre-charge-found",
    "pre-charge-loss",
    "pre-charge-practice",
    "start-dip",
    "summer-charge",
    "supercharge",
    "tanks-alike",
)


def noticed(figures: WaterFigures, log: Log, units: str) -> Iterator[Remaining]:
    """The tank by its air.

    Args:
        figures: The system's figures under its settings.
        log: The visit's log.
        units: Unit system of the texts: "us", "metric" or "kpa".

    Yields:
        What was found and stands.

    Source: Common practice, no source.
    """
    if bladder_burst(log):
        yield Remaining(
            id="burst",
            verdict="stop",
            title="Water at the air valve",
            advice="The bladder is burst. Adding air does not help: replace the tank.",
            urgent="now",
            replaces=_OF_AIR,
            spoils=True,
        )
        return
    if air_now(log) is FOUND_PRE_CHARGE:
        yield from _lost(figures, log.true(FOUND_PRE_CHARGE), units)
    yield from _not_set(figures, log, units)


def _lost(figures: WaterFigures, found: float | None, units: str) -> Iterator[Remaining]:
    """The air that is gone, by what was found of it (Pa gauge)."""
    if found is None:
        return
    if not exceeds(found, figures.leak_found_pa):
        yield Remaining(
            id="air_lost",
            verdict="caution",
            title="The tank had lost its air",
            figure=text(found, "pressure", units),
            advice="So low is a leak: soap the air valve and the seams, and read it again soon.",
            urgent="soon",
            replaces=("pre-charge-found",),
        )
    elif figures.last_pa is not None and figures.last_years_ago:
        warm = figures.charge_at_pa(figures.site.mean_k, figures.site.now_k, found)
        loss = (figures.last_pa - (found if warm is None else warm)) / figures.last_years_ago
        if loss > figures.usual_loss_pa_per_year:
            yield Remaining(
                id="air_loss",
                verdict="caution",
                title="The tank loses more air than usual",
                figure=f"{text(loss, 'pressure', units)} in a year",
                advice="Soap the air valve and the seams; check again in half the time.",
                urgent="soon",
                replaces=("pre-charge-loss",),
            )


def _not_set(figures: WaterFigures, log: Log, units: str) -> Iterator[Remaining]:
    """The pre-charge that was left, or found and left alone."""
    air = air_view(figures, log, units)
    stands = air.found_gauge_pa if air.left_gauge_pa is None else air.left_gauge_pa
    if stands is None or air.right or abs(stands - air.target_gauge_pa) <= air.near_pa:
        return
    wanted = text(air.target_gauge_pa, "pressure", units)
    yield Remaining(
        id="air_not_set",
        verdict="caution",
        title=f"The pre-charge left is not {wanted}",
        figure=text(stands, "pressure", units),
        advice=f"Set {wanted}, tank drained and power off.",
        urgent="soon",
        replaces=("pre-charge-practice",),  # which goes by the points as left
    )
