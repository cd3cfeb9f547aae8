"""The ribbon of a report: where the curves fall on paper. The levels are the core's; nothing is
judged here."""

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise

from zerodip.kinds.charts import Level, Ribbon
from zerodip.kinds.scales import Scale
from zerodip.units import text

__all__ = ["Drawing", "Tag", "drawn", "spread"]

XS = (96.0, 230.0, 364.0)
TOP, BOTTOM = 34.0, 232.0
_APART = 16.0  # between two figures beside a scale


@dataclass(frozen=True)
class Tag:
    """A figure beside a scale."""

    x: float
    y: float
    anchor: str
    text: str
    of: str

    @property
    def base(self) -> float:
        """The baseline of figures that stand in the middle of `y`."""
        return self.y + 5

    @property
    def top(self) -> float:
        """The upper edge of the clear field behind the figures."""
        return self.y - 7

    @property
    def width(self) -> float:
        """The width of that field."""
        return 8.6 * len(self.text)


@dataclass(frozen=True)
class Drawing:
    """Paths of the two strips and the curves, the figures beside the scales, and each scale's place
    and title."""

    water: str
    reserve: str
    dips: bool
    curves: tuple[tuple[str, str], ...]
    tags: tuple[Tag, ...]
    scales: tuple[tuple[float, str], ...]
    marks: tuple[tuple[float, str], ...]


def drawn(ribbon: Ribbon, units: str) -> Drawing:
    """A ribbon in a field of 470 by 250."""
    named = [("cut_out", ribbon.cut_out), ("cut_in", ribbon.cut_in)]
    low = ribbon.pre_charge or ribbon.settled
    if low is not None:
        named.append(("pre_charge" if ribbon.pre_charge else "settled", low))
    places = {name: _places(ribbon, level) for name, level in named}
    last = list(places)[-1]
    return Drawing(
        water=_strip(places["cut_out"], places["cut_in"]),
        reserve=_strip(places["cut_in"], places[last]) if ribbon.pre_charge else "",
        dips=ribbon.dips,
        curves=tuple((name, f"M{_curve(at)}") for name, at in places.items()),
        tags=_tags(ribbon, named, places, units),
        scales=tuple(
            zip(XS, ("Pressure", ribbon.held_title, "Pump time")[: _count(ribbon)], strict=False)
        ),
        marks=tuple(
            (_height(m.gauge_pa, ribbon.scales.gauge), m.title)
            for m in ribbon.marks
            if ribbon.scales.gauge.least <= m.gauge_pa <= ribbon.scales.gauge.most
        ),
    )


def _count(ribbon: Ribbon) -> int:
    """Pump time has no scale where the pump never gets to cut-out."""
    return 2 if ribbon.cut_out.run_s is None else 3


def _height(value: float, scale: Scale) -> float:
    """A height on paper; a value beyond the scale stays at its end."""
    share = (value - scale.least) / (scale.most - scale.least)
    return BOTTOM - min(max(share, 0.0), 1.0) * (BOTTOM - TOP)


def _places(ribbon: Ribbon, level: Level) -> list[float]:
    """The heights of one level on the scales that there are."""
    scales = ribbon.scales
    heights = [_height(level.gauge_pa, scales.gauge), _height(level.held_m3, scales.held)]
    if ribbon.cut_out.run_s is not None:
        run = scales.run.most if level.run_s is None else level.run_s
        heights.append(_height(run, scales.run))
    return heights


def _curve(heights: Sequence[float], xs: Sequence[float] = XS) -> str:
    """A curve that crosses each scale level, from the first on."""
    xs = xs[: len(heights)]
    path = f"{xs[0]:.1f} {heights[0]:.1f}"
    for (x, y), (to_x, to_y) in pairwise(zip(xs, heights, strict=True)):
        middle = (x + to_x) / 2
        path += f" C{middle:.1f} {y:.1f} {middle:.1f} {to_y:.1f} {to_x:.1f} {to_y:.1f}"
    return path


def _strip(upper: Sequence[float], lower: Sequence[float]) -> str:
    """Out along one curve and back along the other."""
    return f"M{_curve(upper)} L{_curve(lower[::-1], XS[: len(lower)][::-1])} Z"


def _tags(
    ribbon: Ribbon, named: list[tuple[str, Level]], places: dict[str, list[float]], units: str
) -> tuple[Tag, ...]:
    """Each level's figures: pressure to the left, what is held beside the middle, time to the
    right."""
    told = []
    for scale, (dx, anchor) in enumerate(
        ((-9, "end"), (9, "start"), (9, "start"))[: _count(ribbon)]
    ):
        # time counts from cut-in: below it there is none
        shown = named[:2] if scale == 2 else named
        rows = sorted(
            (places[name][scale], name, _figure(ribbon, name, level, scale, units))
            for name, level in shown
        )
        for y, (_, name, said) in zip(spread([row[0] for row in rows]), rows, strict=True):
            told.append(Tag(XS[scale] + dx, y, anchor, said, name))
    return tuple(told)


def _figure(ribbon: Ribbon, name: str, level: Level, scale: int, units: str) -> str:
    """One figure in words; the pre-charge as it is read at the tank."""
    if scale == 0:
        there = level.gauge_pa - (ribbon.tank_head_pa if name == "pre_charge" else 0.0)
        return text(there, "pressure", units)
    if scale == 1:
        return text(level.held_m3, ribbon.held_dimension, units)
    return "–" if level.run_s is None else text(level.run_s, "duration", units)


def spread(heights: list[float]) -> list[float]:
    """Heights (rising) moved apart so that figures do not overlap."""
    placed: list[float] = []
    for y in heights:
        placed.append(max(y, placed[-1] + _APART) if placed else y)
    over = max(placed[-1] - (BOTTOM + 4), 0.0) if placed else 0.0
    return [y - over for y in placed]
