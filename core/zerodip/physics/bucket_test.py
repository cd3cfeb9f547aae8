"""The bucket test on a bladder tank: what came out between two pressures gives its pre-charge
without a drain.

One measured drawdown fits two pre-charges: one below the lower pressure, one above it (the tank
then ran empty on the way).
"""

import math

__all__ = ["bucket_pre_charges_abs_pa"]


def bucket_pre_charges_abs_pa(
    volume_m3: float, caught_m3: float, in_abs: float, out_abs: float, exponent: float = 1.0
) -> tuple[float | None, float | None]:
    """The pre-charges (Pa abs) that give `caught_m3` from `out_abs` down to `in_abs`. Below the
    lower pressure: V·c^(1/n)·(in^(−1/n) − out^(−1/n)) = D; above it: V (1 − (c/out)^(1/n)) = D.
    None where that side has none: more was caught than the tank can give from there. Valid for 0 <
    in < out, caught > 0.

    Args:
        volume_m3: Volume, m³, above 0.
        caught_m3: Water caught, m³, above 0.
        in_abs: Lower pressure, Pa abs, above 0.
        out_abs: Upper pressure, Pa abs, above the lower.
        exponent: Gas exponent n, 1 to 1.4.

    Returns:
        The charge below the lower pressure, and that above it, Pa abs; None where there is none.

    Source: The gas law.
    """
    gap = math.pow(in_abs, -1 / exponent) - math.pow(out_abs, -1 / exponent)
    below = math.pow(caught_m3 / (volume_m3 * gap), exponent)
    room = 1 - caught_m3 / volume_m3
    above = out_abs * math.pow(room, exponent) if room > 0 else 0.0
    return (below if below <= in_abs else None), (above if in_abs < above < out_abs else None)
