"""Made-up plants with something wrong: what stands there truly, and what a person who errs sees,
hears and measures of it. Faults are drawn as often as they are met (or all alike), sizes evenly
between the least and the most that are looked at, plates a little wrong."""

import math
import random
from dataclasses import dataclass, field, replace
from itertools import count
from typing import Any

from zerodip.diagnosis.hypotheses import Hypothesis
from zerodip.diagnosis.likelihood import chance_of_yes, wrong_of
from zerodip.diagnosis.parts import Cause, Item, Observation, Troubles
from zerodip.fileformat.document import read_document
from zerodip.kinds.registry import kind_of
from zerodip.units import PSI

from .plants import Plant, a_plant

__all__ = ["Faulty", "a_faulty"]

AS_SIZED = {"narrow", "tank_small", "receiver_small", "window"}
HEALTHY, DOUBLE = 0.15, 0.10
_TRIES = 10
_MISSED, _TOLD = 0.03, 0.7  # not noticed though there; a symptom is told of


@dataclass
class Faulty:
    """One plant: the figures as its plates are read, what is wrong, and the plant as it is."""

    kind: str
    troubles: Troubles[Any]
    figures: Any
    truth: Hypothesis
    gauge_off_pa: float
    chance: random.Random
    signs: dict[str, bool] = field(default_factory=dict)

    @property
    def causes(self) -> set[str]:
        """Ids of what is wrong."""
        return {cause.id for cause, _ in self.truth.parts}

    def complaint(self) -> list[Observation]:
        """What the call begins with: the symptoms that are there, as far as they were noticed."""
        there = [each for each in self.troubles.items if each.symptom and self._there(each)]
        told = [each for each in there if self.chance.random() < _TOLD] or there[:1]
        return [Observation(each.id, True) for each in told]

    def _there(self, item: Item) -> bool:
        """Whether a sign is there: the same however often it is looked for."""
        if item.id not in self.signs:
            self.signs[item.id] = self.chance.random() < chance_of_yes(self.truth, item)
        return self.signs[item.id]

    def nothing_told(self) -> list[Observation]:
        """No to every symptom."""
        return [Observation(each.id, False) for each in self.troubles.items if each.symptom]

    def answer(self, item: Item, again: bool = False) -> Observation | None:
        """What is answered; None where it cannot be told. Each look may miss or err anew."""
        if item.is_figure:
            told = self._measured(item)
            return replace(told, again=again) if told else None
        yes = self._there(item) and self.chance.random() >= _MISSED
        return Observation(item.id, yes != (self.chance.random() < wrong_of(item)), (), again)

    def _measured(self, item: Item) -> Observation | None:
        assert self.truth.plant is not None
        told = self.truth.plant.shows(item.id, ())
        if told is not None and told.absent:
            return Observation("silent", True)
        if told is None or (told.never and not item.never):
            return None
        if told.never or (item.never and told.mean > item.watch_s):
            return Observation(item.id, True)
        value = told.mean
        if item.dimension == "duration":
            value = value * self.chance.gauss(1, 0.02) + self.chance.gauss(0, 1.0)
        elif item.gauge:
            value += self.gauge_off_pa + self.chance.gauss(0, 0.5 * PSI)
        elif item.log:
            value *= math.exp(self.chance.gauss(0, 0.08))
        else:
            value += self.chance.gauss(0, min(told.sd, 1.0 * PSI if value > 10 else 0.05))
        if self.chance.random() < wrong_of(item):
            value *= self.chance.choice((0.5, 0.8, 1.25, 2.0))
        return Observation(item.id, min(max(value, item.least), item.most))


def a_faulty(kind: str, seed: str, alike: bool = False) -> Faulty:
    """A random plant of a kind with one fault, two, or none."""
    rng = random.Random(f"{kind} {seed} trouble")
    plant = next(each for k in count() if _well_set(each := a_plant(kind, f"{seed} {k}")))
    figures, true = read_document(plant.raw).figures(), plant.truth.figures()
    troubles = kind_of(figures).troubles
    healthy = troubles.plant(true, ())
    wrong = _drawn(troubles, healthy, rng, alike)
    for _ in range(_TRIES):
        truth = _truth(troubles, healthy, wrong, rng)
        felt = _felt(truth, troubles, rng)
        if any(felt.values()):  # what nobody feels is not called for
            break
    signs = {
        each.id: felt[each.id] or rng.random() < each.base
        for each in troubles.items
        if each.id in felt
    }
    return Faulty(kind, troubles, figures, truth, rng.gauss(0, 1.0 * PSI), rng, signs)


def _well_set(plant: Plant) -> bool:
    """Whether its pre-charge is set below cut-in: else its taps do run dry for a breath."""
    settings = plant.truth.settings
    charge = getattr(settings, "pre_charge_gauge_pa", None)
    return charge is None or charge <= settings.cut_in_gauge_pa - 1.5 * PSI


def _truth(
    troubles: Troubles[Any], healthy: Any, wrong: list[Cause[Any]], rng: random.Random
) -> Hypothesis:
    """What is wrong, in sizes drawn at random, and the plant with that."""
    parts = [(cause, _size(cause, rng)) for cause in wrong]
    there = healthy
    for cause, size in parts:
        there = cause.on(there, size)
    if there.drifted:
        there = _drifted(there, rng)
    return Hypothesis(tuple(parts) or ((troubles.healthy, 1.0),), 1.0, there)


def _felt(truth: Hypothesis, troubles: Troubles[Any], rng: random.Random) -> dict[str, bool]:
    """Which symptoms are there because of what is wrong."""
    because = replace(truth)  # whatever was worked out of the other knows of no reason, too
    return {
        each.id: rng.random() < chance_of_yes(because, replace(each, base=0.0))
        for each in troubles.items
        if each.symptom
    }


def _drawn(
    troubles: Troubles[Any], healthy: Any, rng: random.Random, alike: bool
) -> list[Cause[Any]]:
    causes = [each for each in troubles.causes if each.applies(healthy)]
    if rng.random() < HEALTHY:
        return [each for each in causes if each.id in AS_SIZED]
    weights = [1.0 if alike else each.weight for each in causes]
    first = rng.choices(causes, weights)[0]
    if rng.random() >= DOUBLE:
        return [first]
    others = [each for each in causes if each is not first]
    return [first, rng.choices(others, [1.0 if alike else each.weight for each in others])[0]]


def _size(cause: Cause[Any], rng: random.Random) -> float:
    """Between two neighbours of the sizes that are looked at."""
    values = cause.sizes
    at = rng.randrange(max(len(values) - 1, 1))
    low, high = values[at], values[min(at + 1, len(values) - 1)]
    return rng.uniform(low, high) if low * high > 0 and high < 100 * low else rng.choice(values)


def _drifted(plant: Any, rng: random.Random) -> Any:
    """Points that stand elsewhere than they were set."""
    shown = [plant.shows(id, ()) for id in ("cut_in", "cut_out")]
    low, high = (
        each.mean + rng.choice((-1, 1)) * rng.uniform(0.4, 1.6) * each.sd if each else 0.0
        for each in shown
    )
    low = max(low, 4 * PSI)
    moved = low, max(high, low + 4 * PSI)
    return replace(plant, points=moved, wanted=moved)
