"""What a visit records that is more than one value: turns, looks, runs, buckets, drains, remarks.

Each is checked by the same specifications as a file's fields.
"""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from typing import Any

from zerodip.errors import Fault
from zerodip.fileformat.fields import Checked, choice, flag, quantity, words
from zerodip.fileformat.ranges import MOST_GAUGE_PA, RUN_S
from zerodip.units import PSI

__all__ = ["Bucket", "Drain", "Lap", "LeakWatch", "PhotoShown", "Remark", "Saw", "Try", "Turned"]


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
    """Turns made in one power-off (clockwise positive), and what the gauge then showed. No turns:
    only watched. `after` is how many looks the person had seen, so that two people do not both
    record the same turns."""

    after: float | None = _after()
    first: float = _turns("Turns of the first nut")
    second: float = _turns("Turns of the second nut")
    cut_in_gauge_pa: float = quantity("Cut-in seen", "pressure", 0, MOST_GAUGE_PA)
    cut_out_gauge_pa: float = quantity("Cut-out seen", "pressure", 0, MOST_GAUGE_PA)

    @property
    def turned(self) -> bool:
        """Whether a nut was turned before it."""
        return bool(self.first or self.second)

    @classmethod
    def cross(cls, values: Mapping[str, Any]) -> Iterable[Fault]:
        low, high = values.get("cut_in_gauge_pa"), values.get("cut_out_gauge_pa")
        if low is not None and high is not None and low >= high:
            yield Fault(
                path="cut_in_gauge_pa",
                code="order",
                title="Cut-in seen",
                says="must lie below cut-out seen.",
            )


@dataclass(frozen=True, kw_only=True)
class Lap(Checked):
    """One run from click to click with all taps shut, and the rest before it where that was timed
    too."""

    run_s: float = quantity("Pump run", "duration", *RUN_S)
    rest_s: float | None = quantity("Rest before it", "duration", 0.2, 360000, default=None)


@dataclass(frozen=True, kw_only=True)
class Bucket(Checked):
    """Water caught, power off, while the gauge fell from one pressure to another."""

    from_gauge_pa: float = quantity("From", "pressure", 1 * PSI, MOST_GAUGE_PA)
    to_gauge_pa: float = quantity("Down to", "pressure", 0, MOST_GAUGE_PA)
    caught_m3: float = quantity("Water caught", "volume", 1e-5, 20)

    @classmethod
    def cross(cls, values: Mapping[str, Any]) -> Iterable[Fault]:
        high, low = values.get("from_gauge_pa"), values.get("to_gauge_pa")
        if low is not None and high is not None and low >= high:
            says = "must lie below the first pressure."
            yield Fault(path="to_gauge_pa", code="order", title="Down to", says=says)


@dataclass(frozen=True, kw_only=True)
class LeakWatch(Checked):
    """The gauge now and later, nothing open, pump off; whether the house valve stood open, where
    that is known of this watch by itself."""

    first_gauge_pa: float = quantity("Pressure first", "pressure", 1 * PSI, MOST_GAUGE_PA)
    later_gauge_pa: float = quantity("Pressure later", "pressure", 0, MOST_GAUGE_PA)
    seconds: float = quantity("Time between", "duration", 5, 86400)
    house_open: bool | None = flag("House valve open")

    @classmethod
    def cross(cls, values: Mapping[str, Any]) -> Iterable[Fault]:
        first, later = values.get("first_gauge_pa"), values.get("later_gauge_pa")
        if first is not None and later is not None and later > first:
            says = "must not lie above the first."
            yield Fault(path="later_gauge_pa", code="order", title="Pressure later", says=says)


@dataclass(frozen=True)
class Drain:
    """A drain, pump off: times (s, rising) and gauge pressures (Pa)."""

    times_s: tuple[float, ...]
    gauges_pa: tuple[float, ...]


@dataclass(frozen=True, kw_only=True)
class Remark(Checked):
    """A remark in the technician's own words."""

    text: str = words("Remark", 500)


@dataclass(frozen=True, kw_only=True)
class PhotoShown(Checked):
    """Whether a photo of the visit, by its id, is shown in the report."""

    photo: str = words("Photo", 36)
    shown: bool = flag("In the report")


@dataclass(frozen=True, kw_only=True)
class Saw(Checked):
    """An answer about an item of the diagnosis, by its id: yes, no, a figure (SI), or that it
    cannot be told here; yes to a time says that it did not come to an end. Of each item the last
    answer counts, and the last one given `again`, after it was looked at once more."""

    item: str = words("What was looked at", 30)
    says: str = choice("Answer", ("yes", "no", "figure", "cannot"))
    value: float | None = quantity("Figure", "number", -1e9, 1e9, default=None)
    again: bool | None = flag("Looked at once more")

    @classmethod
    def cross(cls, values: Mapping[str, Any]) -> Iterable[Fault]:
        if values.get("says") == "figure" and values.get("value") is None:
            yield Fault(path="value", code="missing", title="Figure", says="is missing.")
