"""The spreads of answers against Monte Carlo, on random systems that no test has: how many of 400
draws of all inputs lie within, by answer, and the worst. Goal: about 95 of a hundred.

bench/run spreads, or python -m bench.spreads COUNT SEED
"""

import random
import statistics
import sys
from collections import defaultdict
from typing import Any

from tests.core.test_other_plant import a_tankless, a_water, motors
from tests.core.test_spreads import drawn, moved_figures
from zerodip.fileformat.document import read_document
from zerodip.kinds.figures import Figures
from zerodip.kinds.spreads import spread_of

DRAWS = 400


def _held(figures: Figures, rng: random.Random) -> dict[str, float]:
    answers = moved_figures(figures)
    spreads = spread_of(figures, answers)
    made = [drawn(figures, rng) for _ in range(DRAWS)]
    held = {}
    for each in answers:
        spread = spreads.get(each.name)
        if spread is None or not spread.by or spread.most - spread.least <= 1e-9 * spread.value:
            continue
        values = [getattr(at, each.name) for at in made]
        within = sum(v is not None and spread.least <= v <= spread.most for v in values)
        held[each.name] = within / DRAWS
    return held


def main() -> None:
    """Prints a line for each answer."""
    count, seed = (int(given) for given in [*sys.argv[1:], "40", "77"][:2])
    rng = random.Random(seed)
    held: defaultdict[str, list[float]] = defaultdict(list)
    for kind in ("well_bladder", "well_air", "cistern", "boosted", "tankless"):
        for _ in range(count):
            raw: dict[str, Any] = (
                a_tankless(rng, motors(rng)) if kind == "tankless" else a_water(kind, rng)[0]
            )
            for name, share in _held(read_document(raw).figures(), rng).items():
                held[name].append(share)
    for name, shares in sorted(held.items()):
        low = sorted(shares)[: max(len(shares) // 20, 1)]
        print(
            f"{name:24} {len(shares):4} systems: within {statistics.median(shares):.1%}"
            f" (twentieth worst {low[-1]:.1%}, worst {low[0]:.1%})"
        )


if __name__ == "__main__":
    main()
