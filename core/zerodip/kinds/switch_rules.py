"""Rules of the switch itself, for every kind that has such a switch."""

from zerodip.kinds.figures import Figures
from zerodip.rules.engine import Rule
from zerodip.rules.sources import practice
from zerodip.text.figure import OP

__all__ = ["EARTH", "SWITCH"]

EARTH: tuple[Rule[Figures], ...] = (
    Rule(
        id="earth",
        title="Switch earthed",
        fails="No earth wire at the switch",
        source=practice("and electrical codes"),
        measure=Figures.earth_present,
        sense="is",
        needs=(Figures.earth_present,),
        means=(
            "A fault would make the case and the pipes live. Tell the customer and write it down."
        ),
        settable=False,
        formula="Every switch is earthed; mains stands at its open terminals.",
    ),
)
SWITCH: tuple[Rule[Figures], ...] = (
    Rule(
        id="switch-range-low",
        title="Cut-in within the switch's range",
        fails="Cut-in below the switch's range",
        source=practice("the range under the cover"),
        measure=Figures.cut_in_pa,
        limit=Figures.switch_least_in_pa,
        sense="at_least",
        needs=(Figures.switch_least_in_pa,),
        figure=f"{Figures.cut_in_pa} {OP} {Figures.switch_least_in_pa}",
        exact=True,
        means="The range nut would come off its spring.",
        formula=(
            f"Cut-in {Figures.cut_in_pa}; the switch goes down to {Figures.switch_least_in_pa}."
        ),
    ),
    Rule(
        id="switch-range-high",
        title="Cut-out within the switch's range",
        fails="Cut-out above the switch's range",
        source=practice("the range under the cover"),
        measure=Figures.cut_out_pa,
        limit=Figures.switch_most_out_pa,
        needs=(Figures.switch_most_out_pa,),
        figure=f"{Figures.cut_out_pa} {OP} {Figures.switch_most_out_pa}",
        exact=True,
        means="The spring would be solid before cut-out.",
        formula=(
            f"Cut-out {Figures.cut_out_pa}; the switch goes up to {Figures.switch_most_out_pa}."
        ),
    ),
    Rule(
        id="differential-least",
        title="Differential not below the switch's least",
        fails="Differential below the switch's least",
        source=practice("the least differential under the cover"),
        measure=Figures.differential_pa,
        limit=Figures.least_differential_pa,
        sense="at_least",
        needs=(Figures.least_differential_pa,),
        figure=f"{Figures.differential_pa} {OP} {Figures.least_differential_pa}",
        exact=True,
        means="This switch cannot be set so close.",
        formula=(
            f"Differential {Figures.differential_pa}; the switch's least"
            f" {Figures.least_differential_pa}."
        ),
    ),
    Rule(
        id="differential-most",
        title="Differential not above the switch's greatest",
        fails="Differential above the switch's greatest",
        source=practice("the greatest differential under the cover"),
        measure=Figures.differential_pa,
        limit=Figures.most_differential_pa,
        needs=(Figures.most_differential_pa,),
        figure=f"{Figures.differential_pa} {OP} {Figures.most_differential_pa}",
        exact=True,
        means="This switch cannot be set so wide.",
        formula=(
            f"Differential {Figures.differential_pa}; the switch's greatest"
            f" {Figures.most_differential_pa}."
        ),
    ),
)
