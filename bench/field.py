"""Lines of houses that share nothing with what reads them: what is told of each fault that is not
so, what is not told, starts lost and made up, and the worst. Then calls about such houses: the
cause on top, among the first three, and dear remedies told as clear that put none of it right.

Usage: bench/run field [lines a fault, 22] [seed, 3100] [calls a fault, 130]
"""

import random
import sys
import time

from tests.core.recording.test_field import missed
from tests.core.test_field_calls import judged
from tests.field.calls import FAULTS as CALLS
from tests.field.calls import a_call
from tests.field.cases import FAULTS, drawn


def _called(count: int, seed: int) -> None:
    for fault in CALLS:
        made = [judged(a_call(fault, random.Random(f"{fault} {seed} {k}"))) for k in range(count)]
        top, three, wrong = (sum(column) for column in zip(*made, strict=True))
        print(
            f"{fault:20} {count} calls: on top {top / count:.0%}, first three {three / count:.0%},"
            f" wrong and clear {wrong}"
        )


def main(count: int = 22, seed: int = 3100, calls: int = 130) -> None:
    """Prints a line for each fault, and the worst."""
    for fault in FAULTS:
        begun = time.perf_counter()
        told = [missed(drawn(fault, random.Random(f"{fault} {seed} {k}"))) for k in range(count)]
        kinds = ("false", "silent", "not found", "were none")
        shares = [sum(any(kind in e for e in each) for each in told) for kind in kinds]
        print(
            f"{fault:12} {count} lines: with false sentences {shares[0]}, not told {shares[1]},"
            f" starts not found {shares[2]}, starts that were none {shares[3]}"
            f" ({time.perf_counter() - begun:.0f} s)"
        )
        for each in sorted(told, key=len)[-2:]:
            if each:
                print(f"    {'; '.join(each)}")
    _called(calls, seed)


if __name__ == "__main__":
    main(*(int(each) for each in sys.argv[1:]))
