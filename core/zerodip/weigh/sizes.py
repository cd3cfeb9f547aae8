"""The least tank (or receiver, or accumulator) for a wanted run or rate of starts, and the sizes that can be bought."""

from collections.abc import Iterable
from dataclasses import dataclass, replace
from math import isfinite

from ..facts import Facts, ReceiverFacts, TanklessFacts, WaterFacts, facts_for
from ..sources import BOOSTER_FORM
from ..system import (
    Accumulator,
    CompressorSystem,
    Practice,
    Receiver,
    Settings,
    System,
    Tank,
    TanklessSystem,
    WaterSystem,
)
from ..units import Shown, text, to_si

__all__ = [
    "NOMINAL_SIZES_M3",
    "SecondOpinion",
    "Size",
    "Sizing",
    "Target",
    "booster_form_m3",
    "nominal_sizes",
    "sizing",
]

_LEAST_M3, _MOST_M3 = 0.0005, 20.0
_LEAST_SMALL_M3, _MOST_SMALL_M3 = 0.00005, 0.1
_GALLONS = (2, 5, 10, 15, 20, 30, 40, 50, 60, 80, 100, 120, 200, 300, 500)
_LITRES = (8, 12, 18, 24, 35, 50, 60, 80, 100, 150, 200, 250, 300, 400, 500, 750, 1000, 1500, 2000, 3000)
_SMALL_LITRES = (0.16, 0.35, 0.5, 0.75, 1, 1.5, 2, 3, 5, 8)
NOMINAL_SIZES_M3 = {
    "us": tuple(to_si(v, "gal") for v in _GALLONS),
    "metric": tuple(to_si(v, "L") for v in _LITRES),
    "kpa": tuple(to_si(v, "L") for v in _LITRES),
}


@dataclass(frozen=True, kw_only=True)
class Target:
    """What is wanted: a `run` of at least `value` s, or `starts` of at most `value` per second at the worst draw (for a
    tankless pump: pulses at the smallest outlet)."""

    kind: str
    value: float


@dataclass(frozen=True, kw_only=True)
class Size:
    """One nominal volume: what run (s; None where a run says nothing) and rate of starts (1/s) it gives, and whether that meets
    the target."""

    volume_m3: float
    run_s: float | None
    starts_per_s: float | None
    meets: bool


@dataclass(frozen=True, kw_only=True)
class SecondOpinion:
    """The European booster form's volume (m³), with the difference explained."""

    volume_m3: float
    says: str
    source: str


@dataclass(frozen=True, kw_only=True)
class Sizing:
    """The least volume in place of what is there, and the least beside it (0 where nothing is needed, None where no volume
    does it); the nominal sizes around each, and the second opinion. `says` tells it in a sentence."""

    have_m3: float
    meets_now: bool
    least_m3: float | None
    added_m3: float | None
    instead: tuple[Size, ...]
    beside: tuple[Size, ...]
    second: SecondOpinion | None
    says: str


def nominal_sizes(system: System, units: str) -> tuple[float, ...]:
    """The nominal volumes (m³) usually sold, round in the units asked for; accumulators are smaller."""
    if isinstance(system, TanklessSystem):
        return tuple(to_si(v, "L") for v in _SMALL_LITRES)
    return NOMINAL_SIZES_M3[units]


def sizing(
    system: System,
    settings: Settings,
    practice: Practice | None = None,
    target: Target | None = None,
    nominal_m3: Iterable[float] | None = None,
    units: str = "us",
) -> Sizing:
    """Sizes for `target` (by default the run that the school wants, or the starts that the motor bears) at these settings.
    Added tanks take the pre-charge set. Raises InvalidInput for settings that lack what this kind needs."""
    shop = _Shop(system, settings, practice or Practice(), target)
    offered = sorted(nominal_m3 if nominal_m3 is not None else nominal_sizes(system, units))
    least, added = shop.least_instead(), shop.least_beside()
    return Sizing(
        have_m3=shop.have_m3,
        meets_now=shop.meets(shop.now),
        least_m3=least,
        added_m3=added,
        instead=tuple(shop.size(v, False) for v in _around(offered, least)),
        beside=tuple(shop.size(v, True) for v in _around(offered, added)) if shop.takes_more and added else (),
        second=_second(shop, units),
        says=_says(shop, least, added, units),
    )


