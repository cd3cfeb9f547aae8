"""Made-up plants with something wrong, each diagnosed by Zero Dip's next check, by the best fixed
checklist of its kind, and by checking the most likely cause first; all by the same inference, and
each until the remedy is clear. Goals for single faults: the right cause (or one with its remedy) on
top in 85 %, among the first three in 96 %; three checks in the middle; half of the checklist's
minutes; of healthy plants 97 % without a dangerous or needless remedy; honest probabilities.

bench/run trouble, or python -m bench.trouble SIZE SEED [KIND…] [alike] [ours]
"""

import collections
import statistics
import sys
from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass
from functools import partial
from multiprocessing import Pool

from zerodip.diagnosis.hypotheses import OTHER, is_sound
from zerodip.diagnosis.inference import Belief, believe
from zerodip.diagnosis.next_check import (
    ADVISED,
    SURE,
    minutes_from,
    next_check,
    remedies,
    together,
)
from zerodip.diagnosis.parts import Item, Needs
from zerodip.kinds.registry import KINDS
from zerodip.kinds.trials import Trials
from zerodip.units import PSI
from zerodip.visit.put_right import PutRight

from .faulty import AS_SIZED, Faulty, a_faulty

MOST = 20  # checks before somebody gives up
Check = Sequence[Item]
Asked = tuple[Check, bool]  # what is looked at, and whether once more
Ask = Callable[[Belief, set[str], Needs], Asked | None]


@dataclass
class Outcome:
    """How one plant was diagnosed: what was wrong, what stood on top (by cause), the place of the
    right one, checks, minutes, and how sure it was of the first."""

    kind: str
    causes: frozenset[str]
    top: str
    place: int
    harmful: bool
    checks: int
    minutes: float
    sure: float


def ours(belief: Belief, asked: set[str], condition: Needs) -> Asked | None:
    """The check that Zero Dip would make next."""
    told = {each.item for each in belief.observations}
    chosen = next_check(belief, condition, asked - told)
    return (chosen.items, chosen.again) if chosen else None


def _unsure(belief: Belief) -> bool:
    return next(iter(remedies(belief).values())) < SURE


def _by_list(
    order: Sequence[Check], belief: Belief, asked: set[str], condition: Needs
) -> Asked | None:
    left = [kept for each in order if (kept := _askable(each, asked, condition))]
    return (left[0], False) if left and _unsure(belief) else None


def _askable(check: Check, asked: set[str], condition: Needs) -> Check:
    return [item for item in check if item.id not in asked and item.is_there(condition)]


def _likeliest_first(belief: Belief, asked: set[str], condition: Needs) -> Asked | None:
    """Where the item is looked at that is most often seen of the likeliest cause."""
    if not _unsure(belief):
        return None
    for id in belief.by_cause:
        seen = belief.troubles.every[id].seen
        for item in sorted(seen, key=lambda each: -seen[each]):
            place = next(
                (
                    group
                    for group in together(belief.troubles.items)
                    if item in {each.id for each in group}
                ),
                (),
            )
            if item not in asked and (kept := _askable(place, asked, condition)):
                return kept, False
    return None


def diagnosed(plant: Faulty, ask: Ask) -> Outcome:
    """One plant from its complaint to the end of the checks that `ask` chooses."""
    seen = plant.complaint()
    # Nobody calls without a complaint: then it is a visit; nothing is told of when asked, and one
    # cycle is watched first.
    watched = [plant.troubles.item(id) for id in ("cut_in", "cut_out", "run")]
    seen = seen or [
        *plant.nothing_told(),
        *(told for item in watched if item and (told := plant.answer(item))),
    ]
    asked, minutes, checks = {each.item for each in seen}, 0.0, 0
    condition: Needs = "powered"
    broken = PutRight(Trials(plant.figures, "us")).on_file
    belief = believe(plant.troubles, plant.figures, seen, PSI, broken)
    while checks < MOST and (made := ask(belief, asked, condition)) is not None:
        check, again = made
        asked |= {item.id for item in check}
        checks += 1
        needs, took = minutes_from(condition, check)
        minutes += took
        condition = condition if needs == "any" else needs
        seen += [told for item in check if (told := plant.answer(item, again))]
        belief = believe(plant.troubles, plant.figures, seen, PSI, broken)
    return _outcome(plant, belief, checks, minutes)


def _filed(belief: Belief) -> list[str]:
    """What holds as the plant stands on file."""
    sound = (each for each, _ in belief.weighed if is_sound(each, belief.troubles))
    return [cause.id for each in sound for cause, _ in each.parts]


