"""Which records a visit takes."""

from collections.abc import Mapping, Sequence
from functools import cache
from itertools import pairwise
from types import MappingProxyType
from typing import Any

from zerodip.diagnosis.parts import Item
from zerodip.errors import Fault
from zerodip.fileformat.fields import Spec, check, read
from zerodip.fileformat.ranges import MOST_GAUGE_PA
from zerodip.kinds.registry import KINDS, confirmations
from zerodip.visit.records import Saw
from zerodip.visit.slots import DRAIN, SLOTS, Slot

__all__ = ["check_record", "figure_spec", "known_slots"]

_MOST_SAMPLES = 600
_SECONDS = Spec(kind="quantity", title="Seconds", dimension="duration", least=0, most=86400)
_PRESSURE = Spec(
    kind="quantity", title="Pressure", dimension="pressure", least=0, most=MOST_GAUGE_PA
)


@cache
def known_slots() -> Mapping[str, Slot[Any]]:
    """Every slot by its name: those of all visits, and what the kinds of system have confirmed.

    Returns:
        The slots, by name.
    """
    return MappingProxyType({**SLOTS, **{slot.name: slot for slot in confirmations()}})


def check_record(name: str, value: Any) -> list[Fault]:
    """The faults of one record; none when it may be kept. A slot with one value may be emptied
    (None): what was misread and is not read again; what was confirmed, or where the visit stands,
    may not. A slot that does not exist is a fault of `slot`.

    Args:
        name: Name of the slot.
        value: The value as sent.

    Returns:
        The faults; none where it may be kept.
    """
    slot = known_slots().get(name)
    if slot is None:
        says = "is nothing that a visit records."
        return [Fault(path="slot", code="not_a_choice", title=f"“{name[:40]}”", says=says)]
    if slot is DRAIN:
        return _drain_faults(value)
    if value is None and not slot.series and not slot.last_word:
        return []
    if slot.record is not None:
        made, faults = read(slot.record, value, "value")
        return faults or (_saw_faults(made) if isinstance(made, Saw) else [])
    return check(slot.spec, value, "value") if slot.spec else []


def figure_spec(items: Sequence[Item]) -> Spec:
    """What a figure of the diagnosis may be: the widest range that any of the items allows.

    Args:
        items: One item, as kinds of system ask for it.

    Returns:
        The specification.
    """
    return Spec(
        kind="quantity",
        title=items[0].title,
        dimension=items[0].dimension,
        least=min(item.least for item in items),
        most=max(item.most for item in items),
    )


def _saw_faults(saw: Saw) -> list[Fault]:
    """What is answered must be asked of some kind, in the way and the range that it asks for."""
    items = [item for kind in KINDS.values() if (item := kind.troubles.item(saw.item))]
    if not items:
        says = "is nothing that is asked."
        return [Fault(path="value.item", code="not_a_choice", title=f"“{saw.item}”", says=says)]
    figure = items[0].is_figure
    never = saw.says == "yes" and any(item.never for item in items)
    if saw.says != "cannot" and not never and figure != (saw.says == "figure"):
        says = "must be a figure." if figure else "must be yes or no."
        title = items[0].title
        return [Fault(path="value.says", code="not_a_choice", title=title, says=says)]
    if not figure or saw.value is None:
        return []
    return check(figure_spec(items), saw.value, "value.value")


def _drain_faults(value: Any) -> list[Fault]:
    says = f"must be two to {_MOST_SAMPLES} pairs of seconds and pressure, the seconds rising."
    fault = [Fault(path="value", code="not_a_series", title="Drain", says=says)]
    if not isinstance(value, list) or not 2 <= len(value) <= _MOST_SAMPLES:
        return fault
    for pair in value:
        if not isinstance(pair, list) or len(pair) != 2:
            return fault
        if check(_SECONDS, pair[0], "") or check(_PRESSURE, pair[1], ""):
            return fault
    return [] if all(b[0] > a[0] for a, b in pairwise(value)) else fault
