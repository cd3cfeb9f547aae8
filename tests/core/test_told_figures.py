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
from .told_figures import Told, all_told, told

KINDS = ("well_bladder", "well_air", "cistern", "boosted")
PSI = 6894.757293168
# Where a figure stands in what is said, by finding, and what it must be.
SAID = {
    ("run-time", "formula"): ("from cut-in to cut-out = #", "run"),
    ("run-ends", "formula"): ("Fill time #", "run"),
    ("keeps-up", "advice"): ("the gauge settles at #", "balance"),
    ("keeps-up", "figure"): ("#", "balance"),
    ("long-draw-trip", "advice"): ("The pump holds only #", "balance"),
    ("low-pressure-trip", "advice"): ("the gauge falls to #", "lowest"),
    ("low-pressure-margin", "advice"): ("takes the gauge to #", "slow"),
    ("starts-per-hour", "formula"): ("At the worst draw: #", "starts"),
    ("start-dip", "formula"): ("W(in) = V (1 − c/in) = #", "reserve"),
    ("dead-head", "advice"): ("The pump stalls at #", "stalls_lowest"),
}
RESULTS = {"run": "run", "drawdown": "drawdown", "reserve": "reserve", "lowest": "lowest"}
RESULTS |= {"balance": "balance", "starts": "starts", "dead_head": "stalls"}
# How near (share): a result, and what a sentence says, by what it is.
NEAR, HAIR = 0.04, 0.7 * PSI
SAID_NEAR = {"run": 0.03, "balance": 0.02, "lowest": 0.02, "slow": 0.02, "starts": 0.04}
SAID_NEAR |= {"reserve": 0.02, "stalls_lowest": 0.01}
PRESSURES = ("balance", "lowest", "slow", "stalls", "stalls_lowest")
# A start is told by what the pump delivers at cut-in, though it gives more as the gauge falls: the
# fall may be told a sixth too deep.
SLOW, CARE = ("lowest", "slow"), "fall"


def truths(of: Told) -> dict[str, float]:
    """What is so, by the other plant."""
    low, high = of.points
    so = {"run": of.fill_s(0.0), "drawdown": of.drawdown, "reserve": of.held(low), CARE: low / 6}
    if of.stalls is not None:
        so |= {"stalls": of.stalls, "stalls_lowest": of.stalls_lowest}
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
    for where, name, value, words in all_told(made, RESULTS, SAID):
        if name in so:
            counted[where] += 1
            if not near(name, value, so, NEAR if where.startswith("result") else SAID_NEAR[name]):
                yield f"{where}: {words}, so {so[name]}"


def near(name: str, said: float, so: dict[str, float], share: float) -> bool:
    """Alike, as rounded on the page; or on the safe side by what care allows."""
    true, care = so[name], so[CARE] if name in SLOW else 0.0
    least = HAIR if abs(true) > 2000 else 0.5 if abs(true) >= 1 else 0.01
    if name in PRESSURES and abs(true) <= 2000:
        least = 0.006 * PSI  # as a pressure near nothing is rounded
    elif abs(true) < 0.05:
        least = 0.006 if name == "run" else 2e-4
    apart = abs(said - true)
    return -care <= said - true <= 0 or apart <= share * abs(true) + least or said == true


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
    if "would run on without reaching the switch" in words and (
        of.flow(high + of.falls + HAIR) > 0
    ):
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


@pytest.mark.parametrize("lag", [0.2, 1.0])
@pytest.mark.parametrize("top", [20.0, 26.0, 29.0])
def test_a_weak_pump_gives_more_as_the_gauge_falls(top: float, lag: float) -> None:
    gpm = 3.785411784e-3 / 60
    points = [{"flow_m3_s": q * gpm, "head_m": top * (1 - (q / 30) ** 2)} for q in (0, 10, 20, 28)]
    pump = {"model": "curve", "lift_m": 0.0, "points": points, "start_lag_s": lag, "ramp_s": 3.0}
    raw: dict[str, Any] = {
        "format": "zerodip-system",
        "version": 1,
        "system": {
            "kind": "well_bladder",
            "tanks": [{"volume_m3": 0.0757}],
            "pump": pump,
            "demand": {"peak_draw_m3_s": 20 * gpm},
        },
        "settings": {"cut_in_gauge_pa": 40 * PSI, "cut_out_gauge_pa": 60 * PSI}
        | {"pre_charge_gauge_pa": 20 * PSI},
    }
    figures = read_document(raw).figures()
    assert figures.start_lowest_pa == pytest.approx(Told(raw).lowest(), abs=0.7 * PSI)
    assert figures.slow_lowest_pa == pytest.approx(Told(raw).lowest(2.0), abs=0.7 * PSI)
