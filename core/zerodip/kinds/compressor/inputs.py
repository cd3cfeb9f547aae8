"""What is only known within something on a compressor.

Shares are 95 times in a hundred. Free air delivery off its plate: ISO 1217:2009 annex C, small
compressors (from memory). Half of a gauge's stated error is chance from reading to reading.
Everything else: common practice, no source.
"""

from dataclasses import replace

from zerodip.kinds.compressor.figures import CompressorFigures as C
from zerodip.kinds.inputs import Input, Off, half_gauge_off, point_inputs, within
from zerodip.kinds.protocol import Edge
from zerodip.text.figure import Reading

__all__ = ["EDGES", "INPUTS"]

_PLATE_VOLUME, _FREE_AIR, _USE = 0.03, 0.07, 0.2
_HOTTER_K = 15.0
_CYCLE = (C.between_m3, C.full_m3, C.run_s, C.worst_starts_per_s, C.duty)
_HOT = (*_CYCLE, C.pump_up_s)


def _resized(figures: C, by: float) -> C:
    receivers = tuple(
        replace(each, volume_m3=each.volume_m3 * (1 + by)) for each in figures.system.receivers
    )
    return figures.varied({}, replace(figures.system, receivers=receivers))


def _stronger(figures: C, by: float) -> C:
    pump = figures.system.pump
    points = tuple(replace(each, flow_m3_s=each.flow_m3_s * (1 + by)) for each in pump.points)
    return figures.varied({}, replace(figures.system, pump=replace(pump, points=points)))


def _use_off(figures: C) -> Off:
    return (0.0, 0.0) if figures.use_m3_s is None else (-_USE, _USE)


def _leak_off(figures: C) -> Off:
    return (0.0, 0.0) if figures.system.leak_test is None else half_gauge_off(figures)


def _leaked(figures: C, by: float) -> C:
    """The first reading of the leak watch elsewhere; the second is as unsure."""
    test = figures.system.leak_test
    if test is None:
        return figures
    first = max(test.from_gauge_pa + by * 2**0.5, test.to_gauge_pa)
    moved = replace(test, from_gauge_pa=first)
    return figures.varied({}, replace(figures.system, leak_test=moved))


EDGES = (
    Edge(point="cut_out", gauge=C.cut_out_pa, held=C.full_m3, run=C.run_s),
    Edge(point="cut_in", gauge=C.cut_in_pa, held=C.kept_m3),
)

INPUTS: tuple[Input[C], ...] = (
    *point_inputs(
        both=(*_HOT, C.cut_out_pa, C.cut_in_pa, C.kept_m3),
        low=(*_CYCLE, C.cut_in_pa, C.kept_m3),
        high=(*_HOT, C.cut_out_pa),
    ),
    Input(
        reading=Reading("system.receivers.0.volume_m3", "the receiver's volume, on its plate"),
        path="system.receivers",
        off=within("system.receivers", _PLATE_VOLUME),
        moved=_resized,
        moves=(*_HOT, C.kept_m3, C.leak_m3_s),
    ),
    Input(
        reading=Reading(
            "system.pump.points.0.flow_m3_s", "the free air delivery, by a timed pump-up"
        ),
        path="system.pump.points",
        off=within("system.pump.points", _FREE_AIR),
        moved=_stronger,
        moves=_HOT,
    ),
    Input(
        reading=Reading("system.delivery_k", "how hot the air enters the receiver"),
        off=lambda figures: (-_HOTTER_K, _HOTTER_K),
        moved=lambda figures, by: figures.varied({C.delivery_k: figures.delivery_k + by}),
        moves=_HOT,
    ),
    Input(
        reading=Reading("system.use.use_m3_s", "the air that the tools use"),
        off=_use_off,
        moved=lambda figures, by: figures.varied(
            {C.use_m3_s: (figures.use_m3_s or 0.0) * (1 + by)}
        ),
        moves=(C.duty,),
    ),
    Input(
        reading=Reading("system.leak_test", "the leak watch on a finer gauge, or for longer"),
        off=_leak_off,
        moved=_leaked,
        moves=(C.leak_m3_s, C.duty),
    ),
)
