"""One press: which settings to take on this system, why, and what each other way would cost."""

from dataclasses import dataclass, replace

from ..facts import Facts, ReceiverFacts, TanklessFacts, WaterFacts
from ..rules import Verdict
from ..system import Practice, Settings, System
from ..units import PSI, Shown, text
from .candidates import USUAL_AIR_PSI, USUAL_WATER_PSI, candidates, floor_pa, nearest
from .options import Option, Weighed, ease, option, weighed

__all__ = ["Proposal", "propose"]

_ALTERNATIVES = 3


@dataclass(frozen=True, kw_only=True)
class Proposal:
    """The settings proposed beside those of now, why these, the next best ways, and the usual switch settings."""

    proposed: Option
    now: Option
    same: bool
    why: tuple[str, ...]
    alternatives: tuple[Option, ...]
    usual: tuple[Option, ...]


def propose(system: System, settings: Settings, practice: Practice | None = None, units: str = "us") -> Proposal:
    """The best of the settings worth trying: no limit passed, the wanted pressure kept, then the fewest cautions, then a
    run within a tenth of the longest, then the least change. Settings are in whole steps of the pressure unit in `units`.
    Raises InvalidInput for settings that lack what this kind needs, UnknownUnit for an unknown unit system."""
    followed = practice or Practice()
    now = weighed(system, settings, followed)
    tried = [now, *(weighed(system, s, followed) for s in candidates(now.facts, units) if s != settings)]
    floor = floor_pa(now.facts)
    ranked = _ranked(tried, floor, settings)
    best = ranked[0]
    return Proposal(
        proposed=option(best, "proposed", "Proposed", units),
        now=option(now, "now", "As set now", units, _cost(now, best, floor, units)),
        same=best.settings == settings,
        why=tuple(_why(best, now, len(tried), floor, units)),
        alternatives=tuple(
            option(way, f"way-{at}", _title(way.settings, units), units, _cost(way, best, floor, units))
            for at, way in enumerate(_apart(ranked[1:], settings), 1)
        ),
        usual=tuple(_usual(system, now, best, floor, units)),
    )


def _ranked(tried: list[Weighed], floor: float, now: Settings) -> list[Weighed]:
    """Best first. Among the best by limits and cautions, runs within a tenth of the longest count as equally long: for a few
    seconds nobody turns a nut or makes the pump work harder."""
    best = min(_standing(way, floor) for way in tried)
    longest = max(way.run_s for way in tried if _standing(way, floor) == best)
    return sorted(tried, key=lambda way: _rank(way, floor, now, 0.9 * longest))


def _standing(way: Weighed, floor: float) -> tuple[int, bool, int]:
    return way.count(Verdict.STOP), way.settings.cut_in_gauge_pa < floor - 1.0, way.count(Verdict.CAUTION)


def _rank(way: Weighed, floor: float, now: Settings, long_enough: float) -> tuple[float, ...]:
    change = abs(way.settings.cut_in_gauge_pa - now.cut_in_gauge_pa) + abs(
        way.settings.cut_out_gauge_pa - now.cut_out_gauge_pa
    )
    shorter = 0.0 if way.run_s >= long_enough else -way.run_s
    return (*_standing(way, floor), way.run_s < long_enough, shorter, -ease(way.facts), change, -way.run_s)


def _apart(ranked: list[Weighed], now: Settings) -> list[Weighed]:
    """The next best ways, each with set points of its own; today's stands in the table anyway."""
    found: dict[tuple[float, float], Weighed] = {}
    for way in ranked:
        if way.settings != now:
            found.setdefault((way.settings.cut_in_gauge_pa, way.settings.cut_out_gauge_pa), way)
    return list(found.values())[:_ALTERNATIVES]


def _title(settings: Settings, units: str) -> str:
    low, high = (text(p, "pressure", units) for p in (settings.cut_in_gauge_pa, settings.cut_out_gauge_pa))
    return f"{low.split()[0]}/{high}" + (", re-aired" if settings.air_renewed else "")


def _cost(way: Weighed, best: Weighed, floor: float, units: str) -> str:
    """What this way costs against the best: what it breaks that the best keeps, or else the shorter run."""
    kept, f = {finding.rule.id for finding in best.broken}, Shown(way.facts, units)
    broken = [f.fill(finding.rule.fails) for finding in way.broken if finding.rule.id not in kept]
    if broken:
        return "; ".join(broken) + "."
    if way.settings.cut_in_gauge_pa < floor - 1.0:
        return "Less pressure than wanted."
    if round(way.run_s) < round(best.run_s):
        return f"Runs {text(way.run_s, 'duration', units)} instead of {text(best.run_s, 'duration', units)}."
    return "" if way.settings == best.settings else "As good, but more to turn."


