"""Every advice done as told and judged again, on systems drawn wider than sensible: how often it
ends its finding, helps, or tells that nothing tried does, by rule; and what did not come true.

Usage: bench/run advice [systems a kind, 2000] [seed, 2030]
"""

import random
import sys
from collections import Counter

from tests.core.drawn import KINDS, draw
from tests.core.test_tried_advice import faults_of

UNITS = ("us", "metric", "kpa")
HOW = ("removes", "helps", "nothing")


def main(count: int = 2000, seed: int = 2030) -> None:
    """Prints a table for each kind."""
    for kind in KINDS:
        rng, counted, wrong = random.Random(f"{kind} {seed}"), Counter[tuple[str, str]](), []
        for k in range(count):
            wrong += faults_of(draw(kind, rng), UNITS[k % 3], counted)
        told = sum(counted.values())
        print(f"{kind}: {count} systems, {told} advices, {len(wrong)} did not come true")
        for each in wrong[:10]:
            print(f"    {each}")
        for rule in sorted({rule for rule, _ in counted}):
            shares = [counted[rule, how] for how in HOW]
            ends, helps, nothing = (f"{each / sum(shares):4.0%}" for each in shares)
            print(f"    {rule:26} {sum(shares):6}  ends {ends}  helps {helps}  nothing {nothing}")


if __name__ == "__main__":
    main(*(int(each) for each in sys.argv[1:]))
