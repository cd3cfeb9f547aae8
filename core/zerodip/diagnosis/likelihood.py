"""How likely what was observed is under a hypothesis: by the plant's own model, and by people who
err.

Source: errors of people are a fixed share (judgement, no source).
"""

import math
from collections.abc import Sequence
from dataclasses import replace
from statistics import NormalDist

from zerodip.diagnosis.hypotheses import Hypothesis
from zerodip.diagnosis.parts import Forecast, Item, Observation

__all__ = [
    "NORMAL",
    "TOLD",
    "WRONG",
    "answered",
    "chance_of_yes",
    "forecast",
    "heard_yes",
    "likelihood_of",
    "log_likelihood",
    "never_ends",
    "once_more",
    "place_of",
    "wrong_of",
]

WRONG = 0.05  # of what people see, hear, read or note is wrong
WRONG_COMPLAINT = 0.02  # what they complain of they saw for days
TOLD = 0.5  # of what could be complained of is complained of
NORMAL = NormalDist()
_SLIP = 0.7  # of a wrong time, volume or flow: about twice or half
AGAIN = 0.3  # of a figure's deviation comes from measuring: what differs when done once more
_OFFSETS = tuple(zip((-2.0, -1.0, 0.0, 1.0, 2.0), (0.054, 0.244, 0.404, 0.244, 0.054), strict=True))
Looks = tuple[Item, tuple[Observation, ...]]


def log_likelihood(hypothesis: Hypothesis, looks: Sequence[Looks], offset_sd: float) -> float:
    """How well a hypothesis explains observations, whatever the gauge is off by.

    Args:
        hypothesis: The hypothesis.
        looks: Items with what was observed of each, once or twice.
        offset_sd: How far the gauge may be off, one standard deviation, Pa.

    Returns:
        The logarithm of the likelihood.
    """
    read = [row for row in looks if row[0].gauge]
    plain = math.fsum(math.log(_chance(hypothesis, *row, 0.0)) for row in looks if not row[0].gauge)
    if not read:
        return plain
    return plain + math.log(
        math.fsum(
            weight * math.prod(_chance(hypothesis, *row, step * offset_sd) for row in read)
            for step, weight in _OFFSETS
        )
    )


def likelihood_of(
    hypothesis: Hypothesis, item: Item, seen: tuple[Observation, ...], offset_sd: float
) -> float:
    """How likely the observations of one item are under a hypothesis.

    Args:
        hypothesis: The hypothesis.
        item: The item observed.
        seen: What was observed of it, once or twice.
        offset_sd: How far the gauge may be off, one standard deviation, Pa.

    Returns:
        A probability, or a density on the item's scale.

    Source: Judgement and the plant's own model.
    """
    if not item.gauge:
        return _chance(hypothesis, item, seen, 0.0)
    return math.fsum(w * _chance(hypothesis, item, seen, step * offset_sd) for step, w in _OFFSETS)


def _chance(
    hypothesis: Hypothesis, item: Item, seen: tuple[Observation, ...], offset: float
) -> float:
    if not item.is_figure:
        return _answers(hypothesis, item, [bool(each.value) for each in seen])
    told = forecast(hypothesis, item, seen[-1].context)
    if seen[-1].value is True:
        return never_ends(item, told)
    return _density(item, told, [float(each.value) - offset for each in seen])


def _answers(hypothesis: Hypothesis, item: Item, said: Sequence[bool]) -> float:
    """The sign is there or not, however often it is looked for; each look may err by itself."""
    there = chance_of_yes(hypothesis, item)
    yes = math.prod(answered(item, True, each) for each in said)
    return there * yes + (1 - there) * math.prod(answered(item, False, each) for each in said)


def answered(item: Item, there: bool, said: bool) -> float:
    """How likely an answer is where a sign is there, or is not.

    Args:
        item: The item.
        there: Whether it is there.
        said: The answer.

    Returns:
        A probability.
    """
    wrong = wrong_of(item)
    return 1 - wrong if there == said else wrong


def wrong_of(item: Item) -> float:
    """How often what is said or measured of an item is wrong.

    Args:
        item: The item.

    Returns:
        A share.
    """
    if item.wrong is not None:
        return item.wrong
    return WRONG_COMPLAINT if item.symptom else WRONG


def chance_of_yes(hypothesis: Hypothesis, item: Item) -> float:
    """How likely a sign is there: by any of the causes, by the plant, or for no reason.

    Args:
        hypothesis: The hypothesis.
        item: An item that is answered yes or no.

    Returns:
        A probability; one half where anything may be.
    """
    made = hypothesis.signs
    if item.id not in made:
        made[item.id] = _sign(hypothesis, item)
    return made[item.id]


def _sign(hypothesis: Hypothesis, item: Item) -> float:
    if hypothesis.plant is None:
        return 0.5
    quiet = (1 - item.base) * (1 - (hypothesis.plant.seen(item.id) or 0.0))
    for cause, _ in hypothesis.parts:
        quiet *= 1 - cause.seen.get(item.id, 0.0)
    return 1 - quiet


