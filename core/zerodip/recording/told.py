"""A recording read and told as plain values: the answer of the command line, the server and the
page."""

from collections.abc import Iterable
from dataclasses import asdict, replace
from typing import IO, Any

from zerodip.fileformat.document import Document
from zerodip.physics.atmosphere import pressure_abs_pa
from zerodip.recording.cycles import Cycles
from zerodip.recording.files import guess_file, samples_of
from zerodip.recording.fit import Fitted, fitted
from zerodip.recording.known import Beside, beside, from_line
from zerodip.recording.layout import Layout
from zerodip.recording.options import Told, with_told
from zerodip.recording.plain import plain
from zerodip.recording.quality import Quality
from zerodip.recording.reading import Reading, read_recording
from zerodip.recording.samples import Samples
from zerodip.recording.words import READING_WORDS, faults_said, said

__all__ = ["cycle_rows", "read_file", "said_of", "tell", "told_of"]

CANNOT_TELL = (
    "Pressure alone cannot tell a low pre-charge from a small tank. It tells the pump’s flow "
    "divided by the air (volume times pre-charge)."
)


def read_file(
    stream: IO[bytes],
    document: Document | None = None,
    units: str = "us",
    told: Told | None = None,
) -> dict[str, Any]:
    """A recorder's file, guessed, read and told.

    Args:
        stream: The file from its beginning; seekable.
        document: The system's file, if there is one.
        units: Unit system of the texts: "us", "metric" or "kpa".
        told: What a person tells of the file; nothing if None.

    Returns:
        The layout guessed with its doubts, and what the recording says.

    Raises:
        UnreadableFile: Where it is no recording.
        InvalidInput: For what is told and cannot be so.
    """
    found = guess_file(stream)
    layout, doubts = found.layout, found.doubts
    if told is not None and told != Told():
        layout, doubts = with_told(layout, told), ()
    stream.seek(0)
    made = tell(samples_of(stream, layout), layout, document, units)
    guessed = {"layout": plain(asdict(layout)), "lines": list(found.lines)}
    return {"format": guessed, "not_sure": [*doubts, *made.pop("not_sure")], **made}


def tell(
    blocks: Iterable[Samples], layout: Layout, document: Document | None, units: str
) -> dict[str, Any]:
    """What samples say, with what is known beside them.

    Args:
        blocks: Samples as they stand, a block at a time.
        layout: The layout, for its zone.
        document: The system's file, if there is one.
        units: Unit system of the texts: "us", "metric" or "kpa".

    Returns:
        Plain values, SI, with sentences in the unit system.
    """
    reading = read_recording(blocks, beside(document).altitude_m, layout.zone)
    return told_of(reading, layout.zone, document, units)


def told_of(reading: Reading, zone: str, document: Document | None, units: str) -> dict[str, Any]:
    """What a reading says, with what is known beside it, and every cycle.

    Args:
        reading: The reading.
        zone: The zone whose clock is told.
        document: The system's file, if there is one.
        units: Unit system of the texts: "us", "metric" or "kpa".

    Returns:
        Plain values, SI, with sentences in the unit system.
    """
    return {**said_of(reading, zone, document, units), "cycles": cycle_rows(reading.cycles)}


def said_of(reading: Reading, zone: str, document: Document | None, units: str) -> dict[str, Any]:
    """What a reading says, with what is known beside it; its cycles, which may be many, apart.

    Args:
        reading: The reading.
        zone: The zone whose clock is told.
        document: The system's file, if there is one.
        units: Unit system of the texts: "us", "metric" or "kpa".

    Returns:
        Plain values, SI, with sentences in the unit system.
    """
    known = beside(document)
    air = pressure_abs_pa(known.altitude_m)
    plates = _plates(reading, known, air)
    return {
        "recording": _quality(reading.quality),
        "faults": [asdict(each) for each in faults_said(reading.quality, units, zone)],
        "says": [asdict(each) for each in said(reading, plates, known, air, units, zone)],
        "points": {"cut_in": _figure(reading.cut_in), "cut_out": _figure(reading.cut_out)},
        "run": _figure(reading.run),
        "rest": _figure(reading.rest),
        "days": [plain(asdict(day)) for day in reading.days],
        "busiest_hour": plain(reading.busiest),
        "dips": {
            "count": reading.dips,
            "deepest_pa": plain(reading.deepest_pa),
            "longest_s": plain(reading.longest_dip_s),
        },
        "empties": plain(asdict(reading.empties)) if reading.empties else None,
        "draws": _draws(reading, plates),
        "endless": [plain(asdict(each)) for each in reading.endless],
        "trips_s": plain(list(reading.trips_s)),
        "leak": _leak(reading, plates),
        "knee": plain(asdict(reading.knee)) if reading.knee else None,
        "pump": plain(asdict(reading.pump)) if reading.pump else None,
        "plates": _told_plates(plates, air),
        "not_sure": _not_sure(reading, plates, known),
    }


