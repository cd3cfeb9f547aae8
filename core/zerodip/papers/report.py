"""The use case of the report: a visit told to the customer, and to whoever comes next."""

from collections.abc import Sequence
from dataclasses import dataclass, replace

from ..answers import answers
from ..cautions import cautions
from ..decide import decision
from ..document import Document
from ..errors import InvalidInput
from ..facts import Facts, facts_for
from ..pictures.parts import Ribbon
from ..pictures.window import Window
from ..system import Settings
from ..turns.belief import CLASSES
from ..units import Shown, text
from ..visit.air import air_view
from ..visit.late import Correction, late_view
from ..visit.over import Check, Remaining, over_view
from ..visit.records import Entry, Log, log_of
from ..visit.setting import set_view, turn_words
from ..visit.summary import Points, figures
from .label import Label, label_of

__all__ = ["Figure", "Report", "report"]

_NONE = "not read"
# The answers that a customer can follow, for any kind of system: what is there, how long, how often, what is held back.
_TOLD = ("drawdown", "between", "run", "starts", "pulses", "duty", "reserve")


@dataclass(frozen=True, kw_only=True)
class Figure:
    """One figure before and after the visit, in words; "" where it cannot be told."""

    id: str
    title: str
    before: str
    after: str


@dataclass(frozen=True, kw_only=True)
class Report:
    """A visit in words. `points` as found and as left; `figures` worked out from them, `measured_run` the median by stopwatch;
    `turns` one line a try; `advice` says first whether anything must not stay so; the picture as in Decide, with the points
    as left."""

    points: tuple[Figure, ...]
    figures: tuple[Figure, ...]
    measured_run: str
    turns: tuple[str, ...]
    checks: tuple[Check, ...]
    remaining: tuple[Remaining, ...]
    still_open: tuple[str, ...]
    remarks: tuple[str, ...]
    corrections: tuple[Correction, ...]
    cautions: tuple[str, ...]
    signed: str
    label: Label
    ribbon: Ribbon | None
    window: Window | None


def report(
    document: Document,
    entries: Sequence[Entry],
    units: str = "us",
    closed_at: str | None = None,
    slopes: Sequence[float] = (),
) -> Report:
    """The report of a visit with `entries` (oldest first) on a system by its file; `closed_at` ISO 8601. Settings that were left
    and make no possible band are told as they were read, with no figures worked out from them.
    Raises UnknownUnit for a unit system that is not known."""
    log = log_of(entries)
    done = figures(log)
    ours = document.facts()
    left, found = _facts_at(document, done.left) or ours, _facts_at(document, done.found, whole=True)
    setting, air = set_view(ours, log, units, slopes), air_view(ours, log, units)
    over = over_view(left, log, done, air, setting, units)
    decided = decision(left, units)
    return Report(
        points=tuple(
            Figure(
                id=row.title, title=row.title, before=_said(row.found_gauge_pa, units), after=_said(row.left_gauge_pa, units)
            )
            for row in over.rows
        ),
        figures=_figures(found, left, units),
        measured_run="" if done.run_s is None else text(done.run_s, "duration", units),
        turns=_turns(ours, log, units),
        checks=over.checks,
        remaining=over.remaining,
        still_open=over.still_open,
        remarks=tuple(entry.value["text"] for entry in log.series.get("note", ())),
        corrections=late_view(entries, closed_at, units).corrections if closed_at else (),
        cautions=cautions(left.kind),
        signed=over.signed,
        label=label_of(left, units),
        ribbon=decided.ribbon,
        window=decided.window,
    )  # fmt: skip


def _said(gauge_pa: float | None, units: str) -> str:
    return _NONE if gauge_pa is None else text(gauge_pa, "pressure", units)


def _facts_at(document: Document, points: Points, whole: bool = False) -> Facts | None:
    """The system at the points read; those not read are as set, or nothing is told where the `whole` is asked for."""
    settings = document.settings
    if whole and None in (points.cut_in_gauge_pa, points.cut_out_gauge_pa):
        return None
    if whole and settings.pre_charge_gauge_pa is not None and points.pre_charge_gauge_pa is None:
        return None
    try:
        return facts_for(document.system, _at(settings, points), document.practice)
    except InvalidInput:
        return None


def _at(settings: Settings, points: Points) -> Settings:
    """The settings with the points that were read. A system that is set without a pre-charge stays so."""
    charge = None if settings.pre_charge_gauge_pa is None else points.pre_charge_gauge_pa
    return replace(
        settings,
        cut_in_gauge_pa=_or(points.cut_in_gauge_pa, settings.cut_in_gauge_pa),
        cut_out_gauge_pa=_or(points.cut_out_gauge_pa, settings.cut_out_gauge_pa),
        pre_charge_gauge_pa=settings.pre_charge_gauge_pa if charge is None else charge,
    )


def _or(read: float | None, set_to: float) -> float:
    return set_to if read is None else read


def _figures(found: Facts | None, left: Facts, units: str) -> tuple[Figure, ...]:
    before = {} if found is None else {a.id: a.text for a in answers(found, Shown(found, units))}
    after = {a.id: a for a in answers(left, Shown(left, units))}
    return tuple(
        Figure(id=id, title=after[id].title, before=before.get(id, ""), after=after[id].text)
        for id in _TOLD
        if id in after
    )


def _turns(facts: Facts, log: Log, units: str) -> tuple[str, ...]:
    """One line for each try: the turns made and what the gauge then showed."""
    nuts = CLASSES[facts.nuts].nuts
    told = []
    for each in log.records("try"):
        made = [f"{nut.title} {turn_words(t)}" for nut, t in zip(nuts, (each.first, each.second), strict=False) if t]
        seen = f"{text(each.cut_in_gauge_pa, 'pressure', units)} / {text(each.cut_out_gauge_pa, 'pressure', units)}"
        did = ", ".join(made) or "watched"
        told.append(f"{did[0].upper()}{did[1:]}: {seen}")
    return tuple(told)
