"""What a line says of a tank's air, beside its plate."""

from collections.abc import Iterator

from zerodip.recording.fit import Fitted, Within
from zerodip.recording.known import Beside
from zerodip.text.said import Said
from zerodip.units import PSI, text

__all__ = ["air_said"]

_ROOM_PA = 3 * PSI  # by which a pre-charge may differ from its plate's
_WARMED = 1.4  # by so many times a fill without any heat lost shows less air than there is
_AIR_LEFT = 90  # per cent of a fresh charge, under which air has been lost


def air_said(
    fitted: Fitted | None, beside: Beside, air_pa: float, highest_pa: float, units: str
) -> Iterator[Said]:
    """The air by the line beside the plate's. A fast fill warms it, and the line then shows less
    than there is: what that may explain is not said for certain. What cannot be is doubted.

    Args:
        fitted: The plates by the line; None where it does not tell.
        beside: What else is known.
        air_pa: The air's pressure at the site, Pa.
        highest_pa: What the line comes to, Pa gauge.
        units: Unit system of the texts: "us", "metric" or "kpa".

    Yields:
        What it says.
    """
    found = fitted.pre_charge_abs_pa if fitted else None
    plate = beside.pre_charge_gauge_pa
    if found is None or plate is None:
        return
    may_hide = _WARMED / beside.exponent
    if beside.store == "plain":
        yield from _air_left(found, plate + air_pa, may_hide)
        return
    value, least, most = (each - air_pa for each in (found.value, found.least, found.most))
    if most < 0 or least > highest_pa:
        yield _doubted(_p(value, units))
        return
    fits = f"The line fits {_p(value, units)} of air"
    if found.most * may_hide - air_pa < plate - _ROOM_PA / 3 and value < plate - _ROOM_PA:
        within = f"({_p(least, units)} to {_p(most, units)})"
        text = f"{fits} {within}, not {_p(plate, units)}."
        yield Said("line.air", "warning", "Air has been lost", text)
    elif most < plate - _ROOM_PA / 3 and value < plate - _ROOM_PA:
        yield Said(
            "line.less_air",
            "notice",
            "Less air than was set, or a fast fill",
            f"{fits} if it keeps its temperature, not {_p(plate, units)}. Read it, drained.",
        )
    elif least > plate + _ROOM_PA / 3 and value > plate + _ROOM_PA:
        text = f"{fits}, not {_p(plate, units)}."
        yield Said("line.more_air", "warning", "More air than was set", text)


def _air_left(found: Within, fresh_pa: float, may_hide: float) -> Iterator[Said]:
    """Of a plain tank: what it has of a fresh charge."""
    value, least, most = (
        round(100 * each / fresh_pa) for each in (found.value, found.least, found.most)
    )
    if most * may_hide < _AIR_LEFT:
        yield Said(
            "line.air",
            "warning",
            "Air has been lost",
            f"The line fits {value} % of a fresh charge ({least} to {most} %). Drain it and let it "
            "take air.",
        )


def _doubted(air: str) -> Said:
    return Said(
        "line.doubt",
        "notice",
        "The line and the plates do not fit each other",
        f"By both the air would be {air}, which cannot be. Look at the recording’s unit, scale and"
        " clock first, then at the tank’s and the pump’s plates.",
    )


def _p(value: float, units: str) -> str:
    return text(value, "pressure", units)
