"""What is said of a calibration."""

import math
from collections.abc import Iterator, Sequence

from zerodip.bench.budget import USUAL_RATE
from zerodip.bench.device import BenchDevice
from zerodip.bench.drift import Drift
from zerodip.bench.file import Calibration
from zerodip.bench.judge import RUNS, PointFigures, Separation
from zerodip.bench.reference import reference_doubts
from zerodip.text.said import Said, gravest_first
from zerodip.units import from_si, unit_for

__all__ = ["pace", "said", "shown", "titles", "usual_pace"]

VERDICTS = {
    "pass": "Pass",
    "conditional_pass": "Conditional pass",
    "conditional_fail": "Conditional fail",
    "fail": "Fail",
    "open": "Not judged yet",
}
_FAST = 1.5  # times the usual approach, from which on it is told
_ACTED_LATE = {
    "rising": ("later", "higher pressure", "earlier", "lower pressure"),
    "falling": ("earlier", "higher pressure", "later", "lower pressure"),
}


def titles(device: BenchDevice) -> tuple[str, ...]:
    """What its points are called."""
    return ("Set point",) if len(device.points) == 1 else ("Lower point", "Upper point")


def shown(pa: float, units: str, grain_pa: float, signed: bool = False) -> str:
    """A pressure as finely as a grain tells (two figures of it).

    Args:
        pa: The pressure or difference, Pa.
        units: Unit system: "us", "metric" or "kpa".
        grain_pa: What it may be off by, Pa, above 0.
        signed: Whether a plus is written.

    Returns:
        The words.

    Raises:
        UnknownUnit: For a unit system that is not known.
    """
    unit = unit_for("pressure", units)
    grain = from_si(grain_pa, unit.id)
    places = min(max(1 - math.floor(math.log10(grain)), 0), 6)
    value = round(from_si(pa, unit.id), places) + 0.0  # no minus before nothing
    return f"{value:{'+' if signed else ''}.{places}f} {unit.symbol}"


def pace(rate_pa_s: float, units: str) -> str:
    """How fast a point was approached, to two figures.

    Args:
        rate_pa_s: Pressure in a second, Pa/s, 0 or more.
        units: Unit system, as above.

    Returns:
        The words.

    Raises:
        UnknownUnit: For a unit system that is not known.
    """
    return f"{shown(rate_pa_s, units, rate_pa_s or 1.0)} a second"


def usual_pace(device: BenchDevice, units: str) -> str:
    """The fastest approach that the uncertainty reckons with where nobody times it, in words."""
    return pace(USUAL_RATE * device.span_pa, units)


def said(
    of: Calibration,
    found: Sequence[PointFigures],
    left: Sequence[PointFigures],
    apart: Separation | None,
    drifts: Sequence[Drift],
    units: str,
) -> list[Said]:
    """What a calibration says, the gravest first.

    Args:
        of: The calibration.
        found: Its points as found.
        left: Its points as left.
        apart: How far two points lie apart as left.
        drifts: Their drifts.
        units: Unit system of the texts.

    Returns:
        What it says.
    """
    made = (
        *_found(of, found, units),
        *_left(of, left, units),
        *_apart(apart, units),
        *_reference(of),
        *_coarse(left),
        *_fast(of, units),
        *(() if any(_open(point) for point in left) else _drifts(of, drifts, units)),
    )
    return gravest_first(made)


def _found(of: Calibration, found: Sequence[PointFigures], units: str) -> Iterator[Said]:
    for point, title in zip(found, titles(of.device), strict=True):
        if point.verdict not in ("fail", "conditional_fail"):
            continue
        acts = of.device.points[point.at]
        late, high, early, low = _ACTED_LATE[acts.acts]
        word, side = (late, high) if point.error_pa > 0 else (early, low)
        off = shown(abs(point.error_pa), units, point.budget.expanded_pa)
        may = "" if point.verdict == "fail" else " That may be within, by its uncertainty."
        yield Said(
            id="found.out",
            weight="danger" if word == "later" else "warning",
            title=f"{title} as found out of tolerance",
            text=f"It acted {off} off, {word}, at a {side}.{may} {_guarded(of, word)}",
        )


def _guarded(of: Calibration, word: str) -> str:
    what = of.device.guards or "What it guards"
    since = f" since {of.past[-1].on}" if of.past else " since it was last right"
    if word == "later":
        return f"{what} may have gone unguarded{since}. Tell whoever answers for it."
    return f"{what} may have been stopped without need{since}. Tell whoever answers for it."