def _plates(reading: Reading, known: Beside, air: float) -> Fitted | None:
    if reading.pump is None or reading.coarse or known.store == "none":
        return None
    pump = replace(
        reading.pump,
        value=reading.pump.value / known.exponent,
        error=reading.pump.error / known.exponent,
    )
    return fitted(pump, [*known.known, *from_line(reading, air)])


def _told_plates(plates: Fitted | None, air: float) -> dict[str, Any] | None:
    if plates is None:
        return None
    made: dict[str, Any] = plain(asdict(plates))
    for name in ("pre_charge_abs_pa", "then_pre_charge"):
        within = made.pop(name)
        gauge = {key: value - air for key, value in within.items()} if within else None
        made[name.replace("_abs_pa", "_gauge_pa")] = gauge
    made["settles_by"] = READING_WORDS[plates.settles] if plates.settles else None
    return made


def _leak(reading: Reading, plates: Fitted | None) -> dict[str, Any] | None:
    leak = reading.leak
    if leak is None:
        return None
    made: dict[str, Any] = {**plain(asdict(leak)), "is_there": leak.is_there}
    made["flow_m3_s"] = leak.rate * plates.air_pa_m3.value if plates and plates.air_pa_m3 else None
    return made


def _draws(reading: Reading, plates: Fitted | None) -> list[dict[str, Any]]:
    """The draws, in m³ where the air is known."""
    air = plates.air_pa_m3.value if plates and plates.air_pa_m3 else None
    return [
        {
            "start_s": each.start_s,
            "seconds": each.seconds,
            "starts": each.starts,
            "by_air": each.by_air,
            "volume_m3": each.by_air * air if air else None,
        }
        for each in reading.draws
    ]


def _not_sure(reading: Reading, plates: Fitted | None, known: Beside) -> list[str]:
    made = []
    if known.store == "none":
        made.append("Of a system without a water tank a line tells no plates here.")
    elif len(reading.cycles) and plates is None:
        made.append("Too few steady runs were seen to tell anything of tank and pump.")
    if plates and plates.pre_charge_abs_pa is None:
        made.append(CANNOT_TELL)
    if plates and plates.settles:
        first = "One reading would settle it." if plates.settles_all else "This would tell most."
        made.append(f"{first} {READING_WORDS[plates.settles]}")
    if plates and plates.pre_charge_abs_pa and not reading.flows.minutes:
        made.append(
            f"The air is taken with n = {known.exponent:g}, as the practice has it. "
            "Where a fast fill warms it, the line shows less air than there is."
        )
    if reading.leak is None:
        made.append("No rest was long enough to tell a leak.")
    return made


def _quality(quality: Quality) -> dict[str, Any]:
    made = {key: value for key, value in asdict(quality).items() if not key.startswith("_")}
    return {**plain(made), "is_stuck": quality.is_stuck}


def _figure(figure: Any) -> Any:
    return {**plain(asdict(figure)), "drifts": figure.drifts} if figure else None


def cycle_rows(cycles: Cycles) -> list[dict[str, float | None]]:
    """Cycles as rows.

    Args:
        cycles: The cycles.

    Returns:
        Rows; what was not seen is None.
    """
    columns = {
        "start_s": cycles.start_s,
        "stop_s": cycles.stop_s,
        "run_s": cycles.run_s,
        "rest_s": cycles.rest_s,
        "cut_in_pa": cycles.cut_in_pa,
        "cut_out_pa": cycles.cut_out_pa,
        "lowest_pa": cycles.lowest_pa,
    }
    lists = [plain(column.round(3).tolist()) for column in columns.values()]
    return [dict(zip(columns, row, strict=True)) for row in zip(*lists, strict=True)]
