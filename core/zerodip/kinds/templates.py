"""Settings to begin with, for the templates of the kinds. Values are common practice, no source."""

from typing import Any

from zerodip.units import PSI

__all__ = ["usual_settings"]


def usual_settings(cut_in_psi: float, cut_out_psi: float, air_psi: float | None) -> dict[str, Any]:
    """Settings as plain values of a file, from psi.

    Args:
        cut_in_psi: Cut-in, psi.
        cut_out_psi: Cut-out, psi, above cut-in.
        air_psi: Pre-charge, psi; None where there is none.

    Returns:
        Values by field, Pa gauge.
    """
    charge = None if air_psi is None else air_psi * PSI
    return {
        "cut_in_gauge_pa": cut_in_psi * PSI,
        "cut_out_gauge_pa": cut_out_psi * PSI,
        "pre_charge_gauge_pa": charge,
    }