def _why(best: Weighed, now: Weighed, count: int, floor: float, units: str) -> list[str]:
    f = Shown(best.facts, units)
    said = [_keeps(best.facts, best.settings.cut_in_gauge_pa >= floor - 1.0, f, text(floor, "pressure", units))]
    if best.settings.air_renewed and not now.settings.air_renewed:
        said.append(
            f"Drain the tank and let it take air first: that gives back the drawdown it lost, to {f.drawdown_m3:volume}."
        )
    said += [_limits(best, f), _unread(best)]
    if isinstance(best.facts, TanklessFacts):
        said.append(_window_why(best.facts, f))
    elif best.run_s:
        said.append(f"Runs {f.run_s:duration}: of {count} settings tried, none that is as good runs a tenth longer.")
    if best.settings == now.settings:
        said.append("It is what is set now: nothing to gain by turning.")
    return [line for line in said if line]


def _keeps(facts: Facts, kept: bool, f: Shown, floor: str) -> str:
    if isinstance(facts, WaterFacts):
        if facts.least_cut_in_pa is None:
            return f"Cut-in stays at {floor} or above, since the highest tap is not known."
        said = f"At the highest tap {f.tap_pa:pressure} before a start; {f.wanted_tap_pa:pressure} is wanted."
        return said if kept else said + " No setting within the limits keeps it."
    if isinstance(facts, ReceiverFacts) and facts.wanted_air_pa is not None:
        said = f"The tools get {f.cut_in_pa:pressure} at least; they need {f.wanted_air_pa:pressure}."
        return said if kept else said + " No setting within the limits keeps it."
    return ""


def _limits(best: Weighed, f: Shown) -> str:
    stops, cautions = best.count(Verdict.STOP), best.count(Verdict.CAUTION)
    names = "; ".join(f.fill(finding.rule.fails) for finding in best.broken)
    if stops:
        return f"No setting alone keeps every limit. What is left: {names}."
    if cautions:
        return f"No limit is passed. Cautions that no setting tried removes: {names}."
    return "No limit is passed and nothing calls for caution."


def _unread(best: Weighed) -> str:
    """A limit that could not be judged is said, never passed over."""
    unread = [reading.title for finding in best.findings for reading in finding.missing]
    return f"Limits not judged, for want of a reading: {'; '.join(dict.fromkeys(unread))}." if unread else ""


def _window_why(facts: TanklessFacts, f: Shown) -> str:
    if facts.has_window:
        return f"Cut-out lies well inside the window, {f.window_low_pa:pressure} to {f.window_high_pa:pressure}."
    return (
        "No cut-out works at both voltages. This one still stops on the lowest; an accumulator, a larger outlet or a steadier "
        f"voltage slows the pulses, now {f.pulses_per_s:per_minute}."
        if facts.bank
        else "No cut-out works at both voltages. This one still stops on the lowest; a small accumulator, a larger outlet or a "
        "steadier voltage would help: see the sizes."
    )


def _usual(system: System, now: Weighed, best: Weighed, floor: float, units: str) -> list[Option]:
    """The usual switch settings, each with the school's pre-charge."""
    if isinstance(now.facts, TanklessFacts):
        return []
    bands = USUAL_WATER_PSI if isinstance(now.facts, WaterFacts) else USUAL_AIR_PSI
    return [_usual_one(system, now, best, band, floor, units) for band in bands]


def _usual_one(system: System, now: Weighed, best: Weighed, band: tuple[int, int], floor: float, units: str) -> Option:
    low, high = (nearest(psi * PSI, units) for psi in band)
    air = now.settings.pre_charge_gauge_pa
    if isinstance(now.facts, WaterFacts) and now.facts.kind != "well_air":
        offset = now.facts.school.offset_pa(now.facts.budget)
        air = max(low - (2 * PSI if offset is None else offset), 0.0)
    settings = replace(now.settings, cut_in_gauge_pa=low, cut_out_gauge_pa=high, pre_charge_gauge_pa=air)
    way = weighed(system, settings, now.facts.practice)
    return option(way, f"usual-{band[0]}-{band[1]}", _title(settings, units), units, _cost(way, best, floor, units))
