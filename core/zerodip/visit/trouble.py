"""Trouble as it is shown: what to do before anything, the suspects with what speaks for and against
each, and the one check that is next."""

import math
from collections.abc import Collection, Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass

from zerodip.diagnosis.experience import with_experience
from zerodip.diagnosis.hypotheses import OTHER
from zerodip.diagnosis.inference import Belief, believe
from zerodip.diagnosis.likelihood import wrong_of
from zerodip.diagnosis.next_check import ADVISED, Choice, next_check, remedies, unlooked
from zerodip.diagnosis.parts import Item, Needs, Observation
from zerodip.kinds.figures import Figures
from zerodip.kinds.registry import kind_of
from zerodip.kinds.trials import Trials
from zerodip.text.within import within
from zerodip.units import SYSTEMS
from zerodip.visit.put_right import PutRight
from zerodip.visit.suspects import Suspect, item_of, likely_works, said, share_of, suspects

__all__ = [
    "CheckAsked",
    "Evidence",
    "ItemAsked",
    "Suspect",
    "TroubleView",
    "likely_causes",
    "place_of_cause",
    "suspects_of",
    "trouble_view",
]

_DANGER = 0.35
_AT_ONCE = 0.5  # likelier than not
_BY_MISTAKE = 3  # times that of a figure: a slip lies near what was to be read
_ODD, _STRANGE = 0.3, 2  # so sure of something else, or so many mistakes
_FIRST = {
    "off": "First: breaker off, and proved dead.",
    "drained": "First: breaker off, proved dead, and drained until the gauge stands at zero.",
    "powered": "First: cover on, then power on.",
}


@dataclass(frozen=True, kw_only=True)
class Evidence:
    """One thing that was seen or measured, in words."""

    item: str
    says: str


@dataclass(frozen=True, kw_only=True)
class ItemAsked:
    """One thing to look at: its title, the question, what stands on the answers, how it is done; a
    figure has a dimension, and where it may not come to an end the answer that says so. Where a yes
    `stops` all else, it is sent before anything else is looked at."""

    item: str
    title: str
    asks: str
    yes: str
    no: str
    how: str
    dimension: str
    never: str
    stops: bool


@dataclass(frozen=True, kw_only=True)
class CheckAsked:
    """The check to make next: all that is looked at in one place, for the first time or `again`,
    its minutes with the way there, what comes `first`, tools and caution."""

    items: tuple[ItemAsked, ...]
    again: bool
    minutes: int
    first: str
    tools: str
    caution: str


@dataclass(frozen=True, kw_only=True)
class SymptomView:
    """What a call may begin with, its small sketch, and whether it was answered."""

    item: str
    title: str
    sketch: str
    said: bool | None


@dataclass(frozen=True, kw_only=True)
class TroubleView:
    """The diagnosis as it stands. `stop` is said before anything else; `odd` where what was noted
    does not fit together; `together` where two things are wrong at once; `decides` what Decide has
    against the system as it is set, where no suspect says so; `rest` the probability of all that is
    not shown; `others` what may be told besides what was seen; `ends` what is said where no further
    check is worth its minutes, `clear` that the remedy is known then."""

    stop: str
    symptoms: tuple[SymptomView, ...]
    evidence: tuple[Evidence, ...]
    suspects: tuple[Suspect, ...]
    together: str
    decides: str
    rest: float
    odd: str
    check: CheckAsked | None
    others: tuple[ItemAsked, ...]
    clear: bool
    ends: str


def trouble_view(
    figures: Figures,
    observations: Sequence[Observation],
    units: str,
    condition: Needs = "powered",
    impossible: Collection[str] = (),
    met: Mapping[str, int] | None = None,
    done: Collection[str] = (),
    waits: str = "",
) -> TroubleView:
    """The diagnosis of a system by what was observed.

    Args:
        figures: The system's figures under its settings.
        observations: What was observed; of each item the last counts.
        units: Unit system of the texts: "us", "metric" or "kpa".
        condition: How the system stands.
        impossible: Ids of items that cannot be looked at here.
        met: Outcomes that this workspace confirmed, by the cause's id.
        done: Ids of the remedies that were done before this was observed: no cause of theirs is
            left.
        waits: What was done since, in words: it is proved before anything else is looked at.

    Returns:
        What is shown.

    Raises:
        UnknownUnit: For a unit system that is not known.

    Source: Bayes' rule over the plant's own model; priors are judgement, no source.
    """
    tried = PutRight(Trials(figures, units))
    belief = _belief(tried, observations, met, done)
    shown = suspects(belief, tried) if belief.observations else ()
    stop = _stop(belief)
    needless = belief.troubles.needless(figures)
    chosen = None if waits else _next(belief, condition, {*impossible, *needless}, bool(stop))
    over = bool(belief.observations) and chosen is None
    clear = over and not waits and _advised(belief)
    return TroubleView(
        stop=stop,
        symptoms=tuple(_symptoms(belief)),
        evidence=tuple(
            Evidence(item=each.item, says=said(item_of(belief, each), each, units))
            for each in belief.observations
        ),
        suspects=shown,
        together=_together(belief),
        decides=_decides(belief, shown, tried) if belief.observations else "",
        rest=max(1 - math.fsum(share_of(each) for each in shown), 0.0),
        odd=_odd(belief, units),
        check=None if chosen is None else _asked(chosen, condition),
        others=tuple(each for each in _others(belief) if each.item not in needless),
        clear=clear,
        ends=waits or (_ends(belief, shown, clear) if over else ""),
    )


