"""The error tree.

ZeroDipError ├── InvalidInput      values that break a rule of the file format; carries every fault,
each with its field └── UnreadableFile    a file that is not there, not JSON, or not this format

`units.UnknownUnit` stands apart, as a KeyError: asking for a unit that is not in the table is a
programming fault.
"""

from dataclasses import dataclass
from typing import Any

from zerodip.units import text

__all__ = ["Fault", "InvalidInput", "UnreadableFile", "ZeroDipError"]


@dataclass(frozen=True, kw_only=True)
class Fault:
    """One thing wrong with one field.

    `path` is the field's place in the document, dotted ("system.tanks.0.volume_m3"). `least` and
    `most` are the allowed range in SI, `dimension` says how to show them. `says` is used instead
    where a range cannot tell it.
    """

    path: str
    code: str
    title: str
    says: str = ""
    value: float | None = None
    least: float | None = None
    most: float | None = None
    dimension: str = "number"

    def sentence(self, system: str) -> str:
        """The fault in words, figures in the unit system asked for: what is wrong, what is
        allowed."""
        if self.says:
            allowed = self.allowed(system)
            return f"{self.title} {self.says}" + (f" Allowed: {allowed}." if allowed else "")
        shown = "" if self.value is None else f" is {text(self.value, self.dimension, system)}"
        return f"{self.title}{shown or ' is out of range'}; allowed {self.allowed(system)}."

    def allowed(self, system: str) -> str:
        """The allowed range in words, empty where there is none."""
        if self.least is None or self.most is None:
            return ""
        least, most = (text(limit, self.dimension, system) for limit in (self.least, self.most))
        return f"{least} to {most}"


class ZeroDipError(Exception):
    """Anything this package refuses. `code` names the reason, `parts` its particulars."""

    code = "error"

    def __init__(self, message: str, **parts: Any) -> None:
        super().__init__(message)
        self.parts = parts


class InvalidInput(ZeroDipError):
    """Values that cannot be right. `faults` holds all of them, in the order of the document."""

    code = "invalid_input"

    def __init__(self, faults: list[Fault]) -> None:
        super().__init__("; ".join(f"{f.path}: {f.sentence('metric')}" for f in faults))
        self.faults = tuple(faults)


class UnreadableFile(ZeroDipError):
    """A file that cannot be read as a system document at all."""

    code = "unreadable_file"
