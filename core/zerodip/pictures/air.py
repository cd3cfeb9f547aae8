"""The ribbon of a receiver: gauge pressure, free air held, pump time; below cut-out the pressure it settles to."""

from ..cycles.fill import fill_seconds
from ..facts import ReceiverFacts
from ..units import PSI, Shown
from .parts import Level, Mark, Ribbon, band_grips, marks_of

__all__ = ["air_ribbon"]

_STEPS = 4


def air_ribbon(facts: ReceiverFacts, f: Shown) -> Ribbon:
    """The ribbon of one compressor under its settings; reasons worded in the units of `f`."""
    marks = _marks(facts, f)
    held = [mark.gauge_pa for mark in marks if mark.holds]
    width = (facts.cut_out_pa - facts.cut_in_pa) / _STEPS
    return Ribbon(
        holds="air",
        held_title="Free air held",
        held_dimension="air_volume",
        flow_dimension="air_flow",
        cut_out=_level(facts, facts.cut_out_pa),
        cut_in=_level(facts, facts.cut_in_pa),
        pre_charge=None,
        settled=_level(facts, facts.settled_pa),
        threads=tuple(_level(facts, facts.cut_in_pa + width * k) for k in range(1, _STEPS)),
        ghost=(),
        marks=tuple(marks),
        grips=band_grips(facts, marks),
        gauge_least_pa=max(facts.cut_in_pa - 20 * PSI, 0.0),
        gauge_most_pa=max(facts.cut_out_pa + 8 * PSI, min(held) + 5 * PSI if held else 0.0),
    )


def _level(facts: ReceiverFacts, gauge_pa: float) -> Level:
    held = facts.store.held_m3(gauge_pa)
    if held >= facts.kept_m3:
        run = fill_seconds(facts.store.fill, facts.kept_m3, min(held, facts.full_m3))
    else:
        run = -fill_seconds(facts.store.fill, max(held, 0.0), facts.kept_m3)
    return Level(gauge_pa=gauge_pa, held_m3=max(held, 0.0), run_s=round(run, 4))


def _marks(facts: ReceiverFacts, f: Shown) -> list[Mark]:
    def less(limit: float | None) -> float | None:
        return None if limit is None else limit - facts.gauge_error_pa

    error = ", less {f.gauge_error_pa:pressure} for the gauge."
    return marks_of(
        [
            (
                "receiver",
                "plate",
                less(facts.receiver_max_pa),
                "Held at the receiver plate, {f.receiver_max_pa:pressure}" + error,
            ),
            (
                "compressor",
                "pump",
                less(facts.compressor_max_pa),
                "Held at the compressor's {f.compressor_max_pa:pressure}" + error,
            ),
            (
                "relief",
                "valve − 10 %",
                less(facts.relief_limit_pa),
                "Held a tenth below the safety valve, {f.relief_pa:pressure}" + error,
            ),
            (
                "switch",
                "switch",
                facts.switch_most_out_pa,
                "Held at the switch's range, {f.switch_most_out_pa:pressure}.",
            ),
        ],
        f,
    )
