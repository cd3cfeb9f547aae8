"""The sentences of Decide about a tankless pump against the motor that its plates were read off:
windows empty and narrow, with an accumulator and without, at 3,000 m; at full size in
bench/sentences."""

import math
import random
from collections import Counter
from collections.abc import Iterator
from typing import Any

from scipy.integrate import quad
from scipy.optimize import brentq

from zerodip.decide.judge import Decision, decision
from zerodip.errors import InvalidInput
from zerodip.fileformat.document import read_document

from .other_plant import Motor, atmosphere
from .test_other_plant import a_tankless, motors
from .told_figures import all_told

PSI = 6894.757293168
NEAR, HAIR = 0.02, 0.06 * PSI
# Where a figure stands in what is said, by finding, and what it must be.
SAID = {
    ("cut-out-stops", "advice"): ("the pump stalls at #", "dead_head"),
    ("cut-out-stops", "formula"): (" = #", "dead_head"),
    ("cut-out-steady", "formula"): ("the smallest outlet runs at #", "running"),
    ("window", "formula"): ("V = #", "running"),
    ("window", "advice"): ("The smallest outlet passes #", "passes"),
}
RESULTS = {id: id for id in ("running", "dead_head", "pulses", "drawdown")}


def drawn(rng: random.Random) -> tuple[dict[str, Any], Motor]:
    """A motor and what is read of it, wider than sensible."""
    motor = motors(rng)
    raw = a_tankless(rng, motor)
    of, at = raw["system"], raw["settings"]
    top = motor.dead_head(12)
    at["cut_in_gauge_pa"] = rng.uniform(0.1, 0.9) * top
    at["cut_out_gauge_pa"] = at["cut_in_gauge_pa"] + rng.uniform(0.02, 0.5) * top
    at["pre_charge_gauge_pa"] = rng.uniform(0.3, 1.2) * at["cut_in_gauge_pa"]
    of["outlets"][0]["flow_m3_s"] *= rng.choice((0.3, 1.0, 4.0))
    of["site"] = {"altitude_m": rng.choice((0.0, 1600.0, 3000.0))}
    if rng.random() < 0.4:
        del of["accumulator"], at["pre_charge_gauge_pa"]
    return raw, motor


def truths(raw: dict[str, Any], motor: Motor) -> dict[str, float]:
    """What is so, by the motor."""
    of, at = raw["system"], raw["settings"]
    least, most = of["battery"]["least_v"], of["battery"]["most_v"]
    outlet, (low, high) = of["outlets"][0], (at["cut_in_gauge_pa"], at["cut_out_gauge_pa"])
    k = outlet["flow_m3_s"] / math.sqrt(outlet["gauge_pa"])

    def over(gauge: float) -> float:
        return motor.flow(gauge, most) - k * math.sqrt(gauge)

    running = float(brentq(over, 1e-3, motor.dead_head(most)))
    dead = motor.dead_head(least)
    so = {"dead_head": dead, "running": running, "passes": k * math.sqrt(dead)}
    so["pulses"] = math.inf if running > high else 0.0  # nothing stored, nothing slows them
    if "accumulator" not in of:
        return so
    site = atmosphere(of["site"]["altitude_m"])
    volume, charge = of["accumulator"]["volume_m3"], at["pre_charge_gauge_pa"]
    begin = max(low, charge)  # below its pre-charge the accumulator gives nothing

    def gives(gauge: float) -> float:
        return float((charge + site) * volume / (gauge + site) ** 2)

    so["drawdown"] = quad(gives, begin, high)[0] if high > begin else 0.0
    if so["drawdown"] and running > high:
        on = quad(lambda gauge: gives(gauge) / over(gauge), begin, high)[0]
        off = quad(lambda gauge: gives(gauge) / (k * math.sqrt(gauge)), begin, high)[0]
        so["pulses"] = 1 / (on + off)
    return so


def false_in(raw: dict[str, Any], motor: Motor, counted: Counter[str]) -> list[str]:
    """What Decide says of a tankless pump that is not so."""
    try:
        made = decision(read_document(raw).figures(), "us")
    except InvalidInput:
        return []
    so = truths(raw, motor)
    return [*_figures(made, so, counted), *_claims(made, raw, so, counted)]


def _figures(made: Decision, so: dict[str, float], counted: Counter[str]) -> Iterator[str]:
    for where, name, value, words in all_told(made, RESULTS, SAID):
        if name in so:
            counted[where] += 1
            rounded = 1e-8 if where.startswith("result") else HAIR if so[name] > 100 else 4e-6
            if value != so[name] and abs(value - so[name]) > NEAR * abs(so[name]) + rounded:
                yield f"{where}: {words}, so {so[name]}"


def _claims(
    made: Decision, raw: dict[str, Any], so: dict[str, float], counted: Counter[str]
) -> Iterator[str]:
    """Verdicts whose premise the motor denies; a gauge may be off by 5 psi at most."""
    high, verdicts = raw["settings"]["cut_out_gauge_pa"], {f.rule: f.verdict for f in made.findings}
    spare = {
        "cut-out-stops": so["dead_head"] - high,
        "cut-out-steady": high - so["running"],
        "window": so["dead_head"] - so["running"],
    }
    for rule, over in spare.items():
        if verdicts[rule] in ("pass", "caution", "stop"):
            counted[f"claim {rule}"] += 1
            if (over < -HAIR) if verdicts[rule] == "pass" else (over > 10 * PSI):
                yield f"{rule} {verdicts[rule]}: {over / PSI:.1f} psi to spare"


def test_what_is_said_of_a_tankless_pump_is_so() -> None:
    rng, counted = random.Random("said tankless"), Counter[str]()
    wrong = [each for _ in range(80) for each in false_in(*drawn(rng), counted)]
    assert wrong == []
    assert len(+counted) == len(RESULTS) + len(SAID) + 3, sorted(counted)
