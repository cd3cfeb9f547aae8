"""What a kind of system puts into a visit: steps, checks, questions, what was measured and what
would explain it."""

from dataclasses import dataclass
from typing import Any, Literal

from zerodip.units import PSI
from zerodip.visit.log import Log
from zerodip.visit.slots import (
    FOUND_GAUGE,
    FOUND_PRE_CHARGE,
    NEW_AIR,
    TANK_REPLACED,
    UNDONE_BY_POWER,
    WATER_AT_VALVE,
    Slot,
    confirmation,
)

__all__ = [
    "AirCheck",
    "AirView",
    "CheckSpec",
    "DrainView",
    "Measured",
    "PartSpec",
    "Question",
    "Remaining",
    "StepSpec",
    "air_now",
    "air_reads_as_gauge",
    "bladder_burst",
    "question",
]

_EMPTY_PA = 3 * PSI  # a gauge that stands no higher tells nothing of water in the tank
# How near the air valve and the gauge show the same: read before the tank was said to be drained,
# and after it, when only the very same is odd.
_ALIKE_PA, _THE_SAME_PA = 2 * PSI, 0.5 * PSI


@dataclass(frozen=True)
class StepSpec:
    """One step of making safe: what to do, the caution that bites here, the step that it needs
    first ("": none), and the places where it applies (none: everywhere)."""

    id: str
    does: str
    caution: str = ""
    after: str = ""
    places: tuple[str, ...] = ()

    @property
    def slot(self) -> Slot[bool]:
        """Where it is confirmed."""
        return confirmation(self.id)

    @property
    def while_off(self) -> bool:
        """Whether it holds only until power is on again."""
        return self.id in UNDONE_BY_POWER


@dataclass(frozen=True)
class CheckSpec:
    """Something to see to before leaving, and the slot where it is confirmed, which may be that of
    an earlier step."""

    id: str
    does: str
    slot: Slot[bool]


@dataclass(frozen=True)
class PartSpec:
    """A part of the system, and what to look at there."""

    title: str
    look: str


@dataclass(frozen=True, kw_only=True)
class DrainView:
    """Water (or free air) that will come out: how much (m³), through a hose (s), in buckets; in
    words."""

    volume_m3: float
    seconds: float
    buckets: int
    says: str


@dataclass(frozen=True, kw_only=True)
class AirCheck:
    """What reading the pre-charge costs here, in words, and whether nothing speaks for it."""

    says: str
    unneeded: bool


@dataclass(frozen=True, kw_only=True)
class AirView:
    """The pre-charge: from what was found to what is to be left (Pa gauge, as this gauge shows it),
    free air (m³; negative: to let out), minutes with this inflator, what a low find means, whether
    it is right (within `near_pa`). `shut` tells why no air is to be set now: the
    bladder is burst, or the reading was not that of a drained tank; `new` that a new tank was put
    in, whose air is read before water goes in."""

    found_gauge_pa: float | None
    target_gauge_pa: float
    air_m3: float | None
    minutes: float | None
    left_gauge_pa: float | None
    near_pa: float
    right: bool
    says: str
    means: str
    shut: Literal["", "burst", "undrained"] = ""
    new: bool = False


@dataclass(frozen=True, kw_only=True)
class Remaining:
    """Something found that was not put right: how bad it is ("stop", "caution", or "cannot_tell"
    for what was not read), what was found, what is advised and how soon. `replaces` are rules that
    have nothing more to say beside it; where it `spoils`, no figure of the tank holds. `seen` tells
    that somebody saw, timed or measured it on this visit: it stands beside what is worked out."""

    id: str
    verdict: Literal["stop", "caution", "cannot_tell"]
    title: str
    figure: str = ""
    advice: str
    urgent: Literal["now", "soon", "next visit"]
    replaces: tuple[str, ...] = ()
    spoils: bool = False
    seen: bool = False


@dataclass(frozen=True, kw_only=True)
class Question:
    """Something odd among the readings, asked rather than refused; `slot` is where the answer is
    corrected; `earlier` asks whether it was seen before the condition changed."""

    slot: str
    asks: str
    earlier: bool = False


@dataclass(frozen=True, kw_only=True)
class Measured:
    """One thing measured beside what was predicted (SI; None where nothing is), in words."""

    id: str
    title: str
    measured: float | None
    predicted: float | None
    dimension: str
    agrees: bool | None
    says: str


def question(slot: Slot[Any], asks: str) -> Question:
    """A question about what stands in a slot.

    Args:
        slot: The slot.
        asks: The question, in words.

    Returns:
        The question.
    """
    return Question(slot=slot.name, asks=asks)


def _replaced_since(log: Log, slot: Slot[Any]) -> bool:
    """Whether a new tank was put in after something was read of the old one."""
    new, read = log.record(TANK_REPLACED), log.record(slot)
    return new is not None and bool(new.value) and (read is None or read.at < new.at)


def bladder_burst(log: Log) -> bool:
    """Whether water was seen at the air valve of the tank that is there now.

    Args:
        log: The visit's log.

    Returns:
        True for a burst bladder.

    Source: Common practice, no source.
    """
    return bool(log.value(WATER_AT_VALVE)) and not _replaced_since(log, WATER_AT_VALVE)


def air_now(log: Log) -> Slot[float]:
    """Where the pre-charge of the tank that is there now was read: as found, or of a new tank.

    Args:
        log: The visit's log.

    Returns:
        The slot.
    """
    return NEW_AIR if _replaced_since(log, FOUND_PRE_CHARGE) else FOUND_PRE_CHARGE


def air_reads_as_gauge(log: Log) -> bool:
    """Whether the air valve showed what the gauge did: a tank under water pressure shows the
    system's pressure there, whatever its pre-charge.

    Args:
        log: The visit's log.

    Returns:
        True where what was read is no pre-charge until that is settled.

    Source: Common practice, no source.
    """
    air, gauge = log.record(FOUND_PRE_CHARGE), log.value(FOUND_GAUGE)
    if air_now(log) is NEW_AIR:
        return False
    if air is None or air.value is None or gauge is None or gauge <= _EMPTY_PA:
        return False
    drained = log.record(confirmation("drained"))
    after = drained is not None and log.confirmed("drained") and drained.at <= air.at
    return abs(float(air.value) - gauge) <= (_THE_SAME_PA if after else _ALIKE_PA)
