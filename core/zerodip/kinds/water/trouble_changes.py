"""What a fault changes in a water plant: its size into the plant's figures."""

from dataclasses import replace

from zerodip.diagnosis.parts import Size
from zerodip.kinds.trouble_causes import cut_out_over, lost
from zerodip.kinds.water.trouble_plant import WaterPlant as W
from zerodip.units import PSI

__all__ = [
    "HOLDS_HIGH",
    "HOLDS_LOW",
    "broken",
    "charge",
    "late",
    "low_well",
    "near_dead_head",
    "over",
    "over_dead_head",
    "run_away",
    "worn",
]


HOLDS_LOW, HOLDS_HIGH = -100.0, -1.0  # no sizes of one scale: far apart
_OVER_CUT_OUT = 1.5  # the usual dead-head, of cut-out (judgement, no source)
_ASTRAY_PA = 20 * PSI  # further than this no switch goes astray


def run_away(values: tuple[float, ...], name: str) -> Size[W]:
    """Water that runs away.

    Args:
        values: Shares of what the pump delivers, rising.
        name: The plant's figure that it stands in.

    Returns:
        The size.
    """
    return lost(values, "about {} of what the pump delivers runs away", name, "plate_flow_m3_s")


def charge(values: tuple[float, ...]) -> Size[W]:
    """Too little air.

    Args:
        values: Shares of the pre-charge that should be there, rising.

    Returns:
        The size.
    """

    def change(plant: W, value: float) -> W:
        return replace(plant, charge_pa=plant.target_pa * value)

    return Size(values=values, dimension="share", says="about {} of its air left", change=change)


def over(values_psi: tuple[float, ...]) -> Size[W]:
    """Too much air.

    Args:
        values_psi: How far the pre-charge stands above cut-in, psi, rising.

    Returns:
        The size.
    """

    def change(plant: W, value: float) -> W:
        low = plant.points[0] - plant.figures.tank_head_pa
        return replace(plant, charge_pa=low + value)

    values = tuple(psi * PSI for psi in values_psi)
    return Size(
        values=values,
        dimension="pressure",
        says="about {} above cut-in",
        change=change,
        says_below="about {} below cut-in",
    )


def _lower(plant: W, head: float) -> W:
    """A share of the dead-head; where nobody read it, of one that stands as usual over cut-out."""
    if plant.figures.dead_head_pa is None:
        return replace(plant, head=head, reaches=min(plant.reaches, _OVER_CUT_OUT * head))
    return replace(plant, head=head)


def worn(plant: W, value: float) -> W:
    """A pump that delivers a share of its plate and comes less high.

    Args:
        plant: The plant without it.
        value: The share, 0 to 1.

    Returns:
        The plant with it.
    """
    head = 0.55 + 0.45 * value
    return replace(_lower(plant, head), flow=value, current=0.7 + 0.25 * value)


def broken(plant: W, value: float) -> W:
    """A pipe that lets only a share of the flow come up.

    Args:
        plant: The plant without it.
        value: The share, 0 to 1.

    Returns:
        The plant with it.
    """

    return replace(_lower(plant, 0.5), flow=value, current=0.8)


def low_well(plant: W, value: float) -> W:
    """A well that gives only a share of the pump's flow, and whose water stands lower.

    Args:
        plant: The plant without it.
        value: The share, 0 to 1.

    Returns:
        The plant with it.
    """

    return replace(_lower(plant, 0.75 + 0.25 * value), flow=value, current=0.6 + 0.3 * value)


def over_dead_head(plant: W, value: float) -> W:
    """Cut-out set where the pump does not come to: above its dead-head by the plate, if known.

    Args:
        plant: The plant without it.
        value: The share of cut-out that the pump comes to.

    Returns:
        The plant with it.
    """
    top = plant.figures.dead_head_pa
    if top is None:
        return replace(plant, reaches=value)
    made: W = cut_out_over(plant, top * (2 - value))
    return made


def near_dead_head(plant: W) -> bool:
    """Whether cut-out may stand over dead-head without the switch having gone far astray.

    Args:
        plant: The plant without it.

    Returns:
        True also where no dead-head is known.
    """

    top = plant.figures.dead_head_pa
    return top is None or top - plant.wanted[1] < _ASTRAY_PA


def late(plant: W, value: float) -> W:
    """A nipple that lets pressure through late; closed up it holds whichever stood there.

    Args:
        plant: The plant without it.
        value: Seconds, or HOLDS_LOW or HOLDS_HIGH where it is closed up.

    Returns:
        The plant with it.
    """
    if value == HOLDS_HIGH:
        return replace(plant, starts=False)
    return replace(plant, stops=False) if value == HOLDS_LOW else replace(plant, lag_s=value)
