"""The window of a tankless pump on paper: dead-head and running pressure against voltage, cut-out
and cut-in across them."""

from dataclasses import dataclass

from zerodip.kinds.window import Window
from zerodip.units import text

from .drawing import Tag, spread

__all__ = ["WindowDrawing", "drawn_window"]

LEFT, RIGHT, TOP, BOTTOM = 96.0, 340.0, 34.0, 216.0


@dataclass(frozen=True)
class WindowDrawing:
    """The paths of both curves, the band between the points, the heights of cut-out and cut-in, the
    span of voltages used, and the words beside them."""

    dead_head: str
    running: str
    cut_out: float
    cut_in: float
    used: tuple[float, float]
    tags: tuple[Tag, ...]
    volts: tuple[tuple[float, str], ...]

    @property
    def width(self) -> float:
        """Of the field of voltages used."""
        return self.used[1] - self.used[0]


def drawn_window(window: Window, units: str) -> WindowDrawing:
    """A window in a field of 470 by 250."""
    first, last = window.points[0], window.points[-1]

    def x(volts: float) -> float:
        return LEFT + (volts - first.volts) / (last.volts - first.volts) * (RIGHT - LEFT)

    def y(gauge_pa: float) -> float:
        return BOTTOM - min(max(gauge_pa / window.gauge_most_pa, 0.0), 1.0) * (BOTTOM - TOP)

    def path(name: str) -> str:
        return "M" + " L".join(f"{x(p.volts):.1f} {y(getattr(p, name)):.1f}" for p in window.points)

    ends = [("dead-head", last.dead_head_gauge_pa), (window.outlet, last.running_gauge_pa)]
    points = [("cut_out", window.cut_out_gauge_pa), ("cut_in", window.cut_in_gauge_pa)]
    return WindowDrawing(
        dead_head=path("dead_head_gauge_pa"),
        running=path("running_gauge_pa"),
        cut_out=y(window.cut_out_gauge_pa),
        cut_in=y(window.cut_in_gauge_pa),
        used=(x(window.least_v), x(window.most_v)),
        tags=(
            *_beside(
                [(name, y(pa), text(pa, "pressure", units)) for name, pa in points], LEFT - 9, "end"
            ),
            *_beside([(name, y(pa), name[:14]) for name, pa in ends], RIGHT + 9, "start"),
        ),
        volts=tuple((x(v), text(v, "voltage", units)) for v in (window.least_v, window.most_v)),
    )


def _beside(rows: list[tuple[str, float, str]], x: float, anchor: str) -> list[Tag]:
    """Words beside a scale, moved apart where they would overlap."""
    rows = sorted(rows, key=lambda row: row[1])
    places = spread([y for _, y, _ in rows])
    return [Tag(x, y, anchor, said, name) for y, (name, _, said) in zip(places, rows, strict=True)]
