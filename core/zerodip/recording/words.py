"""What a recording says, in sentences of one unit system."""

from collections.abc import Iterator
from datetime import UTC, datetime, timedelta
from zoneinfo import ZoneInfo

from zerodip.recording.air_words import air_said
from zerodip.recording.figures import Figure
from zerodip.recording.fit import Fitted
from zerodip.recording.known import Beside
from zerodip.recording.quality import Quality
from zerodip.recording.reading import Reading
from zerodip.text.said import Said, gravest_first
from zerodip.units import PSI, text

__all__ = ["READING_WORDS", "Said", "clock", "faults_said", "said"]

READING_WORDS = {
    "catch": "Catch the water from cut-out down to cut-in once, power off.",
    "pre_charge": "Read the pre-charge once, drained.",
    "volume": "Read the tank’s volume off its plate.",
    "flow": "Measure the pump’s flow once, by bucket and watch.",
}
# Under which runs are short, and under which a pump wears by them: common practice, no source.
_SHORT_RUN_S, _VERY_SHORT_S = 60.0, 30.0
_APART_PA = 2.5 * PSI  # between a point on the line and as set: two gauges may differ by that
_CHATTERS = 3  # starts within ten seconds of the one before, beyond which a switch chatters
_BLURS = 2.0  # times what a line moves by between samples, within which a point is not told
_DRIFT_PA, _DAY_S = 2 * PSI, 86400.0  # over a recording, from which a drift is a warning
_TREND, _SURE = 0.12, 4.0  # share that runs grow by, and standard errors, from which it is told
_WANDERS_PA = 3 * PSI  # from the least to the most of nine in ten, beyond which a point wanders
_ELAPSED_S = 1e8  # times before this are counted from the recording's start


def clock(time_s: float, zone: str) -> str:
    """A time of the recording as a person reads it: by the zone's clock, the recorder's own where
    none is known, or counted from its start.

    Args:
        time_s: The time, s since 1970, or since the start.
        zone: The zone's IANA name, or empty.

    Returns:
        The time in words.
    """
    if time_s < _ELAPSED_S:
        return str(timedelta(seconds=round(time_s)))
    at = datetime.fromtimestamp(time_s, ZoneInfo(zone) if zone else UTC)
    return at.strftime("%a %-d %b %Y %H:%M:%S")


def faults_said(quality: Quality, units: str, zone: str = "") -> list[Said]:
    """What is wrong with the recording.

    Args:
        quality: What was counted.
        units: Unit system of the texts: "us", "metric" or "kpa".
        zone: The zone whose clock is told.

    Returns:
        What is wrong, the worst first.
    """
    return [
        Said(f"recording.{id}", weight, title, body)
        for id, weight, title, body in _faults(quality, units, zone)
    ]


def _faults(q: Quality, units: str, zone: str) -> Iterator[tuple[str, str, str, str]]:
    if q.is_stuck and q.still_from_s is not None:
        since = clock(q.still_from_s, zone)
        how_long = text(q.still_s, "duration", units)
        lost = "What the pump did in that time is lost."
        yield "stuck", "warning", "The sensor stood still", f"For {how_long} from {since}. {lost}"
    if q.below:
        yield (
            "offset",
            "warning",
            "It reads below nothing",
            f"{q.below} samples lie under {text(-PSI, 'pressure', units)}: its zero is off.",
        )
    for changed, way in ((q.clock_changes, "back"), (q.clock_forward, "forward")):
        if changed:
            yield (
                "clock",
                "notice",
                f"The clock was put {way} an hour",
                "Times after it are told by the clock before it.",
            )
    if q.back:
        yield "disorder", "notice", f"{q.back} times run backwards", "Read in order of time."
    if q.repeated:
        yield "repeated", "notice", f"{q.repeated} times come twice", "The first of each is read."
    if q.gaps:
        worst = q.longest[0]
        yield (
            "gaps",
            "notice",
            f"{q.gaps} {'gap' if q.gaps == 1 else 'gaps'}",
            f"The longest lasts {text(worst.seconds, 'duration', units)}, from "
            f"{clock(worst.at_s, zone)}. Nothing is read across a gap.",
        )
    if q.missing:
        yield "missing", "notice", f"{q.missing} figures are missing", "Or could not be read."
    if q.no_time:
        yield "no_time", "notice", f"{q.no_time} rows have no time", "They are left out."
    if q.spikes:
        yield "spikes", "notice", f"{q.spikes} spikes of one sample", "They start no pump."


