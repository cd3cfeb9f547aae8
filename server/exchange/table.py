"""What a table for a spreadsheet is."""

from dataclasses import dataclass
from typing import Any

__all__ = ["ID", "Row", "Table"]

Row = dict[str, Any]
ID = ("id", "string", "Id (UUID)")


@dataclass(frozen=True)
class Table:
    """A table: its name, what it holds, its columns (name, type, title), and the table that each
    foreign key leads to."""

    name: str
    title: str
    columns: tuple[tuple[str, str, str], ...]
    leads: tuple[tuple[str, str], ...] = ()
