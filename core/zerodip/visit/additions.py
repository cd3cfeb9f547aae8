"""What a new record does to a visit: whether it would write over what its maker has not seen, and
what follows from it."""

from typing import Any

from zerodip.errors import Fault, InvalidInput
from zerodip.fileformat.document import Document, plain
from zerodip.switch.learned import Learned, learned_of
from zerodip.trends.history import YEAR_S, Past
from zerodip.visit.found import FILE_FIELDS
from zerodip.visit.log import Log, Record
from zerodip.visit.slots import (
    AIR_GAUGE_LOW,
    AIR_LEFT,
    FOUND_PRE_CHARGE,
    GAUGE_LOW,
    SWITCH_REPLACED,
    TRY,
)
from zerodip.visit.steps.switch_state import belief_of
from zerodip.visit.validation import known_slots

__all__ = ["CHANGES_FOUND", "TEACHES", "learned_after", "left_by_slot", "remembered", "unseen_by"]

_LEAST_YEARS = 0.02  # a week: nothing of a loss can be told sooner
# What changes what was found, as the system's file holds it: the readings themselves, and what
# their gauges are off by.
CHANGES_FOUND = frozenset({*FILE_FIELDS, GAUGE_LOW.name, AIR_GAUGE_LOW.name})
TEACHES = frozenset({TRY.name, SWITCH_REPLACED.name})


def unseen_by(log: Log, name: str, value: Any, supersedes: str | None) -> Record | None:
    """The record that whoever adds one has not seen and would write over. A slot with one value is
    changed only by who has seen what stands there; an entry of a series is corrected only by who
    has seen how it stands; turns of the nuts are recorded only by who has seen the look before.
    What a person confirms (and where the visit stands) is the last word of whoever said it.

    Args:
        log: The visit's log.
        name: Name of the slot.
        value: What is to be recorded.
        supersedes: The entry that it corrects, if any.

    Returns:
        The record in the way; None where there is none.

    Raises:
        InvalidInput: Where the entry to correct is none of this visit.
    """
    slot = known_slots()[name]
    if slot.last_word:
        return None
    if slot.series:
        return _unseen_in_series(log, name, value, supersedes)
    current = log.values.get(name)
    if current is None or current.value == value or supersedes == current.id:
        return None
    return current


def _unseen_in_series(log: Log, name: str, value: Any, supersedes: str | None) -> Record | None:
    kept = log.series.get(name, ())
    if supersedes is not None:
        standing = log.standing(supersedes)
        if standing is None:
            says = "is no entry of this visit that could be corrected."
            raise InvalidInput(
                [
                    Fault(
                        path="supersedes", code="not_known", title="The entry to correct", says=says
                    )
                ]
            )
        return None if standing.id == supersedes else standing
    after = value.get("after") if isinstance(value, dict) else None
    return kept[-1] if after is not None and after < len(kept) else None


def learned_after(document: Document, log: Log, before: Learned) -> list[dict[str, Any]]:
    """What the tries of a visit teach of the nuts, for the next one; nothing where the switch was
    only watched.

    Args:
        document: The system's file.
        log: The visit's log.
        before: What the visits before learned.

    Returns:
        The slopes as plain values.
    """
    turned = any(each.turned for each in log.all(TRY))
    belief = belief_of(document.figures(), log, before) if turned else None
    return [] if belief is None else [plain(slope) for slope in learned_of(belief)]


def left_by_slot(log: Log) -> dict[str, Any]:
    """What a visit left, as the next one is shown it: the values in force by slot, the air as it
    was left in place of the air as it was found.

    Args:
        log: The visit's log.

    Returns:
        Values by name of their slot.
    """
    values = {slot: record.value for slot, record in log.values.items()}
    left = log.value(AIR_LEFT)
    return values if left is None else {**values, FOUND_PRE_CHARGE.name: left}


def remembered(last: Past, opened_s: float) -> dict[str, float | None]:
    """What a visit that is opened finds in the system's file: what the last one left and how long
    ago; what was found then is not found now.

    Args:
        last: The last closed visit.
        opened_s: When this one is opened, s since 1970.

    Returns:
        Figures by field of the file; Pa gauge, years.
    """
    values: dict[str, float | None] = dict.fromkeys(FILE_FIELDS.values())
    charge, years = last.summary.left.pre_charge_gauge_pa, (opened_s - last.at_s) / YEAR_S
    if charge is not None and years >= _LEAST_YEARS:
        values |= {"last_pre_charge_gauge_pa": charge, "last_years_ago": years}
    return values
