"""The use case of the report: a visit told to the customer, and to whoever comes next."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from zerodip.decide.judge import decision
from zerodip.documents.label import SwitchLabel, label_of
from zerodip.fileformat.document import Document
from zerodip.kinds.charts import Ribbon
from zerodip.kinds.figures import Figures
from zerodip.kinds.registry import kind_of
from zerodip.kinds.results import results_of
from zerodip.kinds.visit_parts import Remaining
from zerodip.kinds.window import Window
from zerodip.rules.engine import Verdict
from zerodip.switch.classes import CLASSES
from zerodip.switch.learned import Learned
from zerodip.switch.words import turn_words
from zerodip.text.writer import Writer
from zerodip.units import text
from zerodip.visit.corrections import Correction, corrections_view
from zerodip.visit.evidence import observations_of
from zerodip.visit.figures_at import figures_at
from zerodip.visit.log import Log, Record, log_of
from zerodip.visit.slots import REMARK, TRY, WAS
from zerodip.visit.steps.handover import Check, handover_view
from zerodip.visit.steps.jobs import added_jobs
from zerodip.visit.steps.prove import prove_view
from zerodip.visit.steps.set_switch import set_view
from zerodip.visit.summary import summarize_log
from zerodip.visit.trouble import suspects_of

__all__ = ["BeforeAfter", "Report", "report"]

_NONE = "missing"


@dataclass(frozen=True, kw_only=True)
class BeforeAfter:
    """One figure before and after the visit, in words; "" where it cannot be told."""

    id: str
    title: str
    before: str
    after: str


@dataclass(frozen=True, kw_only=True)
class Report:
    """A visit in words. `points` as found and as left, the run by stopwatch among them; `figures`
    worked out from them; `turns` one line a try, `jobs` what was done beside; `trouble` symptom,
    cause and remedy where there was any; `unjudged` how many rules cannot tell; `photos` the ids of
    those chosen; the picture as in Decide, with the points as left. Where a tank does not hold its
    air, nothing is worked out and no picture drawn."""

    points: tuple[BeforeAfter, ...]
    figures: tuple[BeforeAfter, ...]
    turns: tuple[str, ...]
    jobs: tuple[str, ...]
    trouble: tuple[tuple[str, str], ...]
    checks: tuple[Check, ...]
    remaining: tuple[Remaining, ...]
    remarks: tuple[str, ...]
    photos: tuple[str, ...]
    corrections: tuple[Correction, ...]
    cautions: tuple[str, ...]
    unjudged: int
    signed: str
    label: SwitchLabel
    chart: Ribbon | Window | None


def report(
    document: Document,
    records: Sequence[Record],
    units: str = "us",
    closed_at: str | None = None,
    learned: Learned = (),
) -> Report:
    """The report of a visit with `records` (oldest first) on a system by its file; `closed_at` ISO
    8601. Settings that were left and make no possible band are told as they were read, with no
    figures worked out from them. Raises UnknownUnit for a unit system that is not known."""
    log, ours = log_of(records), document.figures()
    done = summarize_log(log)
    left, found = (
        figures_at(document, done.left) or ours,
        figures_at(document, done.found, whole=True),
    )
    setting, proof = set_view(ours, log, units, learned), prove_view(ours, log, units)
    handover = handover_view(ours, left, log, done, setting, proof, units)
    decided, spoiled = decision(left, units), any(each.spoils for each in handover.remaining)
    return Report(
        points=tuple(
            BeforeAfter(
                id=row.title,
                title=row.title,
                before=_said(row.found, row.dimension, units),
                after=_said(row.left, row.dimension, units),
            )
            for row in handover.rows
        ),
        figures=() if spoiled else _figures(found, left, units),
        turns=_turns(ours, log, units),
        jobs=tuple(job.title for job in added_jobs(ours, log) if job.done),
        trouble=tuple(_trouble(ours, log, units)),
        checks=handover.checks,
        remaining=handover.remaining,
        remarks=tuple(remark.text for remark in log.all(REMARK)),
        photos=handover.photos,
        corrections=corrections_view(records, closed_at, units).corrections if closed_at else (),
        cautions=decided.cautions,
        unjudged=sum(1 for each in decided.findings if each.verdict == Verdict.CANNOT_TELL.value),
        signed=handover.signed,
        label=label_of(left, units),
        chart=None if spoiled else decided.chart,
    )


def _trouble(figures: Figures, log: Log, units: str) -> Iterator[tuple[str, str]]:
    """Symptom, cause and remedy in three lines, where something was complained of or answered; the
    cause as it was confirmed, else as sure as it is."""
    seen, troubles = observations_of(figures, log), kind_of(figures).troubles
    symptoms = [
        item.title
        for each in seen
        if each.value is True and (item := troubles.item(each.item)) is not None and item.symptom
    ]
    if not symptoms:
        return
    was = troubles.every.get(log.value(WAS) or "")
    yield "Symptom", "; ".join(dict.fromkeys(symptoms))
    if was is not None:
        yield "Cause", f"{was.title} (confirmed)"
        yield "Remedy", was.remedy.says
        return
    first = next(iter(suspects_of(figures, seen, units)), None)
    if first is not None:
        yield "Cause", f"Not confirmed. {first.title}: {first.word}, {first.probability:.0%}"
        yield "Remedy", first.remedy_says


def _said(value: float | None, dimension: str, units: str) -> str:
    return _NONE if value is None else text(value, dimension, units)


def _figures(found: Figures | None, left: Figures, units: str) -> tuple[BeforeAfter, ...]:
    specs = kind_of(left).results
    before = (
        {}
        if found is None
        else {r.id: r.text for r in results_of(specs, found, Writer(found, units))}
    )
    after = {result.id: result for result in results_of(specs, left, Writer(left, units))}
    return tuple(
        BeforeAfter(id=id, title=after[id].title, before=before.get(id, ""), after=after[id].text)
        for id in kind_of(left).report
        if id in after
    )


def _turns(figures: Figures, log: Log, units: str) -> tuple[str, ...]:
    """One line for each try: the turns made and what the gauge then showed."""
    nuts, told = CLASSES[figures.switch.nuts].nuts, []
    for each in log.all(TRY):
        made = [
            f"{nut.title} {turn_words(t)}"
            for nut, t in zip(nuts, (each.first, each.second), strict=False)
            if t
        ]
        low, high = (
            text(point, "pressure", units)
            for point in (each.cut_in_gauge_pa, each.cut_out_gauge_pa)
        )
        did = ", ".join(made) or "watched"
        told.append(f"{did[0].upper()}{did[1:]}: {low} / {high}")
    return tuple(told)
