"""One press: which settings to take on this system, why, and what each other way would cost."""

from collections.abc import Callable, Iterable, Iterator
from dataclasses import dataclass, replace

from zerodip.decide.options import Judged, Option, judged, option_of
from zerodip.kinds.figures import Figures
from zerodip.kinds.findings import Unread, unread_of, usual_values
from zerodip.kinds.key_presses import nearest
from zerodip.kinds.limits import limits_to_read, may_raise, raised_to_pa
from zerodip.kinds.parts import System
from zerodip.kinds.registry import kind_of
from zerodip.kinds.settings import Practice, Settings
from zerodip.rules.engine import Verdict
from zerodip.text.writer import Writer
from zerodip.units import PSI, SYSTEMS, band, text

__all__ = ["Proposal", "candidates", "propose"]

_ALTERNATIVES = 3
_LONG_ENOUGH = 0.9  # of the longest run: nobody turns a nut for the rest
_SAME_PA = 1.0
_NEVER = 0.1  # the chance of never stopping that a raised cut-out may bring
_NOTHING_AGAINST = (False, 0, False, 0)
Standing = tuple[bool, int, bool, int]


@dataclass(frozen=True, kw_only=True)
class Proposal:
    """The settings proposed beside those of now, why these, what is not read (most decisive first),
    the next best ways, and the usual switch settings. `usual_values` tells that it rests on values
    that nobody read."""

    proposed: Option
    now: Option
    same: bool
    headline: str
    why: tuple[str, ...]
    unread: tuple[Unread, ...]
    usual_values: bool
    alternatives: tuple[Option, ...]
    usual: tuple[Option, ...]


def candidates(figures: Figures, units: str) -> list[Settings]:
    """Settings worth trying, today's among them, each once.

    Args:
        figures: The system's figures under its settings.
        units: Unit system of the texts: "us", "metric" or "kpa".

    Returns:
        Settings worth trying.
    """
    worth = kind_of(figures).proposing.candidates
    found = [*_in_any_steps(worth, figures, units), figures.settings]
    return list({_key(settings): settings for settings in found}.values())


def _in_any_steps(
    worth: Callable[[Figures, str], Iterable[Settings]], figures: Figures, units: str
) -> Iterator[Settings]:
    """Settings in whole steps of every unit system, those of the one asked for first: what is
    proposed does not hang on the units."""
    for each in (units, *(other for other in SYSTEMS if other != units)):
        yield from worth(figures, each)


def _key(settings: Settings) -> tuple[float, ...]:
    air = settings.pre_charge_gauge_pa
    points = (
        round(settings.cut_in_gauge_pa),
        round(settings.cut_out_gauge_pa),
        -1 if air is None else round(air),
    )
    return (*points, bool(settings.air_renewed))


def propose(
    system: System,
    settings: Settings,
    practice: Practice | None = None,
    units: str = "us",
    stop_seen: bool = False,
) -> Proposal:
    """The best of the settings worth trying: no limit passed, the wanted pressure kept, then the
    fewest cautions; where nothing is left to say against it, the switch as it is; then a run within
    a tenth of the longest, then the least change. Settings are in whole steps of the pressure unit
    in `units`, unless none of these is as good as one between them.

    Args:
        system: Everything read off the system.
        settings: What the technician sets.
        practice: The practice followed; the usual if None.
        units: Unit system of the texts: "us", "metric" or "kpa".
        stop_seen: Whether a stop was seen on site that is not put right: it is in no figure here.

    Returns:
        Today's settings, the best, the next best and the usual ones.

    Raises:
        InvalidInput: For settings that lack what this kind needs.
        UnknownUnit: For a unit system that is not known.
    """
    followed = practice or Practice()
    now = judged(system, settings, followed)
    alike = kind_of(now.figures).proposing.alike(now.figures) or system
    others = (each for each in candidates(now.figures, units) if each != settings)
    tried = [now, *(judged(alike, each, followed) for each in others)]
    if alike is not system:
        tried.append(judged(alike, settings, followed))
    choice = _Choice(system, now, tried, units, stop_seen)
    if choice.standing != _NOTHING_AGAINST:
        more = dict.fromkeys(
            _in_any_steps(kind_of(now.figures).proposing.finer, now.figures, units)
        )
        better = choice.better(judged(alike, each, followed) for each in more)
        choice = _Choice(system, now, [*tried, *better], units, stop_seen)
    return choice.proposal()


