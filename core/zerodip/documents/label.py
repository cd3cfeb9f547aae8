"""What stands on the label beside the switch."""

from dataclasses import dataclass

from zerodip.kinds.figures import Figures
from zerodip.kinds.registry import kind_of
from zerodip.units import text

__all__ = ["SwitchLabel", "label_of"]


@dataclass(frozen=True, kw_only=True)
class SwitchLabel:
    """The figures of the label, in words. `pre_charge` is "" for what has none; `warning` is for
    tank and taps, "" where none is needed."""

    cut_in: str
    cut_out: str
    pre_charge: str
    warning: str


def label_of(figures: Figures, units: str) -> SwitchLabel:
    """The label of a system as it stands. Tells a pre-charge with the tank drained, power off."""
    label, charge = kind_of(figures).label, figures.settings.pre_charge_gauge_pa
    return SwitchLabel(
        cut_in=text(figures.cut_in_pa, "pressure", units),
        cut_out=text(figures.cut_out_pa, "pressure", units),
        pre_charge=text(charge, "pressure", units) if label.pre_charge and charge else "",
        warning=label.warning(figures),
    )