def suspects_of(
    figures: Figures,
    observations: Sequence[Observation],
    units: str,
    met: Mapping[str, int] | None = None,
) -> tuple[Suspect, ...]:
    """The suspects alone, where nobody asks for the next check.

    Args:
        figures: The system's figures under its settings.
        observations: What was observed; of each item the last counts.
        units: Unit system of the texts: "us", "metric" or "kpa".
        met: Outcomes that this workspace confirmed, by the cause's id.

    Returns:
        The likeliest causes; none where nothing was observed.

    Raises:
        UnknownUnit: For a unit system that is not known.
    """
    tried = PutRight(Trials(figures, units))
    belief = _belief(tried, observations, met)
    return suspects(belief, tried) if belief.observations else ()


def likely_causes(
    figures: Figures, observations: Sequence[Observation], met: Mapping[str, int] | None = None
) -> tuple[str, ...]:
    """The causes of the suspects alone, where nobody asks for their words.

    Args:
        figures: The system's figures under its settings.
        observations: What was observed.
        met: Outcomes that this workspace confirmed, by the cause's id.

    Returns:
        Ids, the likeliest work first.
    """
    works = likely_works(_belief(_told_nowhere(figures), observations, met))
    return tuple(each.id for work in works for each in work)


def _told_nowhere(figures: Figures) -> PutRight:
    """What puts causes right, where only the causes are asked for: in any units."""
    return PutRight(Trials(figures, SYSTEMS[0]))


def _belief(
    tried: PutRight,
    observations: Sequence[Observation],
    met: Mapping[str, int] | None,
    done: Collection[str] = (),
) -> Belief:
    figures = tried.trials.figures
    troubles = with_experience(kind_of(figures).troubles, met or {}).without(frozenset(done))
    broken = tried.on_file if observations else ()
    return believe(troubles, figures, observations, figures.gauge_error_pa / 2, broken)


def _next(
    belief: Belief, condition: Needs, impossible: Collection[str], stopped: bool
) -> Choice | None:
    """The check to make next; with nothing said, what a call begins with."""
    if belief.observations:
        return next_check(belief, condition, impossible, stopped)
    symptoms = tuple(each for each in belief.troubles.items if each.symptom)
    return Choice(items=symptoms, again=False, needs="any", bits=0.0, gain=0.0, minutes=1.0)


def place_of_cause(
    figures: Figures,
    observations: Sequence[Observation],
    cause: str,
    met: Mapping[str, int] | None = None,
) -> int | None:
    """At which place a cause stands by what was observed, among those with another remedy.

    Args:
        figures: The system's figures under its settings.
        observations: What was observed.
        cause: The cause's id.
        met: Outcomes that this workspace confirmed, by the cause's id.

    Returns:
        Its place, 1 for the likeliest; None where nothing was observed or it is no cause here.
    """
    if not observations:
        return None
    works = _belief(_told_nowhere(figures), observations, met).works
    places = (k for k, work in enumerate(works, 1) if cause in {each.id for each in work})
    return next(places, None)


def _advised(belief: Belief) -> bool:
    """Whether the likeliest remedy is likely enough to be told to be done, and what settles it was
    looked at."""
    remedy, p = next(iter(remedies(belief).items()))
    return remedy != OTHER and p >= ADVISED and not unlooked(belief)


