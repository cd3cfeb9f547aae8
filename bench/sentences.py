"""What Decide says of systems drawn wider than sensible, and Propose and Sizes of the ways to set
them, beside plants of their own: how many sentences and figures were compared, and which were not
so.

Usage: bench/run sentences [systems a kind, 2000; a fifth of them for ways] [seed, 2040]
"""

import random
import sys
from collections import Counter
from collections.abc import Callable
from typing import Any

from tests.core import test_told_air, test_told_choices, test_told_demand, test_told_figures
from tests.core.drawn import draw

FalseIn = Callable[[dict[str, Any], Counter[str]], list[str]]
Compared = Callable[[random.Random, Counter[str]], list[str]]


def _drawn(kind: str, false_in: FalseIn) -> Compared:
    return lambda rng, counted: false_in(draw(kind, rng), counted)


KINDS = test_told_figures.KINDS
CHOICES = {f"{kind} ways": _drawn(kind, test_told_choices.false_in) for kind in KINDS}
WAYS: dict[str, Compared] = {
    **{kind: _drawn(kind, test_told_figures.false_in) for kind in KINDS},
    "compressor": _drawn("compressor", test_told_air.false_in),
    "tankless": lambda rng, counted: test_told_demand.false_in(
        *test_told_demand.drawn(rng), counted
    ),
}


def main(count: int = 2000, seed: int = 2040) -> None:
    """Prints the counts for each kind."""
    for kind, compared in {**WAYS, **CHOICES}.items():
        rng, counted = random.Random(f"{kind} {seed}"), Counter[str]()
        size = count // 5 if kind in CHOICES else count
        wrong = [each for _ in range(size) for each in compared(rng, counted)]
        print(f"{kind}: {size} systems, {sum(counted.values())} compared, {len(wrong)} not so")
        for each in wrong[:10]:
            print(f"    {each}")
        for name, many in sorted(counted.items()):
            if many:
                print(f"    {name:30} {many:6}")


if __name__ == "__main__":
    main(*(int(each) for each in sys.argv[1:]))
