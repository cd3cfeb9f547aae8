"""What is only known within something on a water system.

Shares are 95 times in a hundred. Pumps off their curve or plate: ISO 9906:2012 grade 3B (from
memory). Half of a gauge's stated error is chance from reading to reading. Everything else: common
practice, no source.
"""

from dataclasses import replace

from zerodip.kinds.inputs import Input, Off, gauge_off, half_gauge_off, point_inputs, within
from zerodip.kinds.protocol import Edge
from zerodip.kinds.water.figures import WaterFigures as W
from zerodip.kinds.water.pumps import ConstantFlow, HeadCurve, RatedPoint
from zerodip.physics.atmosphere import head_pa
from zerodip.physics.pump_delivery import SHUT_OFF_RATIO, Delivery, rated_delivery
from zerodip.switch.normal import chance_below
from zerodip.text.figure import Reading

__all__ = ["EDGES", "INPUTS", "bounds", "never_stops"]

_BUCKET, _CURVE_FLOW, _CURVE_HEAD, _PLATE_VOLUME = 0.05, 0.09, 0.07, 0.03
_SHUT_OFF: Off = (1.15 / SHUT_OFF_RATIO - 1, 1.6 / SHUT_OFF_RATIO - 1)
_FLOW = "system.pump.flow_m3_s"
_START = (
    W.start_lowest_pa,
    W.largest_pre_charge_pa,
    W.trip_margin_pa,
    W.dip_need_m3,
    W.slow_lowest_pa,
    W.balance_pa,
    W.seal_m3,
)
_STORED = (W.drawdown_m3, W.reserve_m3, W.full_m3)
_PUMPED = (W.run_s, W.worst_starts_per_s)


def _charge_off(figures: W) -> Off:
    """A plain tank that was filled at the atmosphere needs no gauge for its air."""
    at_atmosphere = figures.system.plain and not figures.pre_charge_pa
    return (0.0, 0.0) if at_atmosphere else gauge_off(figures)


def _charged(figures: W, by: float) -> W:
    """Every tank's pre-charge elsewhere, those with their own too."""
    own = tuple(
        tank
        if tank.pre_charge_gauge_pa is None
        else replace(tank, pre_charge_gauge_pa=max(tank.pre_charge_gauge_pa + by, 0.0))
        for tank in figures.system.tanks
    )
    charge = max(figures.pre_charge_pa + by, 0.0)
    return figures.varied({W.pre_charge_pa: charge}, replace(figures.system, tanks=own))


def _resized(figures: W, by: float) -> W:
    tanks = tuple(
        replace(tank, volume_m3=tank.volume_m3 * (1 + by)) for tank in figures.system.tanks
    )
    return figures.varied({}, replace(figures.system, tanks=tanks))


def _flow_off(figures: W) -> Off:
    bucket = isinstance(figures.system.pump, ConstantFlow)
    return within(_FLOW, _BUCKET if bucket else _CURVE_FLOW)(figures)


def _stronger(figures: W, by: float) -> W:
    """The pump's flows elsewhere, at the same heads."""
    system, line = figures.system, figures.line
    if isinstance(system.pump, HeadCurve):
        flows = tuple(flow * (1 + by) for flow in line.flows_m3_s)
        return figures.varied({W.line: replace(line, flows_m3_s=flows)})
    pump = replace(system.pump, flow_m3_s=system.pump.flow_m3_s * (1 + by))
    return figures.varied({W.line: pump.delivery()}, replace(system, pump=pump))


def _head_off(figures: W) -> Off:
    pump = figures.system.pump
    if isinstance(pump, HeadCurve):
        return -_CURVE_HEAD, _CURVE_HEAD
    if pump.dead_head_gauge_pa is not None:
        return gauge_off(figures)
    return _SHUT_OFF if isinstance(pump, RatedPoint) else (0.0, 0.0)


def bounds(figures: W) -> dict[str, float]:
    """The most that can be in the tanks: as large as their plates may be off, and no more than
    their bladders accept.

    Args:
        figures: The system's figures under its settings.

    Returns:
        Volumes, m³, by the figure's name.
    """
    off = max(within("system.tanks", _PLATE_VOLUME)(figures))
    most = (1 + off) * figures.nominal_m3
    if figures.acceptance_m3 is not None and not figures.system.plain:
        most = min(most, figures.acceptance_m3)
    return {each.name: most for each in _STORED}


