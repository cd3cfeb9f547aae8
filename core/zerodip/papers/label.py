"""What stands on the label beside the switch."""

from dataclasses import dataclass

from ..facts import Facts, ReceiverFacts, WaterFacts
from ..units import text

__all__ = ["NON_POTABLE", "Label", "label_of"]

NON_POTABLE = "Non-potable water. Do not drink."


@dataclass(frozen=True, kw_only=True)
class Label:
    """The figures of the label, in words. `pre_charge` is "" for what has no bladder; `warning` is for tank and taps, "" where
    none is needed. Source of the warning: IPC 608 and UPC 601 (from memory)."""

    cut_in: str
    cut_out: str
    pre_charge: str
    warning: str


def label_of(facts: Facts, units: str) -> Label:
    """The label of a system as it stands. Tells a pre-charge with the tank drained, power off."""
    charge = None if isinstance(facts, ReceiverFacts) else facts.settings.pre_charge_gauge_pa
    return Label(
        cut_in=text(facts.cut_in_pa, "pressure", units),
        cut_out=text(facts.cut_out_pa, "pressure", units),
        pre_charge="" if not charge else text(charge, "pressure", units),
        warning=NON_POTABLE if _undrinkable(facts) else "",
    )


def _undrinkable(facts: Facts) -> bool:
    """Untreated, or not known to be treated."""
    return isinstance(facts, WaterFacts) and facts.kind == "cistern" and not facts.treated
