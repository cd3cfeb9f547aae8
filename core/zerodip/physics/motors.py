"""How often motors bear being started, by power and by how they are cooled."""

import math
from itertools import pairwise

__all__ = ["ONE_HP_W", "starts_per_day_limit", "starts_per_hour_limit"]

ONE_HP_W = 745.69987158227
SUBMERSIBLE_PER_HOUR = 30.0
# hp: starts per hour, two-pole motors. Below 1 hp the first holds, above the last the last.
_SURFACE = (
    (1.0, 15.0),
    (1.5, 12.9),
    (2.0, 11.5),
    (3.0, 9.9),
    (5.0, 8.1),
    (7.5, 7.0),
    (10.0, 6.2),
    (15.0, 5.4),
    (20.0, 4.8),
)


def starts_per_day_limit(power_w: float) -> float:
    """Starts in a day, 1/s: about 300 up to ¾ hp, about 100 above (to 5.5 hp, single phase).

    Args:
        power_w: Motor power, W, above 0.

    Returns:
        Starts, 1/s.

    Source: Common practice for submersibles, from memory.
    """
    return (300 if power_w <= 0.755 * ONE_HP_W else 100) / 86400


def starts_per_hour_limit(power_w: float, motor: str) -> float:
    """Starts in an hour, 1/s. A surface motor by its power (W): NEMA MG 10, table of allowable
    starts for two-pole motors, from memory, straight between entries in the logarithms. A
    submersible: 30, a minute's run and a minute's rest (common practice, no source). Valid to about
    20 hp.

    Args:
        power_w: Motor power, W, above 0.
        motor: "submersible" or "surface".

    Returns:
        Starts, 1/s.

    Source: NEMA MG 10, from memory; submersibles: common practice, no source.
    """
    if motor == "submersible":
        return SUBMERSIBLE_PER_HOUR / 3600
    hp = power_w / ONE_HP_W
    if hp <= _SURFACE[0][0]:
        return _SURFACE[0][1] / 3600
    for (low, most), (high, least) in pairwise(_SURFACE):
        if hp <= high:
            share = math.log(hp / low) / math.log(high / low)
            return most * math.pow(least / most, share) / 3600
    return _SURFACE[-1][1] / 3600
