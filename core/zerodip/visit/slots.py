"""The slots of a visit: everything that can be recorded, each said once with all that is particular
about it.

A slot holds one value, which a correction supersedes, or a series, in which every entry is kept.
What a person confirms on the way (`confirmation`) is declared by the kinds of system;
`zerodip.visit.validation` knows them all.
"""

from collections.abc import Mapping
from dataclasses import dataclass
from types import MappingProxyType
from typing import Any, Generic, Literal, TypeVar

from zerodip.fileformat.fields import Checked, Spec
from zerodip.fileformat.ranges import MOST_GAUGE_PA, RUN_S
from zerodip.switch.goal import HOW_NEARS, Near
from zerodip.units import PSI
from zerodip.visit.records import (
    Bucket,
    Drain,
    Lap,
    LeakWatch,
    PhotoShown,
    Remark,
    Saw,
    Try,
    Turned,
)

__all__ = [
    "AIR_CAP",
    "AIR_GAUGE_LOW",
    "AIR_LEFT",
    "BRIDGED",
    "BUCKET",
    "COMPLAINT",
    "COMPLAINTS",
    "CONFIRMED",
    "CONTACTS_BURNT",
    "CORROSION",
    "DECIDED",
    "DIP_SEEN",
    "DRAIN",
    "EARTH_MISSING",
    "FOUND_CUT_IN",
    "FOUND_CUT_OUT",
    "FOUND_GAUGE",
    "FOUND_PRE_CHARGE",
    "FOUND_RUN",
    "GAUGE_ERROR",
    "GAUGE_LOW",
    "GAUGE_STUCK",
    "GAUGE_USED",
    "HOW_NEAR",
    "INFLATOR",
    "KNEE",
    "LAP",
    "LEAK",
    "LEAKS_SEEN",
    "NEW_AIR",
    "NIPPLE_CLOGGED",
    "NO_LIMIT",
    "PHOTO",
    "PHOTOS_OF",
    "PLACE",
    "RATING",
    "RATING_LOW",
    "REMARK",
    "SAW",
    "SIGNED",
    "SLOTS",
    "STEPS",
    "SWAPPED",
    "SWITCH_REPLACED",
    "TANK_REPLACED",
    "TRY",
    "TURNED",
    "UNDONE_BY_POWER",
    "WAS",
    "WATER_AT_VALVE",
    "Slot",
    "confirmation",
]

T = TypeVar("T", covariant=True)
When = Literal["", "powered", "off", "drained"]
Step = Literal["watch", "safe", "read", "decide", "set", "prove", "hand_over"]
STEPS: tuple[Step, ...] = ("watch", "safe", "read", "decide", "set", "prove", "hand_over")
Where = Literal["", "gauge", "switch", "tank", "pump"]
# What the customer complains of, in the words of a call.
COMPLAINTS: Mapping[str, str] = MappingProxyType(
    {
        "none": "No complaint",
        "clicks": "Clicks often",
        "dip": "A breath with no water",
        "endless": "Never stops",
        "silent": "Will not start",
        "starts_alone": "Starts with all taps shut",
        "trips": "Trips off for good",
        "other": "Something else",
    }
)
# What a photo is taken of.
PhotoOf = Literal["switch", "tank", "pump", "wires", "other"]
PHOTOS_OF: Mapping[str, str] = MappingProxyType(
    {
        "switch": "Switch",
        "tank": "Tank plate",
        "pump": "Pump plate",
        "wires": "Wires",
        "other": "Something else",
    }
)
# What no longer holds once power is on again: the tank fills.
UNDONE_BY_POWER = ("power_off", "proved_dead", "drained", "gauge_at_zero", "bled")
CONFIRMED = "safe."  # how the names of confirmations begin


@dataclass(frozen=True, kw_only=True)
class Slot(Generic[T]):
    """One slot. `spec` checks a single value, `record` an object with several fields; a `series`
    keeps every entry. `late`: its readings and words may be put right after the visit was closed.
    `last_word`: whoever said it last is right, so nobody is asked about what stood there. `gauge`
    tells by which gauge it is read, `file_field` the field of the system's file (under `found`)
    that it is a reading of, `when` in what condition it is taken: powered and full, off and proved
    dead, or off and drained; `where` at which part of the system one looks."""

    name: str
    step: Step
    title: str
    spec: Spec | None = None
    record: type[Checked] | None = None
    series: bool = False
    late: bool = False
    last_word: bool = False
    gauge: Literal["", "system", "air"] = ""
    file_field: str = ""
    when: When = ""
    where: Where = ""

    @property
    def dimension(self) -> str:
        """The dimension of a single quantity."""
        return self.spec.dimension if self.spec else "number"


