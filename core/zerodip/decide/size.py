"""The least tank (or receiver, or accumulator) for a wanted run or rate of starts, and the sizes
that can be bought."""

from collections.abc import Iterable
from dataclasses import dataclass
from math import isfinite

from zerodip.kinds.figures import Figures
from zerodip.kinds.parts import System
from zerodip.kinds.registry import figures_for, kind_of
from zerodip.kinds.settings import Practice, Settings
from zerodip.text.writer import Writer
from zerodip.units import text

__all__ = ["SecondOpinion", "Size", "Sizing", "Target", "nominal_sizes", "sizing"]

_GUESSES = 4
_MET = 1 - 1e-9
_NEAR, _CLOSED = 1e-9, 4e-9  # relative: how near a guess is tried, and when the bracket is closed


@dataclass(frozen=True, kw_only=True)
class Target:
    """What is wanted: a `run` of at least `value` s, or `starts` of at most `value` per second at
    the worst draw (for a tankless pump: pulses at the smallest outlet)."""

    kind: str
    value: float


@dataclass(frozen=True, kw_only=True)
class Size:
    """One nominal volume: what run (s; None where a run says nothing) and rate of starts (1/s) it
    gives, and whether that meets the target."""

    volume_m3: float
    run_s: float | None
    starts_per_s: float | None
    meets: bool


@dataclass(frozen=True, kw_only=True)
class SecondOpinion:
    """The volume (m³) by another form, with the difference explained."""

    volume_m3: float
    says: str
    source: str


@dataclass(frozen=True, kw_only=True)
class Sizing:
    """The least volume in place of what is there, and the least beside it (0 where nothing is
    needed, None where no volume does it, or none can be put there); the nominal sizes around each,
    and the second opinion. `says` tells it in words."""

    have_m3: float
    meets_now: bool
    least_m3: float | None
    added_m3: float | None
    instead: tuple[Size, ...]
    beside: tuple[Size, ...]
    second: SecondOpinion | None
    says: str


def nominal_sizes(system: System, units: str) -> tuple[float, ...]:
    """The nominal volumes (m³) usually sold for this kind of system, round in the units asked for.

    Args:
        system: Everything read off the system.
        units: Unit system of the texts: "us", "metric" or "kpa".

    Returns:
        Volumes, m³, smallest first.

    Raises:
        UnknownUnit: For a unit system that is not known.
    """
    kind = kind_of(system).sizing
    return kind.nominal_m3(units) if kind else ()


def sizing(
    system: System,
    settings: Settings,
    practice: Practice | None = None,
    target: Target | None = None,
    nominal_m3: Iterable[float] | None = None,
    units: str = "us",
) -> Sizing | None:
    """Sizes for `target` (by default the run that is practised, or the starts that the motor bears)
    at these settings. Added tanks take the pre-charge set. None for a kind that has nothing to
    size.

    Args:
        system: Everything read off the system.
        settings: What the technician sets.
        practice: The practice followed; the usual if None.
        target: What is wanted; by practice if None.
        nominal_m3: Volumes that can be bought, m³; the usual ones if None.
        units: Unit system of the texts: "us", "metric" or "kpa".

    Returns:
        The sizes; None for a kind that has nothing to size.

    Raises:
        InvalidInput: For settings that lack what this kind needs.
    """
    if kind_of(system).sizing is None:
        return None
    search = _Search(system, settings, practice or Practice(), target)
    offered = sorted(nominal_m3 if nominal_m3 is not None else nominal_sizes(system, units))
    least, added = search.least(beside=False), search.added()
    return Sizing(
        have_m3=search.have_m3,
        meets_now=search.meets(search.now),
        least_m3=least,
        added_m3=added,
        instead=tuple(search.size(volume, beside=False) for volume in _around(offered, least)),
        beside=(
            tuple(search.size(volume, beside=True) for volume in _around(offered, added))
            if added
            else ()
        ),
        second=_second(search, units),
        says=_says(search, least, added, units),
    )


def _around(offered: list[float], least: float | None) -> list[float]:
    """One size below the least, and the next three up."""
    if least is None:
        return offered[-1:]
    above = [volume for volume in offered if volume >= least]
    return offered[: len(offered) - len(above)][-1:] + above[:3]