def _outcome(plant: Faulty, belief: Belief, checks: int, minutes: float) -> Outcome:
    remedy = {id: each.remedy for id, each in belief.troubles.every.items()}
    right = {remedy[each].id for each in plant.causes}
    # Nothing wrong, or too small as built: which of them it is goes by the plates alone.
    # So is what stands wrong on file, where Decide says so.
    built = {id: remedy[id].id for id in ("healthy", *AS_SIZED, *_filed(belief)) if id in remedy}
    as_built = bool(plant.causes & {"healthy", *AS_SIZED})
    right |= set(built.values()) if as_built else set()
    # As it is shown: causes with one remedy stand together.
    place = next(k for k, work in enumerate(belief.works) if work[0].remedy.id in right)
    top, chosen = belief.works[0][0].id, next(iter(remedies(belief)))
    advised = next(iter(remedies(belief).values())) >= ADVISED and chosen != OTHER
    done = advised and chosen not in built.values()
    kinds = {each.kind for each in remedy.values() if each.id == chosen}
    harmful = done and bool(kinds & {"job", "person", "air", "setting"})
    sure = next(iter(belief.by_cause.values()))
    return Outcome(plant.kind, frozenset(plant.causes), top, place, harmful, checks, minutes, sure)


def _one(ask: Ask, of: tuple[str, str, bool]) -> Outcome:
    return diagnosed(a_faulty(*of), ask)


def _checklist(kind: str) -> list[Check]:
    """The order that tells most before anything was seen: by expected information a minute."""
    plant = a_faulty(kind, "list")
    belief = believe(plant.troubles, plant.figures, [], PSI)
    order: list[Check] = []
    listed: set[str] = set()
    while (chosen := next_check(belief, "powered", listed)) is not None:
        order.append(chosen.items)
        listed |= {item.id for item in chosen.items}
    rest = [each for each in plant.troubles.items if each.id not in listed]
    return [*order, *together(rest)]


def _calibration(made: Sequence[Outcome]) -> float:
    """The expected difference between how sure the first was said to be and how often it was."""
    bins = collections.defaultdict(list)
    for each in made:
        bins[min(int(each.sure * 10), 9)].append(each)
    return sum(
        abs(
            statistics.mean(e.sure for e in rows) - statistics.mean(e.top in e.causes for e in rows)
        )
        * len(rows)
        for rows in bins.values()
    ) / len(made)


def _line(name: str, made: Sequence[Outcome]) -> str:
    single = [each for each in made if len(each.causes) == 1 and "healthy" not in each.causes]
    healthy = [each for each in made if "healthy" in each.causes]
    harmed = sum(each.harmful for each in healthy) / max(len(healthy), 1)
    return (
        f"  {name:22} top {sum(e.place == 0 for e in single) / len(single):6.1%},"
        f" first three {sum(e.place < 3 for e in single) / len(single):6.1%};"
        f" checks {statistics.median(e.checks for e in made):.0f},"
        f" minutes {statistics.mean(e.minutes for e in made):5.1f};"
        f" healthy left alone {1 - harmed:6.1%}; calibration {_calibration(made):.3f}"
    )


def _worst(made: Iterable[Outcome]) -> str:
    by = collections.defaultdict(list)
    for each in made:
        if len(each.causes) == 1:
            by[next(iter(each.causes))].append(each)
    rows = sorted(
        (sum(e.place == 0 for e in found) / len(found), id, len(found)) for id, found in by.items()
    )
    return "; ".join(f"{id} {share:.0%} of {count}" for share, id, count in rows[:7])


def main() -> None:
    """Prints a line for each way and kind, and the worst causes."""
    size, seed = (int(given) for given in [*sys.argv[1:3], "5000", "11"][:2])
    alike, only = "alike" in sys.argv, [each for each in sys.argv[3:] if each in KINDS]
    with Pool() as pool:
        for kind in only or KINDS:
            plants = [(kind, f"{seed} {k}", alike) for k in range(size)]
            ways: list[tuple[str, Ask]] = [
                ("ours", ours),
                ("fixed checklist", partial(_by_list, _checklist(kind))),
                ("likeliest first", _likeliest_first),
            ]
            print(kind, flush=True)
            for name, ask in ways[: 1 if "ours" in sys.argv else None]:
                made = pool.map(partial(_one, ask), plants, chunksize=20)
                print(_line(name, made), flush=True)
                if name == "ours":
                    print(f"    worst: {_worst(made)}", flush=True)


if __name__ == "__main__":
    main()
