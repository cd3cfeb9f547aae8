"""What is only known within something on a tankless pump.

Shares are 95 times in a hundred; common practice, no source.
"""

from dataclasses import replace

from zerodip.kinds.inputs import (
    DOUBLED,
    Input,
    Off,
    gauge_off,
    point_inputs,
    within,
)
from zerodip.kinds.tankless.figures import TanklessFigures as T
from zerodip.text.figure import Reading

__all__ = ["INPUTS"]

_CURVE, _OUTLET, _VOLUME = 0.1, 0.15, 0.03
_METER_V, _ASSUMED_V, _INTERCEPT_V = 0.1, 1.0, 1.0
_BATTERY, _POINTS = "system.battery", "system.pump.points"
_WINDOW = (T.running_pa, T.pulses_per_s)


def _stronger(figures: T, by: float) -> T:
    """The pump's flows elsewhere."""
    flows = tuple(flow * (1 + by) for flow in figures.curve.flows_m3_s)
    return figures.varied({T.curve: replace(figures.curve, flows_m3_s=flows)})


def _higher(figures: T, by: float) -> T:
    """The pump's pressures elsewhere."""
    gauges = tuple(gauge * (1 + by) for gauge in figures.curve.gauges_pa)
    return figures.varied({T.curve: replace(figures.curve, gauges_pa=gauges)})


def _intercept_off(figures: T) -> Off:
    """A few tenths to two volts where nobody measured."""
    pump = figures.system.pump
    known = pump.second_v is not None or pump.intercept_v is not None
    return (0.0, 0.0) if known or pump.works == "centrifugal" else (0.0, _INTERCEPT_V)


def _voltage_off(figures: T) -> Off:
    by = _ASSUMED_V if figures.is_assumed(_BATTERY) else _METER_V
    return -by, by


def _wider(figures: T, by: float) -> T:
    """The outlets pass more."""
    outlets = tuple(
        replace(each, flow_m3_s=each.flow_m3_s * (1 + by)) for each in figures.system.outlets
    )
    return figures.varied({}, replace(figures.system, outlets=outlets))


def _volume_off(figures: T) -> Off:
    if figures.accumulator_m3 is None:
        return 0.0, 0.0
    return DOUBLED if figures.is_assumed("system.accumulator") else (-_VOLUME, _VOLUME)


def _charge_off(figures: T) -> Off:
    return (0.0, 0.0) if figures.pre_charge_pa is None else gauge_off(figures)


def _charged(figures: T, by: float) -> T:
    return figures.varied({T.pre_charge_pa: max((figures.pre_charge_pa or 0.0) + by, 0.0)})


_STORED = (T.drawdown_m3, T.pulses_per_s)

INPUTS: tuple[Input[T], ...] = (
    *point_inputs(
        both=(*_STORED, T.cut_out_pa),
        low=_STORED,
        high=(*_STORED, T.cut_out_pa),
    ),
    Input(
        reading=Reading(_POINTS + ".0.flow_m3_s", "the pump's flow, with a bucket and a watch"),
        path=_POINTS,
        off=within(_POINTS, _CURVE),
        moved=_stronger,
        moves=_WINDOW,
    ),
    Input(
        reading=Reading(_POINTS + ".0.gauge_pa", "the pump's dead-head, all taps shut"),
        path=_POINTS,
        off=within(_POINTS, _CURVE),
        moved=_higher,
        moves=(*_WINDOW, T.dead_head_pa),
    ),
    Input(
        reading=Reading("system.pump.second_v", "the dead-head at a second voltage"),
        off=_intercept_off,
        moved=lambda figures, by: figures.varied({T.intercept_v: figures.intercept_v + by}),
        moves=(*_WINDOW, T.dead_head_pa),
    ),
    Input(
        reading=Reading("system.battery.least_v", "the lowest voltage at the pump, by a meter"),
        path=_BATTERY,
        off=_voltage_off,
        moved=lambda figures, by: figures.varied({T.least_v: figures.least_v + by}),
        moves=(T.dead_head_pa,),
    ),
    Input(
        reading=Reading("system.battery.most_v", "the highest voltage at the pump, by a meter"),
        path=_BATTERY,
        off=_voltage_off,
        moved=lambda figures, by: figures.varied({T.most_v: figures.most_v + by}),
        moves=_WINDOW,
    ),
    Input(
        reading=Reading("system.outlets.0.flow_m3_s", "the smallest outlet, with a bucket"),
        path="system.outlets",
        off=within("system.outlets", _OUTLET),
        moved=_wider,
        moves=_WINDOW,
    ),
    Input(
        reading=Reading("system.accumulator.volume_m3", "the accumulator's volume"),
        path="system.accumulator",
        off=_volume_off,
        moved=lambda figures, by: figures.varied(
            {T.accumulator_m3: (figures.accumulator_m3 or 0.0) * (1 + by)}
        ),
        moves=_STORED,
    ),
    Input(
        reading=Reading("practice.gauge_error_pa", "the pre-charge on a finer gauge"),
        off=_charge_off,
        moved=_charged,
        moves=_STORED,
    ),
)
