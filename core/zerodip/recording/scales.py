"""The scale of a signal as a file's own words tell it: "4 mA = 0 psi; 20 mA = 100 psi", "4-20 mA =
0-10 bar"."""

import re

from zerodip.recording.layout import FACTORS, SIGNALS, Column

__all__ = ["scale_in"]

_N = r"([-+]?\d+(?:[.,]\d+)?)"
_UNIT = r"(psi|mbar|bar|kpa|mpa|pa)(?:g|\b)"
_TO = r"\s*(?:-|–|to|bis|\.{2,3}|…)\s*"
_IS = r"\s*(?:=|:|->|→|,|are|is)?\s*"
_PRESSURES = {unit.lower(): factor for unit, factor in FACTORS["gauge"].items()}


def scale_in(words: str, at: int) -> Column | None:
    """What a signal stands for, where words say so.

    Args:
        words: A heading, or the lines over a table.
        at: The place of the column that they are said of.

    Returns:
        The column with its scale; None where the words tell none.
    """
    low = words.lower()
    for signal in SIGNALS:
        sign = signal.lower()
        for found in (_ranges(low, sign), _ends(low, sign)):
            if found is not None and found[0] != found[1] and found[2] != found[3]:
                return Column(
                    at=at,
                    holds="gauge",
                    unit=signal,
                    signal_least=found[0],
                    signal_most=found[1],
                    stands_least_pa=found[2],
                    stands_most_pa=found[3],
                )
    return None


Scale = tuple[float, float, float, float]


def _ranges(low: str, sign: str) -> Scale | None:
    """One range for another: 4-20 mA = 0-10 bar."""
    said = re.search(rf"{_N}{_TO}{_N}\s*{sign}\b{_IS}{_N}{_TO}{_N}\s*{_UNIT}", low)
    if said is None:
        return None
    least, most, from_, to = (_figure(each) for each in said.groups()[:4])
    pa = _PRESSURES[said[5]]
    return least, most, from_ * pa, to * pa


def _ends(low: str, sign: str) -> Scale | None:
    """End by end: 4 mA = 0 psi; 20 mA = 100 psi."""
    said = re.findall(rf"{_N}\s*{sign}\s*(?:=|:|->|→)\s*{_N}\s*{_UNIT}", low)
    if len(said) < 2:
        return None
    ends = [(_figure(a), _figure(b) * _PRESSURES[unit]) for a, b, unit in said]
    (least, from_), (most, to) = ends[0], ends[-1]
    return least, most, from_, to


def _figure(text: str) -> float:
    return float(text.replace(",", "."))