def _around(offered: list[float], least: float | None) -> list[float]:
    """One size below the least, and the next three up."""
    if least is None:
        return offered[-1:]
    above = [v for v in offered if v >= least]
    return offered[: len(offered) - len(above)][-1:] + above[:3]


class _Shop:
    """One system and one target; tries volumes."""

    def __init__(self, system: System, settings: Settings, practice: Practice, target: Target | None) -> None:
        renewed = replace(settings, air_renewed=True) if system.kind == "well_air" else settings
        self.system, self.settings, self.practice = system, renewed, practice
        self.now = facts_for(system, renewed, practice)
        self.target = target or _default(self.now)
        self.takes_more = not isinstance(system, TanklessSystem)
        small = isinstance(system, TanklessSystem)
        self.least_m3, self.most_m3 = (_LEAST_SMALL_M3, _MOST_SMALL_M3) if small else (_LEAST_M3, _MOST_M3)

    @property
    def have_m3(self) -> float:
        if isinstance(self.now, TanklessFacts):
            return self.now.accumulator_m3 or 0.0
        return getattr(self.now, "nominal_m3", None) or self.now.volume_m3  # type: ignore[attr-defined,no-any-return]

    def facts(self, volume: float, beside: bool) -> Facts:
        return facts_for(_resized(self.system, volume, beside), self._filled(), self.practice)

    def _filled(self) -> Settings:
        """An accumulator that is only thought of has its air a little below cut-in."""
        if isinstance(self.system, TanklessSystem) and self.system.accumulator is None:
            return replace(self.settings, pre_charge_gauge_pa=0.9 * self.settings.cut_in_gauge_pa)
        return self.settings

    def merit(self, facts: Facts) -> float:
        """At least 1 where the target is met; grows with the volume."""
        if self.target.kind == "run":
            return getattr(facts, "run_s", 0.0) / self.target.value
        starts = _starts(facts)
        return float("inf") if not starts else self.target.value / starts

    def meets(self, facts: Facts) -> bool:
        return self.merit(facts) >= 1 - 1e-9

    def least_instead(self) -> float | None:
        return self._least(beside=False)

    def least_beside(self) -> float | None:
        if self.meets(self.now):
            return 0.0
        return self._least(beside=True) if self.takes_more else None

    def _least(self, beside: bool) -> float | None:
        """By bisection in the logarithm of the volume, to a relative 1e-9."""
        low, high = self.least_m3, self.most_m3
        if not self.meets(self.facts(high, beside)):
            return None
        if self.meets(self.facts(low, beside)):
            return low
        guess = self._linear(high, beside)
        for _ in range(60):
            middle = guess if guess and low < guess < high else (low * high) ** 0.5
            low, high, guess = (
                (low, middle, middle * (1 - 1e-9))
                if self.meets(self.facts(middle, beside))
                else (middle, high, middle * (1 + 1e-9))
            )
            if high <= low * (1 + 4e-9):
                break
        return high

    def _linear(self, high: float, beside: bool) -> float:
        """A first guess: run and rest both grow in step with the volume."""
        most = self.merit(self.facts(high, beside))
        none = self.merit(self.now) if beside else 0.0
        return high * (1 - none) / (most - none) if isfinite(most) and most > none else 0.0

    def size(self, volume: float, beside: bool) -> Size:
        facts = self.facts(min(max(volume, self.least_m3), self.most_m3), beside)
        run = getattr(facts, "run_s", None)
        starts = _starts(facts)
        return Size(
            volume_m3=volume,
            run_s=run if run is not None and isfinite(run) else None,
            starts_per_s=starts if starts is not None and isfinite(starts) else None,
            meets=self.meets(facts),
        )


