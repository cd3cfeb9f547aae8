"""What was found on a visit, put into the file of a water system."""

from collections.abc import Mapping
from dataclasses import replace

from zerodip.fileformat.fields import check, specs
from zerodip.kinds.water.model import Found, WaterSystem

__all__ = ["with_found"]

_POINTS = ("cut_in_gauge_pa", "cut_out_gauge_pa")


def with_found(system: WaterSystem, values: Mapping[str, float | None]) -> WaterSystem:
    """The system with figures found (by field of `Found`, Pa gauge and years). Readings that belong
    together are replaced together: with a point found anew, the water that was caught between the
    old ones goes; of two points that make no band neither stands. What the file cannot hold is left
    open: a gauge may show what no system can be set to.

    Args:
        system: Everything read off the system.
        values: Figures found, by field; Pa gauge, years.

    Returns:
        The same with what was found.
    """
    kept = {name: value if _fits(name, value) else None for name, value in values.items()}
    found = {**{name: getattr(system.found, name) for name in specs(Found)}, **kept}
    if any(name in kept and kept[name] != getattr(system.found, name) for name in _POINTS):
        found["caught_m3"] = None
    low, high = (found[name] for name in _POINTS)
    if low is not None and high is not None and high <= low:
        found = {**found, **dict.fromkeys(_POINTS), "caught_m3": None}
    if low is None or high is None:
        found["caught_m3"] = None
    return replace(system, found=Found(**found))


def _fits(name: str, value: float | None) -> bool:
    return not check(specs(Found)[name], value, name)