def _left(of: Calibration, left: Sequence[PointFigures], units: str) -> Iterator[Said]:
    for point, title in zip(left, titles(of.device), strict=True):
        if _open(point):
            there = "1 is" if point.runs == 1 else f"{point.runs} are"
            text = f"{RUNS} runs of each point are wanted as left; {there} there."
            yield Said(id="left.open", weight="warning", title=f"{title}: runs", text=text)
            continue
        bad = point.verdict in ("fail", "conditional_fail")
        off = shown(point.error_pa, units, point.budget.expanded_pa, signed=True)
        within = shown(point.tolerance_pa, units, point.budget.expanded_pa)
        band = shown(point.budget.expanded_pa, units, point.budget.expanded_pa)
        yield Said(
            id="left.point",
            weight="danger" if bad else "good" if point.verdict == "pass" else "notice",
            title=f"{title}: {VERDICTS[point.verdict].lower()}",
            text=f"Off by {off}; ± {within} is allowed. Uncertainty ± {band}."
            + (" Take it out of service, or put it right." if bad else ""),
        )
        yield from _deadband(of, point, title, units)
        if point.repeats == "fail":
            wide = shown(point.apart_pa, units, point.budget.expanded_pa)
            text = f"Its runs lie {wide} apart; ± {within} is allowed. Look for dirt or wear."
            yield Said(
                id="left.wanders", weight="danger", title=f"{title} does not repeat", text=text
            )


def _apart(apart: Separation | None, units: str) -> Iterator[Said]:
    """Two points that truly act too near each other."""
    if apart is None or apart.verdict == "pass":
        return
    far, least = (shown(pa, units, apart.least_pa / 10) for pa in (apart.apart_pa, apart.least_pa))
    text = f"They act {far} apart; at least {least} is wanted, 3 % of the range."
    weight = "danger" if apart.verdict == "fail" else "notice"
    yield Said(id="left.apart", weight=weight, title="Points too near each other", text=text)


def _open(point: PointFigures) -> bool:
    return point.runs < RUNS or point.verdict == "open"


def _deadband(of: Calibration, point: PointFigures, title: str, units: str) -> Iterator[Said]:
    band = point.deadband
    if band is None or band.verdict in (None, "pass", "conditional_pass", "open"):
        return
    width = shown(band.mean_pa, units, band.expanded_pa)
    wanted = of.device.points[point.at].deadband_pa
    text = (
        "It reset before it acted: acting and resetting are mixed up."
        if band.mean_pa <= 0
        else f"It is {width}; {shown(wanted or 0.0, units, band.expanded_pa)} is asked."
    )
    yield Said(id="left.deadband", weight="warning", title=f"{title}: deadband off", text=text)


def _reference(of: Calibration) -> Iterator[Said]:
    for doubt in reference_doubts(of.device, of.reference, of.day):
        why = of.reference.overruled.strip()
        title = "A reference that should not be used"
        text = f"{doubt.title} {doubt.says.split(':')[0]}. Used because: {why}"
        yield Said(id="reference.overruled", weight="warning", title=title, text=text)


def _fast(of: Calibration, units: str) -> Iterator[Said]:
    """An approach that makes the uncertainty wider than it need be."""
    fastest = max((run.rate_pa_s or 0.0 for run in of.as_left), default=0.0)
    if fastest <= _FAST * USUAL_RATE * of.device.span_pa:
        return
    slower = usual_pace(of.device, units)
    text = f"By up to {pace(fastest, units)}. At {slower} the readings are surer."
    yield Said(id="fast", weight="notice", title="Approached fast", text=text)


def _coarse(left: Sequence[PointFigures]) -> Iterator[Said]:
    if any(point.ratio < 1 and point.verdict != "open" for point in left):
        text = "No reading could pass: take a finer reference, approach more slowly, repeat more."
        yield Said(
            id="uncertain",
            weight="warning",
            title="The uncertainty is wider than the tolerance",
            text=text,
        )


def _drifts(of: Calibration, drifts: Sequence[Drift], units: str) -> Iterator[Said]:
    for drift in drifts:
        if abs(drift.per_year_pa) <= 2 * drift.per_year_sd_pa:
            continue
        rate = shown(drift.per_year_pa, units, drift.per_year_sd_pa, signed=True)
        when = f" It leaves its tolerance about {drift.likely}." if drift.likely else ""
        title = f"{titles(of.device)[drift.at]} drifts"
        yield Said(id="drifts", weight="notice", title=title, text=f"By {rate} a year.{when}")