def heard_yes(hypothesis: Hypothesis, item: Item, before: Sequence[bool] = ()) -> float:
    """How likely an item would be answered yes, by people who err, after it was answered before.

    Args:
        hypothesis: The hypothesis.
        item: An item that is answered yes or no.
        before: Answers before.

    Returns:
        A probability.
    """
    both = _answers(hypothesis, item, [*before, True])
    return both / _answers(hypothesis, item, before) if before else both


def forecast(hypothesis: Hypothesis, item: Item, context: tuple[float, ...]) -> Forecast | None:
    """The figure that would be measured. Its deviation covers the sizes between its own and those
    beside it.

    Args:
        hypothesis: The hypothesis.
        item: A figure.
        context: The figures that it is taken between.

    Returns:
        The forecast; None where anything may be.
    """
    made, key = hypothesis.told, (item.id, context)
    if key not in made:
        made[key] = _forecast(hypothesis, item, context)
    return made[key]


def _forecast(hypothesis: Hypothesis, item: Item, context: tuple[float, ...]) -> Forecast | None:
    if hypothesis.plant is None:
        return None
    told = hypothesis.plant.shows(item.id, context)
    if told is None or not told.is_figure:
        return told
    beside = [each.shows(item.id, context) for each in hypothesis.near]
    steps = [
        abs(place_of(item, each.mean) - place_of(item, told.mean)) / 2
        for each in beside
        if each is not None and each.is_figure
    ]
    wide = math.fsum(steps) / len(steps) if steps else 0.0
    return replace(told, sd=math.hypot(told.sd, wide / 3**0.5)) if wide else told


def place_of(item: Item, value: float) -> float:
    """Where a figure stands on the item's scale.

    Args:
        item: A figure.
        value: Its value, SI.

    Returns:
        The value within the item's range; its logarithm where the item is `log`.
    """
    kept = min(max(value, item.least), item.most)
    return math.log(kept) if item.log else kept


def never_ends(item: Item, told: Forecast | None) -> float:
    """How likely a time is not over while it is watched, as people who err would say.

    Args:
        item: The item, one that is watched for so long.
        told: Its forecast; None where anything may be.

    Returns:
        A probability.
    """
    if told is None:
        return math.log(item.most / item.watch_s) / item.span
    if not told.is_figure:
        return 1 - WRONG if told.never else WRONG
    longer = NORMAL.cdf((place_of(item, told.mean) - place_of(item, item.watch_s)) / told.sd)
    return WRONG + (1 - 2 * WRONG) * longer


def _density(item: Item, told: Forecast | None, values: Sequence[float]) -> float:
    """The density of measured values, on a logarithmic scale where the item is `log`; anything in
    its range where nothing can be told, and by mistake."""
    flat, wrong = 1 / item.span, wrong_of(item)
    if told is None:
        return float(flat ** len(values))
    if not told.is_figure:
        return float((wrong * flat) ** len(values))
    places = [place_of(item, value) for value in values]
    mean = place_of(item, told.mean)
    if len(places) == 1:
        good = (1 - wrong) * _normal(places[0], mean, told.sd)
        return good + wrong * _blunder(item, places[0], mean)
    return _twice(item, (places[-2], places[-1]), mean, told.sd)


def _blunder(item: Item, place: float, mean: float) -> float:
    """A wrong reading is anything, or within a few times of the right one."""
    wide = _SLIP if item.log else item.span / 8
    return 0.5 / item.span + 0.5 * _normal(place, mean, wide)


def _twice(item: Item, places: tuple[float, float], mean: float, sd: float) -> float:
    """Two readings: both good, and then close to each other; one of them a blunder; or both."""
    first, second = places
    right = 1 - wrong_of(item)
    wrong = [(1 - right) * _blunder(item, place, mean) for place in places]
    good = [right * _normal(place, mean, sd) for place in places]
    apart = _normal(second - first, 0.0, AGAIN * sd * 2**0.5)
    both = right**2 * _normal((first + second) / 2, mean, sd) * apart
    return both + good[0] * wrong[1] + wrong[0] * good[1] + wrong[0] * wrong[1]


def once_more(item: Item, told: Forecast, value: float) -> tuple[float, Forecast]:
    """What to expect of a figure that was measured already.

    Args:
        item: A figure.
        told: Its forecast under a hypothesis.
        value: What was measured, SI.

    Returns:
        How likely what was measured is no blunder, and the forecast if it is none.
    """
    place, mean = place_of(item, value), place_of(item, told.mean)
    wrong = wrong_of(item)
    good = (1 - wrong) * _normal(place, mean, told.sd)
    share = good / (good + wrong * _blunder(item, place, mean))
    return share, replace(told, mean=value, sd=AGAIN * told.sd * 2**0.5)


def _normal(x: float, mean: float, sd: float) -> float:
    z = (x - mean) / sd
    return math.exp(-0.5 * z * z) / (sd * 2.5066282746)
