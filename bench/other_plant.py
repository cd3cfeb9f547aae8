"""Random systems of every kind against plants stepped through time that share no formula with the
core (tests/core/other_plant.py), at full size and with other seeds than the tests. Goal: no
certain statement that is not seen there.

bench/run other_plant, or python -m bench.other_plant COUNT SEED
"""

import random
import sys
import time
from collections.abc import Callable
from multiprocessing import Pool

from tests.core.test_other_plant import compare_compressors, compare_tankless, compare_water

WATER = ("well_bladder", "well_air", "cistern", "boosted")
Made = tuple[str, int, str]


def _one(of: tuple[str, int]) -> Made:
    """One random system; what does not agree, in words."""
    kind, seed = of
    rng = random.Random(f"{kind} {seed}")
    compare: dict[str, Callable[[], object]] = {
        "compressor": lambda: compare_compressors(rng, 1),
        "tankless": lambda: compare_tankless(rng, 1),
    }
    try:
        compare.get(kind, lambda: compare_water(kind, rng, 1))()
    except AssertionError as error:
        return kind, seed, str(error).splitlines()[0] if str(error) else "does not agree"
    return kind, seed, ""


def main() -> None:
    """Prints a line for each kind, and each system that does not agree."""
    count, seed = (int(given) for given in [*sys.argv[1:], "100", "1000"][:2])
    with Pool() as pool:
        for kind in (*WATER, "compressor", "tankless"):
            begin = time.perf_counter()
            made = pool.map(_one, [(kind, seed + k) for k in range(count)], chunksize=2)
            wrong = [each for each in made if each[2]]
            taken = time.perf_counter() - begin
            print(
                f"{kind:13} {count} systems, {len(wrong)} do not agree; {taken:.0f} s", flush=True
            )
            for _, at, says in wrong:
                print(f"  seed {at}: {says}")


if __name__ == "__main__":
    main()