def said(
    reading: Reading,
    fitted: Fitted | None,
    beside: Beside,
    air_pa: float,
    units: str,
    zone: str = "",
) -> list[Said]:
    """What the line says, the worst first.

    Args:
        reading: What was read.
        fitted: The plates by the line; None where it does not tell.
        beside: What else is known.
        air_pa: The air's pressure at the site, Pa.
        units: Unit system of the texts: "us", "metric" or "kpa".
        zone: The zone whose clock is told.

    Returns:
        What it says.
    """
    found = [
        *_coarse(reading),
        *_endless(reading, units, zone),
        *_trips(reading, zone),
        *_zero(reading, units),
        *_empties(reading, beside, units),
        *_chatter(reading),
        *air_said(fitted, beside, air_pa, _highest(reading), units),
        *_short(reading, units),
        *_dips(reading, units),
        *_leak(reading, fitted, beside, air_pa, units),
        *_starts(reading, beside),
        *_apart(reading, beside, units),
        *_wanders(reading, units),
        *_trend(reading, units),
    ]
    if not len(reading.cycles):
        found.append(
            Said(
                "line.quiet",
                "notice",
                "The pump did not run",
                "No start and no stop is on this line.",
            )
        )
    elif not found:
        found.append(Said("line.good", "good", "Nothing stands out"))
    return gravest_first(found)


def _coarse(reading: Reading) -> Iterator[Said]:
    if reading.coarse:
        yield Said(
            "line.coarse",
            "danger",
            "Recorded too slowly",
            "It moves two fifths of the band from one sample to the next. "
            "Points, runs and starts are not to be trusted: record faster.",
        )


def _p(value: float, units: str) -> str:
    return text(value, "pressure", units)


def _endless(reading: Reading, units: str, zone: str) -> Iterator[Said]:
    for run in reading.endless[:3]:
        title = "A run without end" if not run.ended else "A very long run"
        lasted = text(run.seconds, "duration", units)
        stood = f" and stood at {_p(run.gauge_pa, units)}" if not run.ended else ""
        yield Said(
            "line.endless",
            "danger" if not run.ended else "warning",
            title,
            f"From {clock(run.at_s, zone)} it ran {lasted}{stood}.",
        )


def _trips(reading: Reading, zone: str) -> Iterator[Said]:
    if reading.trips_s:
        yield Said(
            "line.trip",
            "warning",
            "It fell far down and did not start",
            f"At {clock(reading.trips_s[0], zone)}. A low-pressure cut-off, a breaker, or a drain.",
        )


def _zero(reading: Reading, units: str) -> Iterator[Said]:
    if reading.zero_pa is not None:
        title = f"It reads {_p(reading.zero_pa, units)} when drained"
        knee = " The knee is told without it." if reading.knee else ""
        yield Said("line.zero", "notice", title, f"The sensor’s zero is off by that.{knee}")


def _chatter(reading: Reading) -> Iterator[Said]:
    if reading.chatter > _CHATTERS:
        yield Said(
            "line.chatter",
            "danger",
            "The switch chatters",
            f"{reading.chatter} times it started within ten seconds of the start before.",
        )


def _highest(reading: Reading) -> float:
    """What the line comes to, Pa gauge: no air of its tank is above that."""
    return reading.cut_out.usual if reading.cut_out else float("inf")


def _short(reading: Reading, units: str) -> Iterator[Said]:
    run = reading.run
    if run is None or run.cycles < 3 or run.usual >= _SHORT_RUN_S:
        return
    usual = f"Runs of {text(run.usual, 'duration', units)} are usual here."
    if run.usual < _VERY_SHORT_S:
        yield Said("line.short", "warning", "Short cycling", usual)
    else:
        yield Said("line.brief", "notice", "Runs under a minute", usual)


def _empties(reading: Reading, beside: Beside, units: str) -> Iterator[Said]:
    """Where the tank is empty before the pump delivers, cut-in hides on the way down."""
    found = reading.empties
    if found is None or beside.store == "none":
        return
    at, cut_in = _p(found.from_pa, units), beside.cut_in_gauge_pa
    seen = f"At {found.starts} of {found.of} starts the gauge collapses there."
    if cut_in is not None and found.from_pa > cut_in + PSI:
        why = f"Its air is above cut-in, {_p(cut_in, units)}: let air out."
    else:
        why = "Its air is above cut-in, or too near it. Cut-in lies below and is not seen."
    title = f"The tank is empty at {at} before the pump delivers"
    yield Said("line.empties", "warning", title, f"{seen} {why} Read the air, drained.")


