"""What each way of setting would set on one system, as plain figures: shown in Decide, and weighed
side by side."""

from dataclasses import dataclass, field
from typing import Any

from zerodip.kinds.settings import Settings

__all__ = ["BudgetItem", "Matter", "WayToTry", "WayView"]


@dataclass(frozen=True, kw_only=True)
class BudgetItem:
    """One item of a computed sum, Pa; None where it cannot be told."""

    title: str
    pressure_pa: float | None
    counted: bool


@dataclass(frozen=True, kw_only=True)
class WayView:
    """What one way of pre-charging would set here, Pa gauge; its budget where it is a sum."""

    id: str
    title: str
    reason: str
    source: str
    target_gauge_pa: float | None
    chosen: bool
    budget: tuple[BudgetItem, ...]


@dataclass(frozen=True, kw_only=True)
class WayToTry:
    """One way to try on a system: the settings it would leave, what of the practice is otherwise
    then (field and value), what to say of its cost, and a first figure of its own (id, title,
    text)."""

    id: str
    title: str
    reason: str
    settings: Settings
    practice: dict[str, Any] = field(default_factory=dict)
    cost: str = ""
    first: tuple[str, str, str] | None = None


@dataclass(frozen=True, kw_only=True)
class Matter:
    """One matter on which practitioners differ: the field of the practice that chooses, the way
    chosen, and every way."""

    id: str
    title: str
    field: str
    chosen: str
    ways: tuple[WayToTry, ...]
