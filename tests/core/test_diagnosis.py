"""The engine of the diagnosis by itself: Bayes' rule and Shannon's information written out plainly,
and what holds whatever is said."""

import math
import random
from dataclasses import replace
from typing import Any

import pytest
from scipy.stats import norm

from tests.core.test_trouble import FIGURES, random_seen
from zerodip.diagnosis import likelihood
from zerodip.diagnosis.hypotheses import CALLED, OTHER, ROUTINE
from zerodip.diagnosis.inference import believe
from zerodip.diagnosis.next_check import next_check
from zerodip.diagnosis.parts import Cause, Forecast, Item, Observation, Remedy, Troubles
from zerodip.kinds.registry import kind_of
from zerodip.kinds.trouble_causes import HEALTHY
from zerodip.units import PSI


class _Toy:
    """A plant of one number."""

    def __init__(self, value: float) -> None:
        self.value = value

    def seen(self, item: str) -> float | None:
        return None

    def shows(self, item: str, context: tuple[float, ...]) -> Forecast | None:
        return Forecast(mean=self.value, sd=1.0)


FIX = [Remedy(id=f"r{k}", kind="fix", says="Do it.") for k in range(3)]
TOY: Troubles[_Toy] = Troubles(
    plant=lambda figures, seen: _Toy(0.0),
    items=(
        Item(id="light", title="Light", asks="Is it on?"),
        Item(id="sound", title="Sound", asks="Is it loud?"),
        Item(id="needle", title="Needle", asks="Where?", dimension="number", least=-50, most=50),
    ),
    causes=(
        Cause(id="a", title="A", weight=3, remedy=FIX[0], if_left="", seen={"light": 0.8}),
        Cause(
            id="b",
            title="B",
            weight=1,
            remedy=FIX[1],
            if_left="",
            seen={"sound": 0.7},
            change=lambda plant: _Toy(4.0),
        ),
    ),
    healthy=HEALTHY,
)


def _figure(value: float, mean: float) -> float:
    """Right, or a slip: anything in the range of 100, or near the right one."""
    slip = 0.5 / 100 + 0.5 * norm.pdf(value, mean, 100 / 8)
    return float(0.95 * norm.pdf(value, mean, 1.0) + 0.05 * slip)


@pytest.mark.parametrize(
    ("light", "sound", "needle"), [(True, False, 0.3), (False, True, 3.1), (True, True, 9.0)]
)
def test_the_posterior_is_that_of_plain_enumeration(
    light: bool, sound: bool, needle: float
) -> None:
    """All combinations written out, likelihoods by scipy; no code of the engine is used."""
    base, wrong = TOY.items[0].base, likelihood.WRONG
    prior = {
        (): CALLED.healthy,  # a sign was seen: no routine
        ("a",): CALLED.single * 0.75,
        ("b",): CALLED.single * 0.25,
        ("a", "b"): CALLED.pair * 2 * 0.75 * 0.25,
    }
    weights = {"other": CALLED.unknown * 0.5 * 0.5 / 100}
    for parts, p in prior.items():
        yes = {
            "light": 1 - (1 - base) * (1 - (0.8 if "a" in parts else 0)),
            "sound": 1 - (1 - base) * (1 - (0.7 if "b" in parts else 0)),
        }
        for item, answer in (("light", light), ("sound", sound)):
            heard = wrong + (1 - 2 * wrong) * yes[item]
            p *= heard if answer else 1 - heard
        mean = 4.0 if "b" in parts else 0.0
        p *= _figure(needle, mean)
        weights["+".join(parts) or "healthy"] = p
    total = sum(weights.values())
    belief = believe(
        TOY,
        None,
        [
            Observation("light", light),
            Observation("sound", sound),
            Observation("needle", needle),
        ],
        0.0,
    )
    assert belief.probability("a") == pytest.approx((weights["a"] + weights["a+b"]) / total)
    assert belief.probability("b") == pytest.approx((weights["b"] + weights["a+b"]) / total)
    assert belief.probability("healthy") == pytest.approx(weights["healthy"] / total)
    assert belief.probability(OTHER) == pytest.approx(weights["other"] / total)


