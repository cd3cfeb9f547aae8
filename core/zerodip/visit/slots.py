"""The slots of a visit: everything that can be recorded, each said once with all that is particular
about it.

A slot holds one value, which a correction supersedes, or a series, in which every entry is kept.
What a person confirms on the way (`confirmation`) is declared by the kinds of system;
`zerodip.visit.validation` knows them all.
"""

from dataclasses import dataclass
from typing import Any, Generic, Literal, TypeVar

from zerodip.fileformat.fields import Checked, Spec
from zerodip.fileformat.ranges import MOST_GAUGE_PA
from zerodip.switch.goal import HOW_NEARS, Near
from zerodip.units import PSI
from zerodip.visit.records import Bucket, Drain, Lap, LeakWatch, Remark, Try, Turned

__all__ = [
    "AIR_CAP",
    "AIR_GAUGE_LOW",
    "AIR_LEFT",
    "BUCKET",
    "CONFIRMED",
    "CORROSION",
    "DECIDED",
    "DIP_SEEN",
    "DRAIN",
    "FOUND_CUT_IN",
    "FOUND_CUT_OUT",
    "FOUND_GAUGE",
    "FOUND_PRE_CHARGE",
    "GAUGE_ERROR",
    "GAUGE_LOW",
    "GAUGE_USED",
    "HOW_NEAR",
    "INFLATOR",
    "LAP",
    "LEAK",
    "LEAKS_SEEN",
    "PLACE",
    "RATING",
    "REMARK",
    "SIGNED",
    "SLOTS",
    "STEPS",
    "SWITCH_REPLACED",
    "TRY",
    "TURNED",
    "UNDONE_BY_POWER",
    "WATER_AT_VALVE",
    "Slot",
    "confirmation",
]

T = TypeVar("T", covariant=True)
When = Literal["", "powered", "off", "drained"]
Step = Literal["safe", "read", "decide", "set", "prove", "hand_over"]
STEPS: tuple[Step, ...] = ("safe", "read", "decide", "set", "prove", "hand_over")
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
    dead, or off and drained."""

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
GAUGE_USED: Slot[str] = _value("read", "gauge.used", _words("Gauge used", 40), late=True)
GAUGE_ERROR: Slot[float] = _value(
    "read", "gauge.error", _quantity("Gauge reads to within", "pressure", *_ERROR), late=True
)
GAUGE_LOW: Slot[float] = _value(
    "read", "gauge.low", _quantity(f"Gauge {_LOW_TITLE}", "pressure", *_LOW), late=True
)
AIR_GAUGE_LOW: Slot[float] = _value(
    "read", "gauge.air_low", _quantity(f"Air gauge {_LOW_TITLE}", "pressure", *_LOW), late=True
)
FOUND_GAUGE: Slot[float] = _value(
    "read", "found.gauge", _pressure("Gauge now"), late=True, gauge="system"
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
FOUND_CUT_IN: Slot[float] = _value(
    "read",
    "found.cut_in",
    _pressure("Cut-in as found"),
    late=True,
    gauge="system",
    file_field="cut_in_gauge_pa",
    when="powered",
)
FOUND_CUT_OUT: Slot[float] = _value(
    "read",
    "found.cut_out",
    _pressure("Cut-out as found"),
    late=True,
    gauge="system",
    file_field="cut_out_gauge_pa",
    when="powered",
)
RATING: Slot[str] = _value(
    "read", "found.rating", _words("Rating under the cover", 40), late=True, when="off"
)
CORROSION: Slot[bool] = _value("read", "found.corrosion", _flag("Corrosion"), late=True)
LEAKS_SEEN: Slot[bool] = _value("read", "found.leaks", _flag("Leaks seen"), late=True)
WATER_AT_VALVE: Slot[bool] = _value(
    "read", "found.water_at_valve", _flag("Water at the air valve"), late=True
)
DECIDED: Slot[bool] = _value("decide", "decided", _flag("Settings decided on"))
INFLATOR: Slot[float] = _value(
    "set", "air.inflator", _quantity("Inflator delivers", "air_flow", 1e-6, 0.05)
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
REMARK: Slot[Remark] = Slot(
    name="note", step="hand_over", title="Remark", record=Remark, series=True, late=True
)

_ALL: tuple[Slot[Any], ...] = (
    PLACE,
    GAUGE_USED,
    GAUGE_ERROR,
    GAUGE_LOW,
    AIR_GAUGE_LOW,
    FOUND_GAUGE,
    FOUND_PRE_CHARGE,
    FOUND_CUT_IN,
    FOUND_CUT_OUT,
    RATING,
    CORROSION,
    LEAKS_SEEN,
    WATER_AT_VALVE,
    DECIDED,
    INFLATOR,
    AIR_LEFT,
    AIR_CAP,
    TURNED,
    HOW_NEAR,
    SWITCH_REPLACED,
    TRY,
    LAP,
    BUCKET,
    LEAK,
    DRAIN,
    DIP_SEEN,
    SIGNED,
    REMARK,
)
SLOTS: dict[str, Slot[Any]] = {slot.name: slot for slot in _ALL}
