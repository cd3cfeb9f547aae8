"""How often the pump starts, and at which draw it starts most often."""

from dataclasses import dataclass

from zerodip.physics.fill import STALLED, FillLine, fill_seconds, fill_time_derivatives, pieces

__all__ = ["WorstDraw", "period_s", "starts_per_s", "worst_draw"]


@dataclass(frozen=True)
class WorstDraw:
    """The draw (m³/s) that makes the pump start most often, and that rate (1/s)."""

    draw_m3_s: float
    starts_per_s: float


def period_s(line: FillLine, low: float, high: float, draw: float) -> float:
    """Seconds from one start to the next at a steady `draw` (m³/s) between `low` and `high` m³ of
    water held: off time drawdown / draw, and the fill against the draw. Infinity when nothing is
    drawn or the pump never gets there.

    Args:
        line: The fill table.
        low: Water held at cut-in, m³, 0 or more.
        high: Water held at cut-out, m³, not below `low`.
        draw: Steady draw, m³/s, 0 or more.

    Returns:
        Time from start to start, s, above 0.

    Source: Mass balance of tank and pump.
    """
    if draw <= 0:
        return STALLED
    return (high - low) / draw + fill_seconds(line, low, high, draw)


def starts_per_s(line: FillLine, low: float, high: float, draw: float) -> float:
    """Starts per second at a steady `draw`; 0 where the pump does not cycle.

    Args:
        line: The fill table.
        low: Water held at cut-in, m³, 0 or more.
        high: Water held at cut-out, m³, not below `low`.
        draw: Steady draw, m³/s, 0 or more.

    Returns:
        Starts, 1/s, 0 or more.

    Source: Mass balance of tank and pump.
    """
    period = period_s(line, low, high, draw)
    return 1 / period if period > 0 else STALLED


def worst_draw(line: FillLine, low: float, high: float) -> WorstDraw | None:
    """The draw with the most starts, or None when nothing is stored or the pump never reaches
    cut-out. The period is convex in the draw, so its slope has one zero: Newton's steps, kept
    inside a closing bracket. For a constant flow Q it is Q/2 and the rate is Q/(4 D): the
    sump-sizing law (ANSI/HI 9.8, from memory).

    Args:
        line: The fill table.
        low: Water held at cut-in, m³, 0 or more.
        high: Water held at cut-out, m³, not below `low`.

    Returns:
        The draw and its starts; None where there is none.

    Source: ANSI/HI 9.8, sump sizing, from memory; mass balance.
    """
    most, drawdown = line.flows_m3_s[-1], high - low
    if drawdown <= 0 or most <= 0:
        return None
    way, left, right, draw = pieces(line, low, high), 0.0, most, most / 2
    for _ in range(60):
        first, second = fill_time_derivatives(way, draw)
        slope, bend = first - drawdown / draw**2, second + 2 * drawdown / draw**3
        left, right = (left, draw) if slope > 0 else (draw, right)
        step = draw - slope / bend
        following = step if left < step < right else (left + right) / 2
        if abs(following - draw) <= 1e-9 * most:
            break
        draw = following
    return WorstDraw(draw, starts_per_s(line, low, high, draw))