def _together(belief: Belief) -> str:
    """Two causes at once, where that is likelier than not."""
    two: dict[tuple[str, str], float] = {}
    for hypothesis, p in belief.weighed:
        if len(hypothesis.parts) == 2:
            a, b = sorted(cause.title for cause, _ in hypothesis.parts)
            two[a, b] = two.get((a, b), 0.0) + p
    (a, b), p = max(two.items(), key=lambda pair: pair[1], default=(("", ""), 0.0))
    if p < _AT_ONCE:
        return ""
    return f"Two things at once: {within(a)}; and {within(b)}."


def _decides(belief: Belief, shown: Sequence[Suspect], tried: PutRight) -> str:
    """What Decide has against the system as it is set, where no suspect says so."""
    ids = {id for each in shown for id in (each.id, *(other.id for other in each.same_work))}
    told = {rule for id in ids for rule in belief.troubles.every[id].breaks}
    worst = tried.worst
    return "" if worst is None or worst.rule.id in told else tried.against(worst)


def _ends(belief: Belief, shown: Sequence[Suspect], clear: bool) -> str:
    says = {each.remedy.id: each.remedy.says for each in belief.troubles.every.values()}
    says |= {each.remedy: each.remedy_says for each in shown}
    likely = [(each, p) for each, p in remedies(belief).items() if each != OTHER]
    sure = [says[each] for each, p in likely if p >= ADVISED] or [says[likely[0][0]]]
    first = " And: ".join(sure)
    if clear:
        beside = [says[each] for each, p in likely if _AT_ONCE <= p < ADVISED]
        also = f" Likely as well: {beside[0]}" if beside else ""
        return f"No further check is worth its minutes. {first}{also}"
    return f"It is not clear, and nothing to check here would make it so. Likeliest: {first}"


def _symptoms(belief: Belief) -> list[SymptomView]:
    heard = {each.item: bool(each.value) for each in belief.observations}
    return [
        SymptomView(item=each.id, title=each.title, sketch=each.sketch, said=heard.get(each.id))
        for each in belief.troubles.items
        if each.symptom
    ]


def _asked(choice: Choice, condition: Needs) -> CheckAsked:
    needs = choice.needs
    there = needs in ("any", condition) or (condition, needs) == ("drained", "off")
    hows = [item.how for item in choice.items]
    return CheckAsked(
        items=tuple(
            _item_asked(item, "" if hows[:at].count(item.how) else item.how)
            for at, item in enumerate(choice.items)
        ),
        again=choice.again,
        minutes=max(math.ceil(choice.minutes), 1),
        first="" if there else _FIRST[needs],
        tools=_once((item.tools for item in choice.items), ", "),
        caution=_once(item.caution for item in choice.items),
    )


def _others(belief: Belief) -> Iterator[ItemAsked]:
    """What may be told besides, whether it is asked or not."""
    for each in belief.troubles.items:
        if not each.symptom and each.id not in belief.first:
            yield _item_asked(each, each.how)


def _item_asked(item: Item, how: str) -> ItemAsked:
    return ItemAsked(
        item=item.id,
        title=item.title,
        asks=item.asks,
        yes=item.yes,
        no=item.no,
        how=how,
        dimension=item.dimension,
        never=item.never,
        stops=bool(item.stop),
    )


def _once(words: Iterable[str], between: str = " ") -> str:
    """Each of them once, in their order."""
    return between.join(dict.fromkeys(each for each in words if each))


def _stop(belief: Belief) -> str:
    """What is said before any question: of what was seen, then of what is likely."""
    for each in belief.observations:
        item = item_of(belief, each)
        if item.stop and each.value is True:
            return item.stop
    for cause in belief.troubles.causes:
        if cause.danger and belief.probability(cause.id) >= _DANGER:
            return cause.danger
    return ""


def _odd(belief: Belief, units: str) -> str:
    """What does not fit, where nothing that is listed explains all that was noted."""
    if not belief.observations:
        return ""
    known = [(p, at) for at, (each, p) in enumerate(belief.weighed) if each.parts]
    _, best = max(known)
    strange = [rows for item, rows in belief.looks if _is_strange(belief, item, len(rows), best)]
    if len(strange) < _STRANGE and belief.probability(OTHER) < _ODD:
        return ""
    if not strange:
        return "Nothing that is listed explains this well. Look again at what was noted."
    told = [said(item_of(belief, rows[-1]), rows[-1], units) for rows in strange]
    return f"What was noted does not fit together. Look again: {'; '.join(told[:3])}."


def _is_strange(belief: Belief, item: Item, looks: int, best: int) -> bool:
    """Whether the best explanation takes it for a mistake."""
    mistake = (_BY_MISTAKE if item.is_figure else 2) * wrong_of(item)
    return bool(belief.likelihoods[item.id][best] * item.span**looks < mistake**looks)