def _value(step: Step, name: str, spec: Spec, **rest: Any) -> Slot[Any]:
    return Slot(name=name, step=step, title=spec.title, spec=spec, **rest)


def _quantity(title: str, dimension: str, least: float, most: float) -> Spec:
    return Spec(kind="quantity", title=title, dimension=dimension, least=least, most=most)


def _pressure(title: str) -> Spec:
    return _quantity(title, "pressure", 0.0, MOST_GAUGE_PA)


def _flag(title: str) -> Spec:
    return Spec(kind="flag", title=title)


def _words(title: str, most: int) -> Spec:
    return Spec(kind="words", title=title, most=most)


def confirmation(id: str, step: Step = "safe") -> Slot[bool]:
    """The slot of something that a person confirms, by its id: the last word of whoever said it.

    Args:
        id: Its id.
        step: The step of the visit that it belongs to.

    Returns:
        The slot.
    """
    spec = Spec(kind="flag", title="Confirmed")
    return Slot(name=f"{CONFIRMED}{id}", step=step, title=spec.title, spec=spec, last_word=True)


_ERROR, _LOW = (0.05 * PSI, 35e3), (-70e3, 70e3)
_LOW_TITLE = "shows too little by"

PLACE: Slot[Step] = _value(
    "safe", "place", Spec(kind="choice", title="Step", options=STEPS), last_word=True
)
COMPLAINT: Slot[str] = _value(
    "watch", "complaint", Spec(kind="choice", title="Complaint", options=tuple(COMPLAINTS))
)
GAUGE_USED: Slot[str] = _value("watch", "gauge.used", _words("Gauge used", 40), late=True)
GAUGE_ERROR: Slot[float] = _value(
    "watch", "gauge.error", _quantity("Gauge reads to within", "pressure", *_ERROR), late=True
)
GAUGE_LOW: Slot[float] = _value(
    "watch", "gauge.low", _quantity(f"Gauge {_LOW_TITLE}", "pressure", *_LOW), late=True
)
AIR_GAUGE_LOW: Slot[float] = _value(
    "read", "gauge.air_low", _quantity(f"Air gauge {_LOW_TITLE}", "pressure", *_LOW), late=True
)


def _point(name: str, title: str, file_field: str) -> Slot[float]:
    """A set point as found, watched with power on."""
    return _value(
        "watch",
        name,
        _pressure(title),
        late=True,
        gauge="system",
        file_field=file_field,
        when="powered",
    )


FOUND_GAUGE: Slot[float] = _value(
    "watch", "found.gauge", _pressure("Gauge now"), late=True, gauge="system"
)
FOUND_CUT_IN = _point("found.cut_in", "Cut-in as found", "cut_in_gauge_pa")
FOUND_CUT_OUT = _point("found.cut_out", "Cut-out as found", "cut_out_gauge_pa")
FOUND_RUN: Slot[float] = _value(
    "watch",
    "found.run",
    _quantity("Pump run as found", "duration", *RUN_S),
    late=True,
    when="powered",
)
KNEE: Slot[float] = _value(
    "safe", "found.knee", _pressure("The gauge collapsed at"), late=True, gauge="system", when="off"
)
FOUND_PRE_CHARGE: Slot[float] = _value(
    "read",
    "found.pre_charge",
    _pressure("Pre-charge found, tank drained"),
    late=True,
    gauge="air",
    file_field="pre_charge_gauge_pa",
    when="drained",
)
RATING: Slot[str] = _value(
    "read", "found.rating", _words("Rating under the cover", 40), late=True, when="off"
)


def _found(name: str, title: str, where: Where, when: When = "off") -> Slot[bool]:
    """Something that may be wrong, looked for at a part of the system: yes or no."""
    return _value("read", f"found.{name}", _flag(title), late=True, where=where, when=when)


