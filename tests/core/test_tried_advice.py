"""Every advice does what it says: it is read by its words alone, done to the file as told, rounded
as told, and judged again."""

import random
from collections import Counter
from typing import Any

import pytest

from zerodip.errors import InvalidInput
from zerodip.fileformat.document import Document, read_document
from zerodip.kinds.findings import findings_of
from zerodip.kinds.trials import Advice, Trials
from zerodip.rules.engine import SEVERITY, Finding, Verdict, is_broken, run

from .drawn import KINDS, draw
from .told_advice import done

WORST = (Verdict.STOP, Verdict.CAUTION)


def judged(of: Document) -> dict[str, Finding]:
    trials = Trials(of.figures(), "us")
    return {each.rule.id: each for each in run(trials.kind.rules, trials.figures)}


def faults_of(raw: dict[str, Any], units: str, counted: Counter[tuple[str, str]]) -> list[str]:
    """What is told on this system and does not come true; `counted` is how each rule's ends."""
    try:
        document = read_document(raw)
    except InvalidInput:
        return []
    figures = document.figures()
    trials, before, wrong = Trials(figures, units), judged(document), []
    for finding in filter(is_broken, findings_of(figures)):
        advice = trials.advice(finding)
        how = "removes" if advice.removes else "helps" if advice.share else "nothing"
        counted[finding.rule.id, how] += 1
        wrong += [f"{finding.rule.id}: {each}" for each in _wrong(raw, advice, before, trials)]
    return wrong


def _wrong(
    raw: dict[str, Any], advice: Advice, before: dict[str, Finding], trials: Trials
) -> list[str]:
    if advice.remedy is None or advice.says.startswith("Read "):
        return []
    says = advice.says.removeprefix("Not enough by itself, but it helps: ")
    flow = getattr(trials.figures, "cut_in_flow_m3_s", None)
    if trials.kind.id == "compressor":
        flow = trials.figures.cut_out_flow_m3_s
    after = judged(read_document(done(raw, says, flow or 1.0)))
    wrong = []
    verdict = after[advice.rule].verdict
    if advice.removes and verdict in (*WORST, Verdict.CANNOT_TELL):
        wrong.append(f"still {verdict}: {says}")
    if not advice.removes and SEVERITY[verdict] < SEVERITY[before[advice.rule].verdict]:
        wrong.append(f"worse, {verdict}: {says}")
    for rule, found in after.items():
        if is_broken(found) and SEVERITY[found.verdict] < SEVERITY[before[rule].verdict]:
            wrong.append(f"brings {rule} {found.verdict}: {says}")
    return wrong + _cheaper(advice, trials)


def _cheaper(advice: Advice, trials: Trials) -> list[str]:
    """A cheaper remedy that does as much."""
    if not advice.removes or advice.remedy is None:
        return []
    rule = next(r for r in trials.kind.rules if r.id == advice.rule)
    for remedy in trials.remedies:
        if remedy.cost >= advice.remedy.cost:
            break
        tried = trials.after(remedy)
        belongs = advice.rule in remedy.of or (rule.settable and not remedy.of)
        if belongs and tried and not trials.breaks(tried) and trials.share(rule, tried) >= 1:
            return [f"cheaper: {remedy.does} before {advice.says}"]
    return []


@pytest.mark.parametrize("kind", KINDS)
def test_what_is_told_comes_true(kind: str) -> None:
    rng, counted = random.Random(f"advice {kind}"), Counter[tuple[str, str]]()
    wrong = [
        each
        for k in range(60)
        for each in faults_of(draw(kind, rng), ("us", "metric", "kpa")[k % 3], counted)
    ]
    assert wrong == []
    assert sum(n for (_, how), n in counted.items() if how == "removes") > 40
