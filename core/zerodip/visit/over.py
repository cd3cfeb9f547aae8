"""Handing over: as found and as left, what was checked, what remains and was advised, what is still open."""

from dataclasses import dataclass

from ..facts import Facts, ReceiverFacts, TanklessFacts
from ..rulebook import RULES
from ..rules import Verdict, run, worded
from ..units import Shown, text
from .air import AirView
from .records import Log
from .safe import standing
from .setting import SetView
from .summary import Points, Summary

__all__ = ["Check", "OverView", "Remaining", "Row", "over_view"]


@dataclass(frozen=True, kw_only=True)
class Row:
    """One figure as found and as left, Pa gauge, freed of what the gauge is known to read low by; None where not read."""

    title: str
    found_gauge_pa: float | None
    left_gauge_pa: float | None


@dataclass(frozen=True, kw_only=True)
class Check:
    """Something to see to before leaving, and whether it is confirmed."""

    id: str
    does: str
    done: bool


@dataclass(frozen=True, kw_only=True)
class Remaining:
    """A limit that is not kept by the settings in force, and what was advised."""

    verdict: str
    title: str
    figure: str
    advice: str


@dataclass(frozen=True, kw_only=True)
class OverView:
    """What the last step shows. `still_open` says what was begun and not ended; it does not keep a visit from being closed."""

    rows: tuple[Row, ...]
    checks: tuple[Check, ...]
    remaining: tuple[Remaining, ...]
    still_open: tuple[str, ...]
    signed: str


_CAP = ("cap", "Valve cap back on: the cap is the real seal.")
_COVER = ("cover", "Cover on.")
_HOUSE = ("house_open", "House valve open.")
_LABEL = ("label", "Label on the switch: cut-in, cut-out, pre-charge, date.")
_TOLD = ("customer_told", "Told what to watch for: clicking often, a dip at the taps, a wet switch.")
_COCK = ("cock_shut", "Drain cock shut, safety valve untouched.")


def over_view(facts: Facts, log: Log, done: Summary, air: AirView | None, setting: SetView, units: str) -> OverView:
    """The hand-over as it stands. `done` are the visit's figures."""
    return OverView(
        rows=_rows(done.found, done.left, air is not None),
        checks=tuple(_check(log, *each) for each in _checks(facts, air)),
        remaining=_remaining(facts, units),
        still_open=tuple(_still_open(log, air, setting, units)),
        signed=str(log.value("signed") or ""),
    )


def _rows(found: Points, left: Points, air: bool) -> tuple[Row, ...]:
    names = [("Cut-in", "cut_in_gauge_pa"), ("Cut-out", "cut_out_gauge_pa")]
    names += [("Pre-charge", "pre_charge_gauge_pa")] if air else []
    return tuple(
        Row(title=title, found_gauge_pa=getattr(found, name), left_gauge_pa=getattr(left, name))
        for title, name in names
    )


def _checks(facts: Facts, air: AirView | None) -> list[tuple[str, str]]:
    if isinstance(facts, ReceiverFacts):
        return [_COVER, _COCK, _LABEL, _TOLD]
    if isinstance(facts, TanklessFacts):
        return [_COVER, _LABEL, _TOLD]
    return [*([_CAP] if air is not None else []), _COVER, _HOUSE, _LABEL, _TOLD]


def _check(log: Log, id: str, does: str) -> Check:
    """The cap is confirmed where the air is set; here it is the same record."""
    slot = "air.cap" if id == "cap" else f"safe.{id}"
    return Check(id=id, does=does, done=bool(log.value(slot)))


def _remaining(facts: Facts, units: str) -> tuple[Remaining, ...]:
    found, shown = run(RULES, facts), Shown(facts, units)
    left = [worded(each, shown) for each in found if each.verdict in (Verdict.STOP, Verdict.CAUTION)]
    return tuple(Remaining(verdict=str(w.verdict), title=w.title, figure=w.figure, advice=w.advice) for w in left)


def _still_open(log: Log, air: AirView | None, setting: SetView, units: str) -> list[str]:
    found = []
    if standing(log) == "off":
        found.append("Power is still off.")
    if air is not None and air.left_gauge_pa is not None and not air.right:
        found.append(f"The pre-charge left is not {text(air.target_gauge_pa, 'pressure', units)}.")
    if setting.do == "see":
        found.append("Nuts were turned and the points not watched since.")
    elif setting.tries and setting.do != "done":
        found.append(f"The switch is not called set: {setting.sure:.0%} sure.")
    return found
