"""What a visit records, by slot. A slot that holds one value is superseded by a correction; a series keeps every entry.

Every record is checked by the same specifications as a file's fields; `log_of` puts the entries of a visit in force.
"""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, replace
from itertools import pairwise
from typing import Any

from ..errors import Fault
from ..fields import Checked, Spec, check, quantity, read, words
from ..system.fittings import GAUGE_MOST
from ..units import PSI

__all__ = [
    "AIR_GAUGE", "BY_AIR_GAUGE", "SERIES", "STEPS", "SYSTEM_GAUGE", "UNDONE_BY_POWER", "VALUES", "Bucket",
    "Drain", "Entry", "Lap", "LeakWatch", "Log", "Try", "Turned",
    "check_record", "log_of",
]  # fmt: skip

STEPS = ("safe", "read", "decide", "set", "prove", "hand_over")
# What no longer holds once power is on again: the tank fills.
UNDONE_BY_POWER = ("power_off", "proved_dead", "drained", "bled")
SYSTEM_GAUGE, AIR_GAUGE = "gauge.low", "gauge.air_low"
BY_AIR_GAUGE = ("found.pre_charge", "air.left")
_MOST_SAMPLES = 600


def _turns(title: str) -> Any:
    return quantity(title, "number", -30, 30, default=0.0)


def _after() -> Any:
    return quantity("Looks before it", "number", 0, 500, default=None)


@dataclass(frozen=True, kw_only=True)
class Turned(Checked):
    """Turns made (clockwise positive) and not yet watched, after so many looks."""

    first: float = _turns("Turns of the first nut")
    second: float = _turns("Turns of the second nut")
    after: float | None = _after()


@dataclass(frozen=True, kw_only=True)
class Try(Checked):
    """Turns made in one power-off (clockwise positive), and what the gauge then showed. No turns: only watched.
    `after` is how many looks the person had seen, so that two people do not both record the same turns."""

    after: float | None = _after()
    first: float = _turns("Turns of the first nut")
    second: float = _turns("Turns of the second nut")
    cut_in_gauge_pa: float = quantity("Cut-in seen", "pressure", 0, GAUGE_MOST)
    cut_out_gauge_pa: float = quantity("Cut-out seen", "pressure", 0, GAUGE_MOST)

    @classmethod
    def cross(cls, values: Mapping[str, Any]) -> Iterable[Fault]:
        low, high = values.get("cut_in_gauge_pa"), values.get("cut_out_gauge_pa")
        if low is not None and high is not None and low >= high:
            yield Fault(path="cut_in_gauge_pa", code="order", title="Cut-in seen", says="must lie below cut-out seen.")


@dataclass(frozen=True, kw_only=True)
class Lap(Checked):
    """One run from click to click with all taps shut, and the rest before it where that was timed too."""

    run_s: float = quantity("Pump run", "duration", 0.2, 36000)
    rest_s: float | None = quantity("Rest before it", "duration", 0.2, 360000, default=None)


@dataclass(frozen=True, kw_only=True)
class Bucket(Checked):
    """Water caught, power off, while the gauge fell from one pressure to another."""

    from_gauge_pa: float = quantity("From", "pressure", 1 * PSI, GAUGE_MOST)
    to_gauge_pa: float = quantity("Down to", "pressure", 0, GAUGE_MOST)
    caught_m3: float = quantity("Water caught", "volume", 1e-5, 20)

    @classmethod
    def cross(cls, values: Mapping[str, Any]) -> Iterable[Fault]:
        high, low = values.get("from_gauge_pa"), values.get("to_gauge_pa")
        if low is not None and high is not None and low >= high:
            yield Fault(path="to_gauge_pa", code="order", title="Down to", says="must lie below the first pressure.")