class _Choice:
    """The ways tried, against the pressure wanted."""

    def __init__(
        self, system: System, now: Judged, tried: list[Judged], units: str, stop_seen: bool
    ) -> None:
        self.system, self.now, self.tried, self.units = system, now, tried, units
        self.stop_seen = stop_seen
        self.kind = kind_of(now.figures)
        self.raised_to = raised_to_pa(self.kind.limits, now.figures)
        self.floor_pa = self.kind.proposing.floor_pa(now.figures)
        self.ranked = self._ranked()
        self.best = self.ranked[0]
        self.same = (self.best.settings, self.best.system) == (now.settings, now.system)
        self.assumed = bool(usual_values(now.figures))

    def proposal(self) -> Proposal:
        units = self.units
        return Proposal(
            proposed=option_of(self.best, "proposed", "Proposed", units),
            now=option_of(self.now, "now", "As set now", units, self._cost(self.now)),
            same=self.same,
            headline=self._headline(),
            why=tuple(self._why()),
            unread=unread_of(self.best.known),
            usual_values=self.assumed,
            alternatives=tuple(
                option_of(way, f"way-{at}", _title(way.settings, units), units, self._cost(way))
                for at, way in enumerate(self._apart(), 1)
            ),
            usual=tuple(self._usual()),
        )

    def _ranked(self) -> list[Judged]:
        """Best first. Among the best by limits and cautions, runs within a tenth of the longest
        count as equally long: for a few seconds nobody turns a nut or makes the pump work
        harder."""
        best = min(self._standing(way) for way in self.tried)
        longest = max(way.run_s for way in self.tried if self._standing(way) == best)
        return sorted(self.tried, key=lambda way: self._rank(way, _LONG_ENOUGH * longest))

    @property
    def standing(self) -> Standing:
        """Whether it is not to be told, stops, whether the wanted pressure is missed, and cautions
        of the best."""
        return self._standing(self.best)

    def better(self, ways: Iterable[Judged]) -> list[Judged]:
        """Those that stand better than the best tried."""
        return [way for way in ways if self._standing(way) < self.standing]

    def _standing(self, way: Judged) -> Standing:
        """Whether it passes a limit that is kept now or raises what may not be raised, stops,
        whether the wanted pressure is missed, and cautions. Only what settings can keep counts:
        lower pressure only to please a weak pump would help nobody."""
        kept_now = way.passed - {each.rule.id for each in self.now.broken}
        worse = self._raises(way) or bool(kept_now)
        stops, cautions = (way.settable(each) for each in (Verdict.STOP, Verdict.CAUTION))
        return worse, stops, not self._wanted(way), cautions

    def _raises(self, way: Judged) -> bool:
        """Whether it raises cut-out beyond what the limits that were read allow to be set, or to
        where the pump may never reach it."""
        to = way.settings.cut_out_gauge_pa
        if not may_raise(self.kind.limits, self.now.figures, to):
            return True
        raised = to > self.now.settings.cut_out_gauge_pa + _SAME_PA
        return raised and way.never_stops > max(_NEVER, self.now.never_stops)

    def _wanted(self, way: Judged) -> bool:
        """Whether it keeps the wanted pressure."""
        return way.settings.cut_in_gauge_pa >= self.floor_pa - _SAME_PA

    def _rank(self, way: Judged, long_enough: float) -> tuple[float, ...]:
        change = self._change(way)
        short = way.run_s < long_enough
        # Of what nothing speaks against, the switch as it is: nobody turns nuts for a longer run.
        healthy = self._standing(way) == _NOTHING_AGAINST
        preference = self.kind.proposing.preference(way.figures)
        return (
            *self._standing(way),
            healthy and change > _SAME_PA,
            short,
            -way.run_s if short else 0.0,
            self._uneven(way),
            -preference,
            change,
            -way.run_s,
        )

    def _uneven(self, way: Judged) -> bool:
        """Whether its points are no whole key presses of the units asked for; today's stay as they
        are."""
        if way.settings == self.now.settings:
            return False
        points = way.settings.cut_in_gauge_pa, way.settings.cut_out_gauge_pa
        return any(abs(pa - nearest(pa, self.units)) > _SAME_PA for pa in points)

    def _change(self, way: Judged) -> float:
        """How far the points are moved, Pa."""
        now, to = self.now.settings, way.settings
        return abs(to.cut_in_gauge_pa - now.cut_in_gauge_pa) + abs(
            to.cut_out_gauge_pa - now.cut_out_gauge_pa
        )

    def _apart(self) -> list[Judged]:
        """The next best ways, each with set points of its own, none worse than today's; today's
        stands in the table anyway."""
        found: dict[tuple[int, int], Judged] = {}
        today = self._standing(self.now)
        shown = {_points(self.best), _points(self.now)}
        for way in self.ranked[1:]:
            if _points(way) not in shown and self._standing(way) <= today:
                found.setdefault(_points(way), way)
        return list(found.values())[:_ALTERNATIVES]

    def _cost(self, way: Judged) -> str:
        """What this way costs against the best: what it breaks that the best keeps, or else the
        shorter run."""
        kept, write = (
            {finding.rule.id for finding in self.best.broken},
            Writer(way.figures, self.units),
        )
        broken = [
            write.fill(finding.rule.fails) for finding in way.broken if finding.rule.id not in kept
        ]
        if broken:
            return "; ".join(broken) + "."
        if not self._wanted(way):
            return "Less pressure than wanted."
        if round(way.run_s) < round(self.best.run_s):
            ran, best = (
                text(each, "duration", self.units) for each in (way.run_s, self.best.run_s)
            )
            return f"Runs {ran} instead of {best}."
        if way.settings == self.best.settings:
            return ""
        if self._raises(way):
            return "Raised further than is known to be safe."
        if self._standing(way) != self.standing:
            return ""
        more = self._change(way) > self._change(self.best) + _SAME_PA
        return "As good, but more to turn." if more else "As good."

    def _why(self) -> Iterator[str]:
        figures, proposing = self.best.figures, self.kind.proposing
        write = Writer(figures, self.units)
        floor = text(self.floor_pa, "pressure", self.units)
        said = [
            self._on_usual(),
            self._air_alone(),
            self._alike(),
            self._not_raised(),
            write.fill(proposing.keeps(figures, self._wanted(self.best), floor)),
            write.fill(proposing.charge(figures)),
            self._aired(),
            self._limits(write),
            write.fill(proposing.why(figures)) or self._runs(),
        ]
        yield from (line for line in said if line)
        if self.same and not self.assumed:
            yield "It is what is set now: nothing to gain by turning."

    def _headline(self) -> str:
        """Nothing is left as it is on usual values, and nothing is well while a stop stands."""
        if self.assumed:
            return "By usual values only"
        if not self.same:
            return "Set"
        stops = any(each.verdict is Verdict.STOP for each in self.best.broken) or self.stop_seen
        return "Settings can stay; a stop is open" if stops else "Leave it as it is"

    def _on_usual(self) -> str:
        titles = dict.fromkeys(each.title for each in usual_values(self.now.figures))
        return f"It rests on usual values. Read first: {'; '.join(titles)}." if titles else ""

    def _not_raised(self) -> str:
        """Why nothing higher is proposed, where something higher would stand better."""
        if self.raised_to is not None or not any(
            self._raises(way) and self._standing(way)[1:] < self.standing[1:] for way in self.tried
        ):
            return ""
        asked = [spec for spec in self.kind.limits if spec.asked]
        reads = limits_to_read(asked, self.now.figures)
        names = " and ".join(reading.title for reading in reads) or "every limit"
        return f"Nothing is raised before it is read: {names}."

    def _air_alone(self) -> str:
        """That the switch stays as it is and only the air is put right."""
        now, to = self.now.settings, self.best.settings
        points = (now.cut_in_gauge_pa, now.cut_out_gauge_pa)
        before, after = now.pre_charge_gauge_pa, to.pre_charge_gauge_pa
        if (to.cut_in_gauge_pa, to.cut_out_gauge_pa) != points or before is None or after is None:
            return ""
        if abs(after - before) < _SAME_PA:
            return ""
        if self.now.figures.is_assumed("settings.pre_charge_gauge_pa"):
            return f"Leave the switch; set the pre-charge to {text(after, 'pressure', self.units)}."
        much = text(abs(after - before), "pressure", self.units)
        does = f"set the pre-charge {much} {'higher' if after > before else 'lower'}"
        return f"Leave the switch; {does} than it is set."

    def _alike(self) -> str:
        """That tanks which differ are charged alike."""
        if self.best.system == self.now.system:
            return ""
        air = text(self.best.settings.pre_charge_gauge_pa, "pressure", self.units)
        return f"Set every tank to the same pre-charge, {air}."

    def _aired(self) -> str:
        if not self.best.settings.air_renewed or self.now.settings.air_renewed:
            return ""
        gives = self.kind.proposing.aired(self.best.figures)
        return Writer(self.best.figures, self.units).fill(gives)

    def _runs(self) -> str:
        if not self.best.run_s:
            return ""
        ran = text(self.best.run_s, "duration", self.units)
        return (
            f"Runs {ran}: of {len(self.tried)} settings tried, none that is as good runs a tenth"
            " longer."
        )

    def _limits(self, write: Writer) -> str:
        names = "; ".join(write.fill(f.rule.fails) for f in self.best.broken if f.rule.settable)
        other = "; ".join(write.fill(f.rule.fails) for f in self.best.broken if not f.rule.settable)
        plant = f" No setting fixes: {other}." if other else ""
        stops, cautions = (self.best.settable(each) for each in (Verdict.STOP, Verdict.CAUTION))
        if stops:
            return f"No setting alone keeps every limit. What is left: {names}.{plant}"
        if cautions:
            return f"No limit is passed. Cautions that no setting tried removes: {names}.{plant}"
        if any(each.verdict is Verdict.CANNOT_TELL for each in self.best.known):
            return f"Nothing that could be judged speaks against it.{plant}"
        return f"No limit is passed{'.' if other else ' and nothing calls for caution.'}{plant}"

    def _usual(self) -> Iterator[Option]:
        """The usual switch settings that this system can be set to."""
        for low_psi, high_psi in self.kind.proposing.usual_psi:
            settings = self._usual_settings(low_psi, high_psi)
            if self.kind.settings_faults(self.system, settings):
                continue
            way = judged(self.system, settings, self.now.figures.practice)
            id, title = f"usual-{low_psi}-{high_psi}", _title(settings, self.units)
            yield option_of(way, id, title, self.units, self._cost(way))

    def _usual_settings(self, low_psi: int, high_psi: int) -> Settings:
        """A usual switch setting with the pre-charge of the practice."""
        low, high = (nearest(psi * PSI, self.units) for psi in (low_psi, high_psi))
        air = self.kind.proposing.usual_charge_pa(self.now.figures, low)
        return replace(
            self.now.settings, cut_in_gauge_pa=low, cut_out_gauge_pa=high, pre_charge_gauge_pa=air
        )


def _points(way: Judged) -> tuple[int, int]:
    """Its points to the nearest psi or so: nearer ones are no other way."""
    low, high = way.settings.cut_in_gauge_pa, way.settings.cut_out_gauge_pa
    return round(low / PSI), round(high / PSI)


def _title(settings: Settings, units: str) -> str:
    said = band(settings.cut_in_gauge_pa, settings.cut_out_gauge_pa, units)
    return f"{said}, re-aired" if settings.air_renewed else said
