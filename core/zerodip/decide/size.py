"""The least tank (or receiver, or accumulator) for a wanted run or rate of starts, and the sizes
that can be bought."""

from collections.abc import Iterable
from dataclasses import dataclass
from math import isfinite

from zerodip.kinds.figures import Figures
from zerodip.kinds.parts import System
from zerodip.kinds.protocol import Demand
from zerodip.kinds.registry import figures_for, kind_of
from zerodip.kinds.settings import Practice, Settings
from zerodip.text.figure import Reading
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
    gives, whether that meets what is wanted, and what it `misses` of all that is asked of it."""

    volume_m3: float
    run_s: float | None
    starts_per_s: float | None
    meets: bool
    misses: tuple[str, ...]


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
    and the second opinion. `says` tells it in words; `unjudged` are the readings without which a
    demand could not be looked at."""

    have_m3: float
    meets_now: bool
    least_m3: float | None
    added_m3: float | None
    instead: tuple[Size, ...]
    beside: tuple[Size, ...]
    second: SecondOpinion | None
    says: str
    unjudged: tuple[Reading, ...]


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
    """Sizes at these settings for `target`, or by default for all that is asked: the run that is
    practised and the starts that the motor bears, in an hour and in a day. Added tanks take the
    pre-charge set. None for a kind that has nothing to size.

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
        unjudged=search.unjudged,
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
        self.as_set = figures_for(system, settings, practice)
        self.now = self._judged(system)
        wanted, value = kind.target(self.now)
        self.chosen = target is not None
        self.target = target or Target(kind=wanted, value=value)
        self.takes_more = kind.resized(system, kind.most_m3, True) is not None

    @property
    def have_m3(self) -> float:
        return self.kind.have_m3(self.now)

    def figures(self, volume: float, beside: bool) -> Figures:
        return self._judged(self.kind.resized(self.system, volume, beside) or self.system)

    def _judged(self, system: System) -> Figures:
        """With the air that would be set on it."""
        return figures_for(system, self.kind.settings(self.as_set, system), self.practice)

    def merit(self, figures: Figures) -> float:
        """At least 1 where what is wanted is met; grows with the volume. Whoever chose a target is
        taken at their word; otherwise all has to be met."""
        run_s = self.kind.run_s(figures)
        if run_s is not None and not isfinite(run_s):
            return 0.0  # a pump that never stops meets nothing
        others = () if self.chosen else self.kind.demands(figures)
        merits = [self._on_target(figures), *(demand.merit for demand in others)]
        return min(each for each in merits if each is not None)

    def _on_target(self, figures: Figures) -> float:
        if self.target.kind == "run":
            return (self.kind.run_s(figures) or 0.0) / self.target.value
        starts = self.kind.starts_per_s(figures)
        return float("inf") if not starts else self.target.value / starts

    def missed(self, figures: Figures) -> tuple[Demand, ...]:
        """What is asked of a size and not met; a pump that never stops has its run to mend."""
        run_s = self.kind.run_s(figures)
        if run_s is not None and not isfinite(run_s):
            return ()
        asked = self.kind.demands(figures)
        return tuple(each for each in asked if each.merit is not None and each.merit < _MET)

    @property
    def unjudged(self) -> tuple[Reading, ...]:
        """What has to be read before every demand can be looked at."""
        asked = self.kind.demands(self.now)
        return tuple(dict.fromkeys(reading for each in asked for reading in each.unread))

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
            misses=tuple(each.title for each in self.missed(figures)),
        )


def _second(search: _Search, units: str) -> SecondOpinion | None:
    found = search.kind.second(search.now, search.target.kind, search.target.value, units)
    if found is None:
        return None
    volume, says, source = found
    return SecondOpinion(volume_m3=volume, says=Writer(search.now, units).fill(says), source=source)


def _wanted(search: _Search, units: str) -> str:
    """All that is wanted: "a run of 60 s, at most 30/h in the worst hour and at most 300/day"."""
    if search.target.kind == "run":
        wanted = [f"a run of {text(search.target.value, 'duration', units)}"]
    else:
        dimension, name = search.kind.starts_words
        wanted = [f"at most {text(search.target.value, dimension, units)} {name}"]
    others = () if search.chosen else search.kind.demands(search.now)
    wanted += [
        each.says.format(text(each.limit, each.dimension, units))
        for each in others
        if each.id != search.target.kind and each.merit is not None
    ]
    return " and ".join(filter(None, [", ".join(wanted[:-1]), wanted[-1]]))


def _says(search: _Search, least: float | None, added: float | None, units: str) -> str:
    wanted = _wanted(search, units)
    none_needed = search.kind.none_needed(search.now)
    if none_needed:
        return none_needed
    if added == 0.0:
        have = text(search.have_m3, "volume", units)
        aired = Writer(search.as_set, units).fill(search.kind.aired(search.as_set))
        said = f"What is there, {have}{aired or ','} gives {wanted}."
        return f"{said} {_misses(search, search.now, units)}".strip()
    if least is None:
        return (
            f"No size gives {wanted} at these settings: look at pre-charge, cut-out and dead-head"
            " first."
        )
    missed = _misses(search, search.figures(least, beside=False), units)
    said = f"For {wanted}: {text(least, 'volume', units)} at least in all, if it is one tank"
    if added:
        return f"{said}; or {text(added, 'volume', units)} beside what is there. {missed}".strip()
    return f"{said}. {'' if search.takes_more else search.kind.no_more} {missed}".strip()


def _misses(search: _Search, figures: Figures, units: str) -> str:
    """What the least size does not meet of all that is asked."""
    missed = [
        f"{each.title} {text(each.measure, each.dimension, units)}, asked for"
        f" {each.says.format(text(each.limit, each.dimension, units))}"
        for each in search.missed(figures)
    ]
    return f"It misses: {'; '.join(missed)}." if missed else ""
