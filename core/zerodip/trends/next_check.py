"""When a system is to be visited again, what is drifting, and what its last visit left: what Rounds
shows of the past."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from zerodip.kinds.figures import Figures
from zerodip.trends.history import Past, drifting, trends
from zerodip.units import SYSTEMS
from zerodip.visit.log import Log
from zerodip.visit.steps.prove import prove_view
from zerodip.visit.steps.remaining import seen
from zerodip.visit.steps.set_switch import set_view

__all__ = ["NextCheck", "next_check"]

_FAR_S = 7_258_118_400.0  # the year 2200: a loss of almost nothing leaves the band far beyond it


@dataclass(frozen=True, kw_only=True)
class NextCheck:
    """When the last visit was, when the next is due and when the pre-charge leaves its band (s
    since 1970); what is drifting and what was left (`verdict`, `title`), by unit system."""

    last_s: float
    due_s: float | None
    leaves_s: float | None
    drifting: Mapping[str, list[str]]
    seen: Mapping[str, list[dict[str, str]]]


def next_check(figures: Figures, past: Sequence[Past], last: Log) -> NextCheck:
    """What the closed visits say of a system.

    Args:
        figures: The system's figures under its settings.
        past: The closed visits, oldest first; at least one.
        last: The log of the last of them.

    Returns:
        When to come again, and why.
    """
    says = trends(figures, past)
    return NextCheck(
        last_s=past[-1].at_s,
        due_s=_near(says.due_s),
        leaves_s=_near(says.leaves.likely_s if says.leaves else None),
        drifting={units: list(drifting(figures, says.series, units)) for units in SYSTEMS},
        seen=_seen(figures, last),
    )


def _seen(figures: Figures, log: Log) -> dict[str, list[dict[str, str]]]:
    """What the last visit left, by unit system, but the limits: those go by the settings as they
    are today. Only words depend on the units, so setting and proof are worked out once."""
    setting, proof = set_view(figures, log, "us"), prove_view(figures, log, "us")
    return {
        units: [
            {"verdict": each.verdict, "title": each.title}
            for each in seen(figures, log, setting, proof, units)
        ]
        for units in SYSTEMS
    }


def _near(at_s: float | None) -> float | None:
    """A time that a calendar can hold."""
    return None if at_s is None or at_s > _FAR_S else at_s
