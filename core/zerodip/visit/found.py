"""What was found on a visit, put into the system's file, so that Decide goes by it."""

from collections.abc import Mapping
from dataclasses import replace

from zerodip.fileformat.document import Document, plain, value_at
from zerodip.kinds.registry import kind_of
from zerodip.visit.log import Log
from zerodip.visit.slots import SLOTS

__all__ = ["FILE_FIELDS", "found_values", "with_found"]

# The readings of a visit that are also figures of the system's file, by slot.
FILE_FIELDS = {slot.name: slot.file_field for slot in SLOTS.values() if slot.file_field}


def found_values(log: Log) -> dict[str, float | None]:
    """What a visit found, by field of the file, freed of what its gauges are known to show too
    little by (Pa gauge).

    Args:
        log: The visit's log.

    Returns:
        Pa gauge, by field; None where it was not found.
    """
    return {
        field: log.true(SLOTS[name]) for name, field in FILE_FIELDS.items() if name in log.values
    }


def with_found(document: Document, values: Mapping[str, float | None]) -> Document:
    """The document with figures found, where its kind of system has such figures; what was typed of
    the old ones goes.

    Args:
        document: The system's file.
        values: Figures found, by field; Pa gauge, years.

    Returns:
        The same with what was found.
    """
    system = kind_of(document.system).with_found(document.system, values)
    if system == document.system:
        return document
    before, after = plain(document.system), plain(system)
    entered = {
        path: typed
        for path, typed in document.entered.items()
        if value_at({"system": before}, path) == value_at({"system": after}, path)
        or not path.startswith("system.")
    }
    return replace(document, system=system, entered=entered)