GAUGE_STUCK = _found("gauge_stuck", "Gauge does not fall to zero, or sticks", "gauge", "drained")
EARTH_MISSING = _found("earth_missing", "Earth wire missing", "switch")
SWAPPED = _found("swapped", "Line and load swapped", "switch")
BRIDGED = _found("bridged", "Terminals bridged", "switch")
RATING_LOW = _found("rating_low", "Rated for less than the motor draws", "switch")
CONTACTS_BURNT = _found("contacts", "Contacts burnt, dirty or full of ants", "switch")
NIPPLE_CLOGGED = _found("nipple", "Sensing nipple clogged or rusted", "switch", "drained")
CORROSION = _found("corrosion", "Corrosion", "switch", "")
WATER_AT_VALVE = _found("water_at_valve", "Water at the air valve", "tank", "")
LEAKS_SEEN = _found("leaks", "Leaks seen", "pump", "")
DECIDED: Slot[bool] = _value("decide", "decided", _flag("Settings decided on"))
INFLATOR: Slot[float] = _value(
    "set", "air.inflator", _quantity("Inflator delivers", "air_flow", 1e-6, 0.05)
)
NEW_AIR: Slot[float] = _value(
    "set", "air.new", _pressure("New tank’s pre-charge"), late=True, gauge="air"
)
AIR_LEFT: Slot[float] = _value(
    "set", "air.left", _pressure("Pre-charge left"), late=True, gauge="air"
)
AIR_CAP: Slot[bool] = _value("set", "air.cap", _flag("Valve cap back on"))
TURNED: Slot[Turned] = Slot(name="set.turned", step="set", title="Turned", record=Turned)
HOW_NEAR: Slot[Near] = _value(
    "set",
    "set.near",
    Spec(kind="choice", title="How near", options=tuple(HOW_NEARS)),
    last_word=True,
)
SWITCH_REPLACED: Slot[bool] = _value(
    "set", "set.replaced", _flag("Switch replaced"), last_word=True
)
NO_LIMIT: Slot[bool] = _value(
    "set", "set.no_limit", _flag("No limit can be read here"), last_word=True
)
TANK_REPLACED: Slot[bool] = _value(
    "set", "set.tank_replaced", _flag("Tank replaced"), last_word=True
)
TRY: Slot[Try] = Slot(name="try", step="set", title="Switch as left", record=Try, series=True)
LAP: Slot[Lap] = Slot(name="lap", step="prove", title="Pump run", record=Lap, series=True)
BUCKET: Slot[Bucket] = Slot(
    name="bucket", step="prove", title="Bucket test", record=Bucket, series=True
)
LEAK: Slot[LeakWatch] = Slot(
    name="leak", step="prove", title="Leak watch", record=LeakWatch, series=True
)
DRAIN: Slot[Drain] = Slot(name="drain", step="prove", title="Drain", series=True)
DIP_SEEN: Slot[bool] = _value("prove", "prove.dip", _flag("Dip seen at the taps"), late=True)
SIGNED: Slot[str] = _value("hand_over", "signed", _words("Signed by", 60), late=True)
SAW: Slot[Saw] = Slot(name="saw", step="watch", title="Seen or heard", record=Saw, series=True)
WAS: Slot[str] = _value("hand_over", "was", _words("It was", 30), last_word=True)
PHOTO: Slot[PhotoShown] = Slot(
    name="photo", step="hand_over", title="Photo in the report", record=PhotoShown, series=True
)
REMARK: Slot[Remark] = Slot(
    name="note", step="hand_over", title="Remark", record=Remark, series=True, late=True
)

_ALL: tuple[Slot[Any], ...] = (
    PLACE,
    COMPLAINT,
    GAUGE_USED,
    GAUGE_ERROR,
    GAUGE_LOW,
    AIR_GAUGE_LOW,
    FOUND_GAUGE,
    FOUND_CUT_IN,
    FOUND_CUT_OUT,
    FOUND_RUN,
    KNEE,
    FOUND_PRE_CHARGE,
    RATING,
    GAUGE_STUCK,
    EARTH_MISSING,
    SWAPPED,
    BRIDGED,
    RATING_LOW,
    CONTACTS_BURNT,
    NIPPLE_CLOGGED,
    CORROSION,
    WATER_AT_VALVE,
    LEAKS_SEEN,
    DECIDED,
    INFLATOR,
    NEW_AIR,
    AIR_LEFT,
    AIR_CAP,
    TURNED,
    HOW_NEAR,
    SWITCH_REPLACED,
    NO_LIMIT,
    TANK_REPLACED,
    TRY,
    LAP,
    BUCKET,
    LEAK,
    DRAIN,
    DIP_SEEN,
    SIGNED,
    SAW,
    WAS,
    PHOTO,
    REMARK,
)
SLOTS: dict[str, Slot[Any]] = {slot.name: slot for slot in _ALL}