def _starts(facts: Facts) -> float | None:
    if isinstance(facts, TanklessFacts):
        return facts.pulses_per_s
    starts: float | None = facts.worst_starts_per_s  # type: ignore[attr-defined]
    return starts


def _default(facts: Facts) -> Target:
    if isinstance(facts, WaterFacts):
        return Target(kind="run", value=facts.wanted_run_s)
    if isinstance(facts, TanklessFacts):
        return Target(kind="starts", value=facts.tolerable_pulses_per_s)
    limit = facts.hourly_limit_per_s if isinstance(facts, ReceiverFacts) else None
    return Target(kind="starts", value=limit or 10 / 3600)


def _resized(system: System, volume: float, beside: bool) -> System:
    if isinstance(system, WaterSystem):
        plate = min((t.max_gauge_pa for t in system.tanks if t.max_gauge_pa), default=None)
        tank = Tank(volume_m3=volume, max_gauge_pa=plate)
        return replace(system, tanks=(*system.tanks[:11], tank) if beside else (tank,))
    if isinstance(system, CompressorSystem):
        receiver = Receiver(volume_m3=volume)
        return replace(system, receivers=(*system.receivers[:5], receiver) if beside else (receiver,))
    return replace(system, accumulator=Accumulator(volume_m3=volume))


def booster_form_m3(flow_m3_s: float, in_gauge_pa: float, out_gauge_pa: float, starts_per_s: float) -> float:
    """The European form for boosters, V = 0.33·Q·(p_out + 1)/((p_out − p_in)·s), Q in m³/h, pressures in bar gauge, s per hour;
    here in SI. It has no pre-charge: it is the exact law for a constant flow at an absolute pre-charge of about 0.76 of the
    absolute cut-in. Source: DIN 1988, from memory."""
    low, high = in_gauge_pa / 1e5, out_gauge_pa / 1e5
    return 0.33 * (flow_m3_s * 3600) * (high + 1) / ((high - low) * starts_per_s * 3600)


def _second(shop: _Shop, units: str) -> SecondOpinion | None:
    facts = shop.now
    if not isinstance(facts, WaterFacts) or facts.cut_in_flow_m3_s <= 0:
        return None
    starts = shop.target.value if shop.target.kind == "starts" else 1 / (4 * shop.target.value)
    volume = booster_form_m3(facts.cut_in_flow_m3_s, facts.cut_in_pa, facts.cut_out_pa, starts)
    share = facts.pre_charge_abs_pa / facts.cut_in_abs_pa
    leaning = "generous" if share > 0.757 else "too small"
    f = Shown(facts, units)
    says = (
        f"0.33·Q·(out + 1)/((out − in)·s) with the flow at cut-in, {f.cut_in_flow_m3_s:flow}, and "
        f"{text(starts, 'rate', units)}. It has no "
        f"pre-charge in it: it fits one at 0.76 of cut-in, both absolute. Here it is {share:.2f} of it, so the form is {leaning}."
    )
    return SecondOpinion(volume_m3=volume, says=says, source=BOOSTER_FORM.line)


def _says(shop: _Shop, least: float | None, added: float | None, units: str) -> str:
    wanted = (
        f"a run of {text(shop.target.value, 'duration', units)}"
        if shop.target.kind == "run"
        else f"at most {text(shop.target.value, 'per_minute', units)} pulses"
        if isinstance(shop.now, TanklessFacts)
        else f"at most {text(shop.target.value, 'rate', units)} starts"
    )
    if isinstance(shop.now, TanklessFacts) and not shop.now.pulses_at_all:
        return "The pump runs through at the smallest outlet: no accumulator is needed."
    if added == 0.0:
        aired = ", once it has its air again," if shop.system.kind == "well_air" else ","
        return f"What is there, {text(shop.have_m3, 'volume', units)}{aired} gives {wanted}."
    if least is None:
        return f"No size gives {wanted} at these settings: look at pre-charge, cut-out and dead-head first."
    said = f"For {wanted}: {text(least, 'volume', units)} at least in all, if it is one tank"
    return said + (f"; or {text(added, 'volume', units)} beside what is there." if added else ".")
