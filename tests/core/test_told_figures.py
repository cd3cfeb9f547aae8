"""The sentences of Decide about a water system against a plant of its own (`told_figures`): corner
regimes on purpose, since systems are drawn wider than sensible; at full size in bench/sentences."""

import random
from collections import Counter
from collections.abc import Iterator
from typing import Any

import pytest

from zerodip.decide.judge import Decision, decision
from zerodip.errors import InvalidInput
from zerodip.fileformat.document import read_document

from .drawn import draw
from .told_figures import Told, told

KINDS = ("well_bladder", "well_air", "cistern")
PSI = 6894.757293168
# Where a figure stands in what is said, by finding: what it must be, and how near (share).
SAID = {
    ("run-time", "formula"): ("from cut-in to cut-out = #", "run", 0.03),
    ("run-ends", "formula"): ("Fill time #", "run", 0.03),
    ("keeps-up", "advice"): ("the gauge settles at #", "balance", 0.02),
    ("keeps-up", "figure"): ("#", "balance", 0.02),
    ("long-draw-trip", "advice"): ("The pump holds only #", "balance", 0.02),
    ("low-pressure-trip", "advice"): ("the gauge falls to #", "lowest", 0.02),
    ("low-pressure-margin", "advice"): ("takes the gauge to #", "slow", 0.02),
    ("starts-per-hour", "formula"): ("At the worst draw: #", "starts", 0.04),
    ("start-dip", "formula"): ("W(in) = V (1 − c/in) = #", "reserve", 0.02),
    ("dead-head", "advice"): ("The pump stalls at #", "stalls", 0.01),
}
RESULTS = {"run": "run", "drawdown": "drawdown", "reserve": "reserve", "lowest": "lowest"}
RESULTS |= {"balance": "balance", "starts": "starts", "dead_head": "stalls"}
NEAR, HAIR = 0.04, 0.7 * PSI
PRESSURES = ("balance", "lowest", "slow", "stalls")
# A start is told by what the pump delivers at cut-in, though it gives more as the gauge falls: the
# fall may be told a sixth too deep.
SLOW, CARE = ("lowest", "slow"), "fall"


def truths(of: Told) -> dict[str, float]:
    """What is so, by the other plant."""
    low, high = of.points
    so = {"run": of.fill_s(0.0), "drawdown": of.drawdown, "reserve": of.held(low), CARE: low / 6}
    if of.stalls is not None:
        so["stalls"] = of.stalls
    if of.flow(high) > 0:
        so["starts"] = of.most_starts()
    if of.draw is not None:
        so |= {"balance": of.balance(), "lowest": of.lowest(), "slow": of.lowest(2.0)}
    return so


def false_in(raw: dict[str, Any], counted: Counter[str]) -> list[str]:
    """What Decide says of a system that is not so."""
    of = Told(raw)
    if not of.known:
        return []
    try:
        made = decision(read_document(raw).figures(), "us")
    except InvalidInput:
        return []
    so = truths(of)
    return [*_figures(made, so, counted), *_claims(made, of, so, counted), *_unsayable(made)]


def _figures(made: Decision, so: dict[str, float], counted: Counter[str]) -> Iterator[str]:
    for result in made.results:
        name = RESULTS.get(result.id, "")
        if name in so and result.value is not None:
            counted[f"result {result.id}"] += 1
            if not _near(name, result.value, so, NEAR):
                yield f"{result.id} {result.text}, so {so[name]}"
    for finding in made.findings:
        for part in ("figure", "advice", "formula"):
            pattern, name, near = SAID.get((finding.rule, part), ("", "", 0.0))
            found = told(getattr(finding, part), pattern) if name in so else []
            counted[f"said {finding.rule}"] += bool(found)
            if found and not _near(name, found[0], so, near):
                yield f"{finding.rule}: {getattr(finding, part)}, so {so[name]}"


def _near(name: str, said: float, so: dict[str, float], share: float) -> bool:
    """Alike, as rounded on the page; or on the safe side by what care allows."""
    true, care = so[name], so[CARE] if name in SLOW else 0.0
    least = HAIR if name in PRESSURES else 2e-4 if abs(true) < 0.05 else 0.01
    least = max(least, 0.5 * (abs(true) >= 1))
    return (
        -care <= said - true <= 0 or abs(said - true) <= share * abs(true) + least or said == true
    )


def _claims(made: Decision, of: Told, so: dict[str, float], counted: Counter[str]) -> Iterator[str]:
    """Verdicts whose premise the other plant denies by more than a hair."""
    low, high = of.points
    trip, at = low - 10 * PSI, {each.rule: each for each in made.findings}
    wanted = told(at["keeps-up"].formula, "; wanted #") or [low]
    premises = {
        "keeps-up": ("balance", wanted[0]),
        "low-pressure-trip": ("lowest", trip),
        "low-pressure-margin": ("slow", trip),
        "long-draw-trip": ("balance", trip),
    }
    for rule, (name, limit) in premises.items():
        verdict = at[rule].verdict
        if name not in so or verdict not in ("pass", "caution", "stop"):
            continue
        counted[f"claim {rule}"] += 1
        spare, care = so[name] - limit, so[CARE] if name in SLOW else 0.0
        if (verdict == "pass" and spare < -HAIR) or (verdict != "pass" and spare > HAIR + care):
            yield f"{rule} {verdict}: {so[name] / PSI:.1f} against {limit / PSI:.1f} psi"
    words = " ".join(each.advice for each in made.findings if each.verdict in ("caution", "stop"))
    if "would run on without reaching the switch" in words and of.flow(high) > 0:
        yield "it reaches the switch"
    if "The tank is empty before the switch acts" in words and of.held(low) > 1e-4:
        charges = [t.get("pre_charge_gauge_pa") for t in of.raw["system"]["tanks"]]
        if not any(charges) and "warmest" not in words:
            yield "the tank is not empty"


def _unsayable(made: Decision) -> Iterator[str]:
    """Words that mean nothing: a pressure below nothing, a limit without end."""
    for finding in made.findings:
        if finding.verdict in ("pass", "caution", "stop"):
            for said in (finding.figure, finding.advice):
                if " -" in f" {said}" or "not known" in said or "≤ no end" in said:
                    yield f"{finding.rule}: {said}"
    for result in made.results:
        if result.dimension == "pressure" and result.id != "trip_margin" and "-" in result.text:
            yield f"{result.id}: {result.text}"


@pytest.mark.parametrize("kind", KINDS)
def test_what_is_said_of_a_system_is_so(kind: str) -> None:
    rng, counted = random.Random(f"said {kind}"), Counter[str]()
    wrong = [each for _ in range(60) for each in false_in(draw(kind, rng), counted)]
    assert wrong == []
    assert sum(counted.values()) > 300