@pytest.mark.parametrize(("first", "second"), [(0.4, 0.6), (0.4, 9.0), (9.0, 9.2)])
def test_two_readings_of_one_figure_are_right_or_slips_each_by_itself(
    first: float, second: float
) -> None:
    """The four ways written out, with scipy's densities: both good readings share the plant's own
    deviation and differ by a smaller one."""

    def likelihood_of(mean: float) -> float:
        def slip(value: float) -> float:
            return float(0.5 / 100 + 0.5 * norm.pdf(value, mean, 100 / 8))

        apart = norm.pdf(second - first, 0, likelihood.AGAIN * 2**0.5)
        good = [0.95 * norm.pdf(value, mean, 1.0) for value in (first, second)]
        bad = [0.05 * slip(value) for value in (first, second)]
        both = 0.95**2 * norm.pdf((first + second) / 2, mean, 1.0) * apart
        return float(both + good[0] * bad[1] + bad[0] * good[1] + bad[0] * bad[1])

    shares = {
        "healthy": ROUTINE.healthy * likelihood_of(0.0),
        "a": ROUTINE.single * 0.75 * likelihood_of(0.0),
        "b": ROUTINE.single * 0.25 * likelihood_of(4.0),
        "a+b": ROUTINE.pair * 2 * 0.75 * 0.25 * likelihood_of(4.0),
        "other": ROUTINE.unknown / 100**2,
    }
    seen = [Observation("needle", first), Observation("needle", second, (), True)]
    belief = believe(TOY, None, seen, 0.0)
    expected = (shares["b"] + shares["a+b"]) / sum(shares.values())
    assert belief.probability("b") == pytest.approx(expected)


def test_all_that_is_looked_at_in_one_place_is_weighed_at_once() -> None:
    """Two signs at one place: the information of both answers together, by Shannon's sum."""
    place = tuple(
        replace(item, together="here") if item.id in ("light", "sound") else item
        for item in TOY.items
    )
    belief = believe(replace(TOY, items=place), None, [Observation("needle", 2.0)], 0.0)
    chosen = next_check(belief, "powered", {"needle"})
    assert chosen is not None
    assert {each.id for each in chosen.items} == {"light", "sound"}
    joint: dict[tuple[str, bool, bool], float] = {}
    for hypothesis, p in belief.weighed:
        remedies_ = hypothesis.remedies
        for light in (True, False):
            for sound in (True, False):
                both = p / len(remedies_)
                for id, answer in (("light", light), ("sound", sound)):
                    of = TOY.item(id)
                    assert of is not None
                    yes = likelihood.heard_yes(hypothesis, of)
                    both *= yes if answer else 1 - yes
                for remedy in remedies_:
                    key = (remedy, light, sound)
                    joint[key] = joint.get(key, 0.0) + both
    bits = sum(
        both
        * math.log2(
            both
            / sum(v for k, v in joint.items() if k[0] == key[0])
            / sum(v for k, v in joint.items() if k[1:] == key[1:])
        )
        for key, both in joint.items()
    )
    assert chosen.bits == pytest.approx(bits, rel=1e-2)


@pytest.mark.parametrize("of", FIGURES, ids=lambda of: of.system.kind)
def test_more_evidence_for_a_cause_never_lowers_it_against_an_equal_rival(of: Any) -> None:
    """Two causes that are alike but for one item: seeing it favours the one that shows it."""
    troubles = kind_of(of).troubles
    one = replace(HEALTHY, id="one", weight=3.0, seen={"mark": 0.9}, remedy=FIX[0])
    two = replace(one, id="two", seen={}, remedy=FIX[1])
    mark = Item(id="mark", title="Mark", asks="Is it marked?")
    with_both = replace(
        troubles, items=(*troubles.items, mark), causes=(*troubles.causes, one, two)
    )
    rng = random.Random(5)
    for _ in range(6):
        seen = random_seen(of, rng)
        for answer in (True, False):
            belief = believe(with_both, of, [*seen, Observation("mark", answer)], PSI)
            a, b = belief.probability("one"), belief.probability("two")
            assert a >= b if answer else a <= b


def test_the_next_check_is_the_one_with_the_most_information_a_minute() -> None:
    """Mutual information of remedy and answer written out by Shannon's sum; no code of the engine
    but its probabilities is used."""
    belief = believe(TOY, None, [Observation("needle", 2.0)], 0.0)
    rates = {}
    for item in ("light", "sound"):
        joint: dict[tuple[str, bool], float] = {}
        of = TOY.item(item)
        assert of is not None
        for hypothesis, p in belief.weighed:
            yes = likelihood.WRONG + (1 - 2 * likelihood.WRONG) * likelihood.chance_of_yes(
                hypothesis, of
            )
            remedies_ = {cause.remedy.id for cause, _ in hypothesis.parts} or {OTHER}
            for remedy in remedies_:
                for answer, chance in ((True, yes), (False, 1 - yes)):
                    joint[remedy, answer] = joint.get((remedy, answer), 0.0) + p * chance / len(
                        remedies_
                    )
        bits = 0.0
        for (remedy, answer), both in joint.items():
            alone = sum(v for (r, _), v in joint.items() if r == remedy)
            said = sum(v for (_, a), v in joint.items() if a == answer)
            bits += both * math.log2(both / (alone * said))
        rates[item] = bits / of.minutes
    chosen = next_check(belief, "powered", {"needle"})
    assert chosen is not None
    assert chosen.items[0].id == max(rates, key=lambda item: rates[item])
    assert chosen.bits / chosen.minutes == pytest.approx(max(rates.values()), rel=1e-3)
