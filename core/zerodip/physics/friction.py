"""Friction of water in a full pipe."""

import math

__all__ = ["friction_head_m"]


def friction_head_m(flow_m3_s: float, length_m: float, diameter_m: float, c_factor: float) -> float:
    """Head lost (m) at `flow_m3_s` ≥ 0 in a pipe of `length_m` and inside `diameter_m`, by
    Hazen–Williams: 10.67 L Q^1.852 / (C^1.852 d^4.8704). For water near 15 °C, turbulent, C 60 to
    160; it parts from Darcy–Weisbach by some 10 % outside about 0.5–3 m/s.

    Args:
        flow_m3_s: Flow, m³/s, 0 or more.
        length_m: Length, m, 0 or more.
        diameter_m: Inside diameter, m, above 0.
        c_factor: Hazen–Williams C, 60 to 160.

    Returns:
        Head lost, m, 0 or more.

    Source: Hazen–Williams formula, SI form (handbooks; common practice).
    """
    if flow_m3_s <= 0:
        return 0.0
    return 10.67 * length_m * math.pow(flow_m3_s / c_factor, 1.852) / math.pow(diameter_m, 4.8704)