def never_stops(figures: W) -> float:
    """The chance that the pump never reaches cut-out, by what its dead-head may be off by.

    Args:
        figures: The system's figures under its settings.

    Returns:
        Probability, 0 to 1; 0 for a pump whose dead-head nobody can tell.

    Source: A normal distribution on either side of the dead-head, of which the ends of its range
    are the 95 % ends.
    """
    line = figures.lowest_line
    if len(line.gauges_pa) == 1 and line.dead_head_gauge_pa is None:
        return 0.0
    fall, top = max(figures.inlet_fall_pa, 0.0), _top(line)
    tops = [_top(_higher_line(figures, by)) - fall for by in _head_off(figures)]
    off = figures.cut_out_pa - top
    half = max(tops) - top if off > 0 else top - min(tops)
    return chance_below(off / max(half / 1.96, 1.0))


def _top(line: Delivery) -> float:
    """Where it delivers nothing, as drawn."""
    return line.gauges_pa[-1] if line.dead_head_gauge_pa is None else line.dead_head_gauge_pa


def _higher(figures: W, by: float) -> W:
    """The pump's heads elsewhere: of a curve by a share; a measured dead-head by Pa; an assumed one
    by a share of its total head."""
    return figures.varied({W.line: _higher_line(figures, by)})


def _higher_line(figures: W, by: float) -> Delivery:
    pump, line = figures.system.pump, figures.line
    if isinstance(pump, ConstantFlow):
        return replace(line, dead_head_gauge_pa=(line.dead_head_gauge_pa or 0.0) + by)
    lift, inlet = head_pa(pump.lift_m), pump.inlet_gauge_pa
    if isinstance(pump, HeadCurve):
        gauges = tuple((p + lift - inlet) * (1 + by) - lift + inlet for p in line.gauges_pa)
        return replace(line, gauges_pa=gauges, dead_head_gauge_pa=gauges[-1])
    if pump.dead_head_gauge_pa is not None:
        top, measured = pump.dead_head_gauge_pa + by, True
    else:
        total = (pump.gauge_pa + lift) * SHUT_OFF_RATIO * (1 + by)
        top, measured = total - lift + inlet, False
    made = rated_delivery(pump.flow_m3_s, pump.gauge_pa, pump.lift_m, inlet, top)
    return made if measured else replace(made, dead_head_gauge_pa=None, assumed=True)


def _start_off(figures: W) -> Off:
    return -1 / 3, 1 / 3


def _slower(figures: W, by: float) -> W:
    lag, ramp = (each * (1 + by) for each in (figures.start_lag_s, figures.ramp_s))
    return figures.varied({W.start_lag_s: lag, W.ramp_s: ramp})


def _draw_off(figures: W) -> Off:
    return (0.0, 0.0) if figures.peak_draw_m3_s is None else (-0.2, 0.2)


def _drawn(figures: W, by: float) -> W:
    return figures.varied({W.peak_draw_m3_s: (figures.peak_draw_m3_s or 0.0) * (1 + by)})


def _air_off(figures: W) -> Off:
    """The air left in a plain tank: by the bucket, or down to half where nobody looked."""
    if not figures.system.plain or figures.settings.air_renewed:
        return 0.0, 0.0
    if figures.air_left is not None:
        return -_BUCKET, _BUCKET
    # Less air holds more water, until what stands below gauge zero counts for nothing.
    return -0.5, -0.35, -0.2, 0.0


def _aired(figures: W, by: float) -> W:
    left = 1.0 if figures.air_left is None else figures.air_left
    return figures.varied({W.air_left: left * (1 + by)})


def _found_off(figures: W) -> Off:
    """The points between which water was caught, by the gauge."""
    caught = figures.system.plain and figures.measured_charge_abs_pa is not None
    return half_gauge_off(figures) if caught else (0.0, 0.0)


def _found_low(figures: W, by: float) -> W:
    return _found_at(figures, by, 0.0)


def _found_high(figures: W, by: float) -> W:
    return _found_at(figures, 0.0, by)


def _found_at(figures: W, low: float, high: float) -> W:
    found = figures.system.found
    cut_in = max((found.cut_in_gauge_pa or 0.0) + low, 7e3)
    cut_out = max((found.cut_out_gauge_pa or 0.0) + high, cut_in + 1e3)
    made = replace(found, cut_in_gauge_pa=cut_in, cut_out_gauge_pa=cut_out)
    return figures.varied({}, replace(figures.system, found=made))