class _Search:
    """One system and one target; tries volumes."""

    def __init__(
        self, system: System, settings: Settings, practice: Practice, target: Target | None
    ) -> None:
        kind = kind_of(system).sizing
        if kind is None:
            raise TypeError(f"nothing to size on a {system.kind}")
        self.kind, self.system, self.practice = kind, system, practice
        self.settings = kind.settings(system, settings)
        self.now = figures_for(system, kind.settings(system, settings), practice)
        wanted, value = kind.target(self.now)
        self.target = target or Target(kind=wanted, value=value)
        self.takes_more = kind.resized(system, kind.most_m3, True) is not None

    @property
    def have_m3(self) -> float:
        return self.kind.have_m3(self.now)

    def figures(self, volume: float, beside: bool) -> Figures:
        resized = self.kind.resized(self.system, volume, beside) or self.system
        return figures_for(resized, self.settings, self.practice)

    def merit(self, figures: Figures) -> float:
        """At least 1 where the target is met; grows with the volume."""
        run_s = self.kind.run_s(figures)
        if run_s is not None and not isfinite(run_s):
            return 0.0  # a pump that never stops meets nothing
        if self.target.kind == "run":
            return (run_s or 0.0) / self.target.value
        starts = self.kind.starts_per_s(figures)
        return float("inf") if not starts else self.target.value / starts

    def meets(self, figures: Figures) -> bool:
        return self.merit(figures) >= _MET

    def added(self) -> float | None:
        """The least beside what is there: 0 where nothing is needed."""
        if self.meets(self.now):
            return 0.0
        return self.least(beside=True) if self.takes_more else None

    def least(self, beside: bool) -> float | None:
        """By bisection in the logarithm of the volume, to a relative 1e-9. A straight line gives
        the first guess; after it, the bracket closes from just beside the guess, so that a true
        line is done in three tries; a bent one is halved from there on."""
        low, high = self.kind.least_m3, self.kind.most_m3
        if not self.meets(self.figures(high, beside)):
            return None
        if self.meets(self.figures(low, beside)):
            return low
        guess = self._straight(high, beside)
        for attempt in range(80):
            near = attempt < _GUESSES and low < guess < high
            middle = guess if near else (low * high) ** 0.5
            if self.meets(self.figures(middle, beside)):
                high, guess = middle, middle * (1 - _NEAR)
            else:
                low, guess = middle, middle * (1 + _NEAR)
            if high <= low * (1 + _CLOSED):
                break
        return high

    def _straight(self, high: float, beside: bool) -> float:
        """Run and rest both grow in step with the volume: where the line through two of them meets
        the target."""
        most = self.merit(self.figures(high, beside))
        none = self.merit(self.now) if beside else 0.0
        return high * (1 - none) / (most - none) if isfinite(most) and most > none else 0.0

    def size(self, volume: float, beside: bool) -> Size:
        figures = self.figures(min(max(volume, self.kind.least_m3), self.kind.most_m3), beside)
        run, starts = self.kind.run_s(figures), self.kind.starts_per_s(figures)
        return Size(
            volume_m3=volume,
            run_s=run if run is not None and isfinite(run) else None,
            starts_per_s=starts if starts is not None and isfinite(starts) else None,
            meets=self.meets(figures),
        )


def _second(search: _Search, units: str) -> SecondOpinion | None:
    found = search.kind.second(search.now, search.target.kind, search.target.value, units)
    if found is None:
        return None
    volume, says, source = found
    return SecondOpinion(volume_m3=volume, says=Writer(search.now, units).fill(says), source=source)


def _wanted(search: _Search, units: str) -> str:
    if search.target.kind == "run":
        return f"a run of {text(search.target.value, 'duration', units)}"
    dimension, name = search.kind.starts_words
    return f"at most {text(search.target.value, dimension, units)} {name}"


def _says(search: _Search, least: float | None, added: float | None, units: str) -> str:
    wanted = _wanted(search, units)
    none_needed = search.kind.none_needed(search.now)
    if none_needed:
        return none_needed
    if added == 0.0:
        have = text(search.have_m3, "volume", units)
        return f"What is there, {have}{search.kind.aired or ','} gives {wanted}."
    if least is None:
        return (
            f"No size gives {wanted} at these settings: look at pre-charge, cut-out and dead-head"
            " first."
        )
    said = f"For {wanted}: {text(least, 'volume', units)} at least in all, if it is one tank"
    if added:
        return f"{said}; or {text(added, 'volume', units)} beside what is there."
    return f"{said}. {'' if search.takes_more else search.kind.no_more}".strip()
