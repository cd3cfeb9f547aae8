"""What Propose and Sizes tell of each way and each size, against a plant of its own
(`told_figures`): the way is set as told, and what it gives worked out anew; at full size in
bench/sentences."""

import copy
import random
from collections import Counter
from collections.abc import Iterator
from typing import Any

import pytest

from zerodip.decide.options import Option
from zerodip.decide.propose import Proposal, propose
from zerodip.decide.size import Size, Sizing, sizing
from zerodip.errors import InvalidInput
from zerodip.fileformat.document import Document, read_document
from zerodip.kinds.registry import kind_of

from .drawn import draw
from .test_told_figures import KINDS, NEAR, PSI, near, truths
from .told_advice import charge, re_air, sold
from .told_figures import Told, told

Raw = dict[str, Any]
SHOWN = ("run", "drawdown", "reserve", "lowest", "starts")


def set_as_told(raw: Raw, way: Option) -> Raw:
    """The file with a way set."""
    made = copy.deepcopy(raw)
    at = {"cut_in_gauge_pa": way.cut_in_gauge_pa, "cut_out_gauge_pa": way.cut_out_gauge_pa}
    made["settings"] |= at | {"pre_charge_gauge_pa": way.pre_charge_gauge_pa}
    if way.air_renewed:
        made["settings"]["air_renewed"] = True
        made["system"].get("found", {}).pop("caught_m3", None)
    if way.tanks_alike:
        charge(made, way.pre_charge_gauge_pa)
    return made


def false_in(raw: Raw, counted: Counter[str]) -> list[str]:
    """What is told of the ways to set a system, and of tanks for it, that is not so."""
    if not Told(raw).known:
        return []
    try:
        document = read_document(raw)
        made = propose(document.system, document.settings, document.practice)
    except InvalidInput:
        return []
    return [*_ways(raw, made, counted), *_kept(raw, made, counted), *_sizes(raw, document, counted)]


def _ways(raw: Raw, made: Proposal, counted: Counter[str]) -> Iterator[str]:
    for way in (made.now, made.proposed, *made.alternatives, *made.usual):
        so = truths(Told(set_as_told(raw, way)))
        for figure in way.figures:
            for value in told(figure.text, "#") if figure.id in SHOWN and figure.id in so else ():
                counted[f"way {figure.id}"] += 1
                if not near(figure.id, value, so, NEAR):
                    yield f"{way.title}: {figure.title} {figure.text}, so {so[figure.id]}"
        if way.cost.startswith("Runs "):
            counted["way cost"] += 1
            best = truths(Told(set_as_told(raw, made.proposed)))["run"]
            if so["run"] > 1.03 * best + 1:
                yield f"{way.title}: {way.cost}, so {so['run']} beside {best}"


def _kept(raw: Raw, made: Proposal, counted: Counter[str]) -> Iterator[str]:
    """No limit that today's settings keep is passed by what is proposed."""
    now, to = (Told(set_as_told(raw, way)) for way in (made.now, made.proposed))
    limits = _limits(raw, now)
    for name, limit in limits.items():
        counted[f"kept {name}"] += 1
        if now.points[1] < limit <= to.points[1]:
            yield f"proposed {to.points[1] / PSI:.1f} passes {name} {limit / PSI:.1f}"
    dips = [of.draw is not None and of.lowest() <= 0 for of in (now, to)]
    counted["kept dip"] += 1
    if dips == [False, True] and to.lowest(0.97) <= 0:
        yield "what is proposed dips"


def _limits(raw: Raw, now: Told) -> dict[str, float]:
    """What no cut-out may reach, Pa gauge, by the plates."""
    of, up = raw["system"], 999.1 * 9.80665 * raw["system"].get("tanks_above_m", 0.0)
    plates = [tank["max_gauge_pa"] + up for tank in of["tanks"] if "max_gauge_pa" in tank]
    made = {"plate": min(plates)} if plates else {}
    made |= {"relief": of["relief"]["setting_gauge_pa"]} if len(of["relief"]) > 1 else {}
    return made | ({} if now.stalls_lowest is None else {"dead-head": now.stalls_lowest})


def _sizes(raw: Raw, document: Document, counted: Counter[str]) -> Iterator[str]:
    made = sizing(document.system, document.settings, document.practice)
    assert made is not None
    for beside, sizes in ((False, made.instead), (True, made.beside)):
        for size in sizes:
            so = Told(_with_tank(raw, document, size, beside)).fill_s(0.0)
            counted["size"] += size.run_s is not None
            if size.run_s is not None and abs(size.run_s - so) > NEAR * so + 0.5:
                yield f"{size.volume_m3}: run {size.run_s}, so {so}"
    yield from _least(raw, document, made, counted)


def _least(raw: Raw, document: Document, made: Sizing, counted: Counter[str]) -> Iterator[str]:
    """The least size runs as long as it says that it must."""
    wanted = told(made.says, "a run of #")
    if not wanted or not made.least_m3:
        return
    counted["least size"] += 1
    least = Size(volume_m3=made.least_m3, run_s=None, starts_per_s=None, meets=True, misses=())
    so = Told(_with_tank(raw, document, least, beside=False)).fill_s(0.0)
    if so < (1 - NEAR) * wanted[0] - 0.5:
        yield f"{made.says} {made.least_m3}, so {so}"


def _with_tank(raw: Raw, document: Document, size: Size, beside: bool) -> Raw:
    """The file with a tank of a size, and the air that is told for it."""
    made = copy.deepcopy(raw)
    own = made["system"]["tanks"] if beside else []
    made["system"]["tanks"] = [*own, sold(raw, size.volume_m3)]
    made["system"].get("found", {}).pop("caught_m3", None)
    made["system"].pop("air_left", None)
    if raw["system"]["kind"] == "well_air":
        re_air(made)
        return made
    of = kind_of(document.system).sizing
    assert of is not None
    for each in own:
        each.pop("pre_charge_gauge_pa", None)
    charge(made, of.settings(document.figures(), read_document(made).system).pre_charge_gauge_pa)
    return made


@pytest.mark.parametrize("kind", KINDS)
def test_what_is_told_of_ways_and_sizes_is_so(kind: str) -> None:
    rng, counted = random.Random(f"choices {kind}"), Counter[str]()
    wrong = [each for _ in range(14) for each in false_in(draw(kind, rng), counted)]
    assert wrong == []
    assert sum(counted.values()) > 200