@dataclass(frozen=True, kw_only=True)
class LeakWatch(Checked):
    """The gauge now and later, nothing open, pump off."""

    first_gauge_pa: float = quantity("Pressure first", "pressure", 1 * PSI, GAUGE_MOST)
    later_gauge_pa: float = quantity("Pressure later", "pressure", 0, GAUGE_MOST)
    seconds: float = quantity("Time between", "duration", 5, 86400)

    @classmethod
    def cross(cls, values: Mapping[str, Any]) -> Iterable[Fault]:
        first, later = values.get("first_gauge_pa"), values.get("later_gauge_pa")
        if first is not None and later is not None and later > first:
            yield Fault(
                path="later_gauge_pa", code="order", title="Pressure later", says="must not lie above the first."
            )


@dataclass(frozen=True)
class Drain:
    """A drain, pump off: times (s, rising) and gauge pressures (Pa)."""

    times_s: tuple[float, ...]
    gauges_pa: tuple[float, ...]


@dataclass(frozen=True, kw_only=True)
class Note(Checked):
    """A remark in the technician's own words."""

    text: str = words("Remark", 500)


def _pressure(title: str) -> Spec:
    return Spec(kind="quantity", title=title, dimension="pressure", least=0.0, most=GAUGE_MOST)


def _flag(title: str) -> Spec:
    return Spec(kind="flag", title=title)


def _quantity(title: str, dimension: str, least: float, most: float) -> Spec:
    return Spec(kind="quantity", title=title, dimension=dimension, least=least, most=most)


# slot: (step, specification). One value each.
VALUES: dict[str, tuple[str, Spec]] = {
    "gauge.used": ("read", Spec(kind="words", title="Gauge used", most=40)),
    "gauge.error": ("read", _quantity("Gauge reads to within", "pressure", 0.05 * PSI, 35e3)),
    "gauge.low": ("read", _quantity("Gauge reads low by", "pressure", -70e3, 70e3)),
    "gauge.air_low": ("read", _quantity("Air gauge reads low by", "pressure", -70e3, 70e3)),
    "found.gauge": ("read", _pressure("Gauge now")),
    "found.pre_charge": ("read", _pressure("Pre-charge found, tank drained")),
    "found.cut_in": ("read", _pressure("Cut-in as found")),
    "found.cut_out": ("read", _pressure("Cut-out as found")),
    "found.rating": ("read", Spec(kind="words", title="Rating under the cover", most=40)),
    "found.corrosion": ("read", _flag("Corrosion")),
    "found.leaks": ("read", _flag("Leaks seen")),
    "found.water_at_valve": ("read", _flag("Water at the air valve")),
    "decided": ("decide", _flag("Settings decided on")),
    "air.inflator": ("set", _quantity("Inflator delivers", "air_flow", 1e-6, 0.05)),
    "air.left": ("set", _pressure("Pre-charge left")),
    "air.cap": ("set", _flag("Valve cap back on")),
    "signed": ("hand_over", Spec(kind="words", title="Signed by", most=60)),
    "prove.dip": ("prove", _flag("Dip seen at the taps")),
}
_RECORDS: dict[str, type[Checked]] = {"set.turned": Turned}
SERIES: dict[str, tuple[str, type[Checked] | None]] = {
    "try": ("set", Try),
    "lap": ("prove", Lap),
    "bucket": ("prove", Bucket),
    "leak": ("prove", LeakWatch),
    "drain": ("prove", None),
    "note": ("hand_over", Note),
}
_SAFE = Spec(kind="flag", title="Confirmed")
_PLACE = Spec(kind="choice", title="Step", options=STEPS)


def check_record(slot: str, value: Any) -> list[Fault]:
    """The faults of one record; none when it may be kept. A slot with one value may be emptied (None): what was misread and is
    not read again. A slot that does not exist is a fault of `slot`."""
    if slot.startswith("safe.") and 5 < len(slot) <= 40:
        return check(_SAFE, value, "value")
    if slot == "place":
        return check(_PLACE, value, "value")
    if slot in VALUES:
        return [] if value is None else check(VALUES[slot][1], value, "value")
    if slot in _RECORDS:
        return [] if value is None else read(_RECORDS[slot], value, "value")[1]
    if slot == "drain":
        return _drain_faults(value)
    if slot in SERIES:
        cls = SERIES[slot][1]
        return [] if cls is None else read(cls, value, "value")[1]
    return [Fault(path="slot", code="not_a_choice", title=f"“{slot[:40]}”", says="is nothing that a visit records.")]


