"""The sentences of Decide about a compressor against a plant of its own (`told_air`), on systems
drawn wider than sensible; at full size in bench/sentences."""

import random
from collections import Counter
from collections.abc import Iterator
from typing import Any

from zerodip.decide.judge import Decision, decision
from zerodip.errors import InvalidInput
from zerodip.fileformat.document import read_document

from .drawn import draw
from .told_air import ToldAir
from .told_figures import all_told

PSI = 6894.757293168
NEAR = 0.03
# Where a figure stands in what is said, by finding, and what it must be.
SAID = {
    ("duty", "formula"): ("rest between runs #", "rest"),
    ("air-keeps-up", "formula"): ("delivered at cut-out #", "delivers"),
    ("air-keeps-up", "figure"): ("#", "taken"),
    ("air-starts-per-hour", "figure"): ("#", "starts"),
    ("air-leak", "advice"): ("starts it every #", "leak_rest"),
    ("air-leak", "formula"): ("/ (t·atmosphere) = #", "leak"),
}
RESULTS = {id: id for id in ("run", "between", "pump_up", "starts", "duty", "leak")}
ROUNDED = {"starts": 0.6 / 3600, "rest": 0.6, "leak_rest": 0.6}


def truths(of: ToldAir) -> dict[str, float | None]:
    """What is so, by the other plant."""
    on, rest = (None, None) if of.taken is None else of.cycle(of.taken)
    duty = None if on is None else 1.0 if on == float("inf") else on / (on + (rest or 0.0))
    return {
        "run": of.run[0],
        "between": of.between,
        "pump_up": of.filled(0.0)[0],
        "starts": of.most_starts(),
        "duty": duty,
        "rest": rest,
        "delivers": of.flow(of.points[1]),
        "taken": of.taken,
        "leak": of.leak,
        "leak_rest": of.leak_rest(),
    }


def false_in(raw: dict[str, Any], counted: Counter[str]) -> list[str]:
    """What Decide says of a compressor that is not so."""
    try:
        made = decision(read_document(raw).figures(), "us")
    except InvalidInput:
        return []
    of = ToldAir(raw)
    return [*_figures(made, truths(of), counted), *_claims(made, of, counted)]


def _figures(made: Decision, so: dict[str, float | None], counted: Counter[str]) -> Iterator[str]:
    for where, name, value, words in all_told(made, RESULTS, SAID):
        true = so[name]
        if true is not None:
            counted[where] += 1
            rounded = 0.0 if where.startswith("result") else ROUNDED.get(name, 2e-5)
            if abs(value - true) > NEAR * abs(true) + rounded:
                yield f"{where}: {words}, so {true}"


def _claims(made: Decision, of: ToldAir, counted: Counter[str]) -> Iterator[str]:
    """Verdicts whose premise the plain file denies. A gauge may be off by 5 psi at most."""
    system, (low, high) = of.raw["system"], of.points
    verdicts = {each.rule: each.verdict for each in made.findings}
    plates = [each.get("max_gauge_pa") for each in system["receivers"]]
    upper = {
        "receiver-plate": min(plates) if all(plates) else None,
        "compressor-rating": system["pump"].get("max_gauge_pa"),
        "safety-valve-margin": system.get("relief", {}).get("setting_gauge_pa"),
    }
    for rule, limit in upper.items():
        verdict, room = verdicts[rule], 0.9 if rule == "safety-valve-margin" else 1.0
        if limit is None or verdict not in ("pass", "caution", "stop"):
            continue
        counted[f"claim {rule}"] += 1
        if (verdict == "pass" and high > room * limit) or (
            verdict == "stop" and high + 5 * PSI < room * limit
        ):
            yield f"{rule} {verdict}: {high / PSI:.1f} of {limit / PSI:.1f} psi"
    wanted = system["use"].get("wanted_gauge_pa")
    spare = {
        "tools-pressure": None if wanted is None else (low - wanted) / PSI,
        "air-keeps-up": None if of.taken is None else of.flow(high) / of.taken - 1,
    }
    for rule, over in spare.items():
        if over is None or verdicts[rule] not in ("pass", "caution", "stop"):
            continue
        counted[f"claim {rule}"] += 1
        if (over < -0.01) if verdicts[rule] == "pass" else (over > 0.01):
            yield f"{rule} {verdicts[rule]}: {over:.3f} to spare"


def test_what_is_said_of_a_compressor_is_so() -> None:
    rng, counted = random.Random("said compressor"), Counter[str]()
    wrong = [each for _ in range(40) for each in false_in(draw("compressor", rng), counted)]
    assert wrong == []
    assert len(+counted) == len(RESULTS) + len(SAID) + 5, sorted(counted)