def _dips(reading: Reading, units: str) -> Iterator[Said]:
    if not reading.dips:
        return
    lasts = ""
    if reading.longest_dip_s > 0:
        lasts = f", the longest lasts {text(reading.longest_dip_s, 'duration', units)}"
    yield Said(
        "line.dip",
        "warning",
        f"{reading.dips} {'dip' if reading.dips == 1 else 'dips'} at a start",
        f"The deepest falls by {_p(reading.deepest_pa, units)}{lasts}.",
    )


def _leak(
    reading: Reading, fitted: Fitted | None, beside: Beside, air_pa: float, units: str
) -> Iterator[Said]:
    leak = reading.leak
    if leak is None or not leak.is_there:
        return
    fall = leak.rate * (leak.gauge_pa + air_pa) ** 2 * 3600
    amount = ""
    if fitted and fitted.air_pa_m3:
        amount = f", {text(leak.rate * fitted.air_pa_m3.value, 'flow', units)}"
    where = (
        "A leak, or a check valve passing back: shut the house valve and see whether it goes on."
        if beside.store != "none"
        else "Something runs away."
    )
    yield Said(
        "line.leak",
        "warning",
        "It falls with nothing open",
        f"{_p(fall, units)} an hour at {_p(leak.gauge_pa, units)}{amount}. {where}",
    )


def _starts(reading: Reading, beside: Beside) -> Iterator[Said]:
    most = max((sum(day.starts) for day in reading.days), default=0)
    bears = (beside.motor_per_day or 0) * 86400
    if bears and most > bears:
        yield Said(
            "line.starts",
            "warning",
            f"{most} starts in a day",
            f"Its motor bears about {bears:.0f}.",
        )


def _apart(reading: Reading, beside: Beside, units: str) -> Iterator[Said]:
    """A point that stands elsewhere than it is set, by more than a gauge is off."""
    points = (
        ("Cut-in", reading.cut_in, beside.cut_in_gauge_pa),
        ("Cut-out", reading.cut_out, beside.cut_out_gauge_pa),
    )
    for name, point, set_to in points:
        if point is None or set_to is None or abs(point.usual - set_to) <= _APART_PA:
            continue
        if name == "Cut-in" and reading.dips > point.cycles / 4:
            continue  # what it fell from, perhaps
        why = ""
        if name == "Cut-out" and point.usual < set_to:
            why = " The switch acts early, or the pump stalls there and runs on: listen to it."
        title = f"{name} is {_p(point.usual, units)} on the line, {_p(set_to, units)} as set"
        yield Said("line.apart", "warning", title, f"Seen {point.cycles} times.{why}")


def _wanders(reading: Reading, units: str) -> Iterator[Said]:
    """A point that drifts is told as drifting; one that lies about for another reason wanders,
    unless the line is too coarse or too fast to tell."""
    for name, point in (("Cut-in", reading.cut_in), ("Cut-out", reading.cut_out)):
        if point is None or point.cycles < 5 or reading.chatter > _CHATTERS:
            continue
        if point.drifts and abs(point.per_day) > 0.05 * PSI:
            yield _drifts(name, point, reading, units)
        spread = point.spread or point.most - point.least
        if spread > max(_WANDERS_PA, _BLURS * point.blur):
            yield Said(
                "line.wanders",
                "warning",
                f"{name} wanders",
                f"From {_p(point.least, units)} to {_p(point.most, units)}.",
            )


def _drifts(name: str, point: Figure, reading: Reading, units: str) -> Said:
    first, last = reading.quality.first_s or 0.0, reading.quality.last_s or 0.0
    far = abs(point.per_day) * (last - first) / _DAY_S
    way = "up" if point.per_day > 0 else "down"
    return Said(
        "line.drifts",
        "warning" if far > _DRIFT_PA else "notice",
        f"{name} drifts {way}",
        f"By {_p(abs(point.per_day), units)} a day.",
    )


def _trend(reading: Reading, units: str) -> Iterator[Said]:
    """Runs without a draw that grow longer or shorter while both points stand."""
    trend = reading.trend
    points = (reading.cut_in, reading.cut_out)
    if trend is None or any(p and p.drifts and abs(p.per_day) > 0.2 * PSI for p in points):
        return
    grows = trend.last_s / trend.first_s - 1
    if abs(grows) < _TREND or abs(trend.per_day) < _SURE * trend.per_day_error:
        return
    first, last = (text(each, "duration", units) for each in (trend.first_s, trend.last_s))
    body = f"The shortest of a day from {first} to {last}."
    if grows > 0:
        why = "The pump gives less: worn, a clogged filter or screen, a falling well."
        yield Said("line.longer", "warning", "Runs grow longer", f"{body} {why}")
    else:
        yield Said("line.shorter", "warning", "Runs grow shorter", f"{body} Air is being lost.")