def _tap_off(figures: W) -> Off:
    return (0.0, 0.0) if figures.highest_tap_m is None else (-0.5, 0.5)


def _day_off(figures: W) -> Off:
    return (0.0, 0.0) if figures.today_pa is None else (-2.0, 2.0)


def _warmer(figures: W, by: float) -> W:
    now, mean = figures.site.now_k, figures.site.mean_k
    warmer = None if now is None else now + by
    return figures.varied({W.today_pa: figures.charge_at_pa(warmer, mean, figures.pre_charge_pa)})


_LOW = (W.cut_in_pa, *_STORED, *_PUMPED, *_START, W.tap_pa)
_HIGH = (W.cut_out_pa, W.drawdown_m3, W.full_m3, *_PUMPED, W.trip_margin_pa)

EDGES = (
    Edge(point="cut_out", gauge=W.cut_out_pa, held=W.full_m3, run=W.run_s),
    Edge(point="cut_in", gauge=W.cut_in_pa, held=W.reserve_m3),
)
INPUTS: tuple[Input[W], ...] = (
    *point_inputs(
        both=(*_LOW, W.cut_out_pa),
        low=_LOW,
        high=_HIGH,
    ),
    Input(
        reading=Reading("practice.gauge_error_pa", "the pre-charge on a finer gauge"),
        off=_charge_off,
        moved=_charged,
        moves=(W.pre_charge_pa, W.today_pa, *_STORED, *_PUMPED, *_START),
    ),
    Input(
        reading=Reading("system.tanks.0.volume_m3", "the tank's volume, on its plate"),
        path="system.tanks",
        off=within("system.tanks", _PLATE_VOLUME),
        moved=_resized,
        moves=(*_STORED, *_PUMPED, *_START, W.air_left),
    ),
    Input(
        reading=Reading(_FLOW, "the pump's flow, with a bucket and a watch"),
        path=_FLOW,
        off=_flow_off,
        moved=_stronger,
        moves=(*_PUMPED, *_START),
    ),
    Input(
        reading=Reading("system.pump.dead_head_gauge_pa", "the pump's dead-head, all taps shut"),
        off=_head_off,
        moved=_higher,
        moves=(*_PUMPED, *_START, W.dead_head_pa),
    ),
    Input(
        reading=Reading("system.pump.start_lag_s", "how long the pump takes to start, by a watch"),
        off=_start_off,
        moved=_slower,
        moves=_START,
    ),
    Input(
        reading=Reading("system.demand.peak_draw_m3_s", "the peak draw of the house"),
        off=_draw_off,
        moved=_drawn,
        moves=(*_START, W.tap_pa),
    ),
    Input(
        reading=Reading("system.found.caught_m3", "the water caught from cut-out to cut-in"),
        off=_air_off,
        moved=_aired,
        moves=(W.air_left, *_STORED, *_PUMPED, *_START),
    ),
    *(
        Input(
            reading=Reading("practice.gauge_error_pa", "cut-in and cut-out on a finer gauge"),
            off=_found_off,
            moved=moved,
            moves=(W.air_left, *_STORED, *_PUMPED, *_START),
        )
        for moved in (_found_low, _found_high)
    ),
    Input(
        reading=Reading("system.tanks_above_m", "how much higher the tanks stand than the gauge"),
        off=lambda figures: (-0.3, 0.3) if figures.system.tanks_above_m else (0.0, 0.0),
        moved=lambda figures, by: figures.varied(
            {W.tank_head_pa: figures.tank_head_pa + head_pa(by)}
        ),
        moves=(*_STORED, *_PUMPED, *_START, W.air_left),
    ),
    Input(
        reading=Reading("system.demand.highest_tap_m", "the height of the highest tap"),
        off=_tap_off,
        moved=lambda figures, by: figures.varied(
            {W.highest_tap_m: (figures.highest_tap_m or 0.0) + by}
        ),
        moves=(W.tap_pa,),
    ),
    Input(
        reading=Reading("system.site.now_k", "the temperature at the tank"),
        off=_day_off,
        moved=_warmer,
        moves=(W.today_pa,),
    ),
)