def _drain_faults(value: Any) -> list[Fault]:
    says = f"must be two to {_MOST_SAMPLES} pairs of seconds and pressure, the seconds rising."
    fault = [Fault(path="value", code="not_a_series", title="Drain", says=says)]
    if not isinstance(value, list) or not 2 <= len(value) <= _MOST_SAMPLES:
        return fault
    seconds = Spec(kind="quantity", title="Seconds", dimension="duration", least=0, most=86400)
    for pair in value:
        if not isinstance(pair, list) or len(pair) != 2:
            return fault
        if check(seconds, pair[0], "") or check(_pressure("Pressure"), pair[1], ""):
            return fault
    return [] if all(b[0] > a[0] for a, b in pairwise(value)) else fault


@dataclass(frozen=True)
class Entry:
    """One record as it was made. `supersedes` names the entry that it corrects; `at` orders them. In force, it stands for
    those that it and its like corrected."""

    id: str
    slot: str
    value: Any
    supersedes: str | None = None
    at: str = ""
    by: str = ""
    stands_for: tuple[str, ...] = ()


@dataclass(frozen=True)
class Log:
    """A visit's entries in force: the last of each slot with one value, and of each series those not superseded."""

    values: Mapping[str, Entry]
    series: Mapping[str, tuple[Entry, ...]]

    def value(self, slot: str) -> Any:
        """The value in force, or None."""
        entry = self.values.get(slot)
        return None if entry is None else entry.value

    def standing(self, entry: str) -> Entry | None:
        """What stands of a series where `entry` stood: itself, or what corrected it; None if it never stood."""
        return next(
            (each for kept in self.series.values() for each in kept if entry in (each.id, *each.stands_for)), None
        )

    def true(self, slot: str) -> float | None:
        """A pressure as found, freed of what its gauge is known to read low by, Pa gauge."""
        shown = self.value(slot)
        return (
            None if shown is None else float(shown) + self.low_by(AIR_GAUGE if slot in BY_AIR_GAUGE else SYSTEM_GAUGE)
        )

    def low_by(self, gauge: str) -> float:
        """What a gauge (SYSTEM_GAUGE, AIR_GAUGE) is known to read low by, Pa; nothing where that is not known."""
        return float(self.value(gauge) or 0.0)

    def turned(self) -> Turned | None:
        """Turns made since the last look, if any."""
        value = self.value("set.turned")
        made = None if value is None else read(Turned, value)[0]
        return made if made is not None and made.after == len(self.series.get("try", ())) else None

    def confirmed(self, step: str) -> bool:
        """Whether a step of making safe holds: confirmed, and not undone since by powering up."""
        entry, up = self.values.get(f"safe.{step}"), self.values.get("safe.power_up")
        if entry is None or not entry.value:
            return False
        undone = step in UNDONE_BY_POWER and up is not None and bool(up.value)
        return not (undone and up is not None and up.at >= entry.at)

    def records(self, slot: str) -> tuple[Any, ...]:
        """A series as checked objects, oldest first."""
        return tuple(_built(slot, entry.value) for entry in self.series.get(slot, ()))


def _built(slot: str, value: Any) -> Any:
    if slot == "drain":
        return Drain(tuple(float(t) for t, _ in value), tuple(float(p) for _, p in value))
    cls = SERIES[slot][1]
    return read(cls, value)[0] if cls else value


def log_of(entries: Iterable[Entry]) -> Log:
    """Entries, oldest first, put in force. A correction stands where the entry stood that it corrects."""
    values: dict[str, Entry] = {}
    series: dict[str, list[Entry]] = {}
    for entry in entries:
        if entry.slot not in SERIES:
            values[entry.slot] = entry
            continue
        kept = series.setdefault(entry.slot, [])
        at = next((k for k, old in enumerate(kept) if old.id == entry.supersedes), None)
        if at is None:
            kept.append(entry)
        else:
            kept[at] = replace(entry, stands_for=(*kept[at].stands_for, kept[at].id))
    return Log(values, {slot: tuple(kept) for slot, kept in series.items()})
