"""Every advice does what it says: it is read by its words alone, done to the file as told, rounded
as told, and judged again."""

import random
import re
from collections import Counter
from typing import Any

import pytest

from zerodip.errors import InvalidInput
from zerodip.fileformat.document import Document, read_document
from zerodip.kinds.findings import findings_of
from zerodip.kinds.trials import Advice, Trials
from zerodip.rules.engine import SEVERITY, Finding, Verdict, is_broken, run

from .drawn import KINDS, draw
from .other_plant import Watch, Water
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
    wrong += _run_told(says, done(raw, says, flow or 1.0))
    for rule, found in after.items():
        if is_broken(found) and SEVERITY[found.verdict] < SEVERITY[before[rule].verdict]:
            wrong.append(f"brings {rule} {found.verdict}: {says}")
    return wrong + _cheaper(advice, trials)


def _run_told(says: str, after: dict[str, Any]) -> list[str]:
    """A run that is told, beside that of a plant stepped through time that knows nothing of the
    core."""
    said, of = re.search(r"run [\d.,]+ → ([\d.,]+) s", says), after["system"]
    pump = of["pump"]
    unknown = pump.get("model") == "rated_point" and "dead_head_gauge_pa" not in pump
    if said is None or unknown or of["kind"] in ("well_air", "compressor", "tankless"):
        return []
    told = float(said.group(1).replace(",", ""))
    at = after["settings"]
    watch = Watch(at["cut_in_gauge_pa"], at["cut_out_gauge_pa"], max(told / 600, 1e-3))
    runs = watch.run(Water(after), 0.0, on=True).runs
    near = bool(runs) and abs(runs[0] - told) <= 0.04 * told + 1
    return [] if near else [f"a run of {told}, seen {runs}: {says}"]


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
        lower = remedy.settings.cut_in_gauge_pa < trials.figures.cut_in_pa - 1
        if lower and trials.now.verdict(advice.rule) is not Verdict.STOP:
            continue  # takes pressure from the taps
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
