"""Made-up lines of a reference with a contact beside it: where a change is found, against where the
point truly lies; how often within what the reading says of itself.

bench/run contacts, or python -m bench.contacts SIZE SEED
"""

import random
import sys
from collections.abc import Iterable, Iterator

from zerodip.bench.contact import Change, ContactLine, Sample

# Readings a second, exponents of the rate (Pa/s), noise (Pa).
SORTS = {
    "usual": ((5, 20), (2, 4), (0, 100)),
    "fast": ((2, 20), (4, 5.5), (0, 100)),
    "seldom read": ((1, 2), (2, 4), (0, 50)),
    "noisy": ((5, 20), (2, 3.5), (100, 800)),
}
LASTS_S = 12


def line(
    chance: random.Random, rate: float, hz: float, acts_pa: float, noise: float
) -> Iterator[Sample]:
    """A pressure that goes one way past a point, from two seconds or more before it."""
    begin = acts_pa - rate * chance.uniform(2, 8)
    for k in range(round(LASTS_S * hz)):
        at = k / hz + chance.uniform(-0.1, 0.1) / hz
        pa = begin + rate * at
        closed = pa >= acts_pa if rate > 0 else pa <= acts_pa
        yield Sample(at, pa + chance.gauss(0, noise), closed)


def changes(samples: Iterable[Sample]) -> list[Change]:
    """What a line tells."""
    told = ContactLine()
    return [made for each in samples if (made := told.add(each))]


def main() -> None:
    """Prints how many were found, and within what."""
    count = int(sys.argv[1]) if len(sys.argv) > 1 else 2000
    seed = int(sys.argv[2]) if len(sys.argv) > 2 else 77_000
    for name, (hzs, exponents, noises) in SORTS.items():
        found = within = 0
        worst = 0.0
        for each in range(seed, seed + count):
            chance = random.Random(each)
            rate = chance.choice((-1, 1)) * 10 ** chance.uniform(*exponents)
            acts, noise = chance.uniform(-90e3, 2e6), chance.uniform(*noises)
            made = changes(line(chance, rate, chance.uniform(*hzs), acts, noise))
            if len(made) != 1:
                continue
            off = abs(made[0].gauge_pa - acts)
            found += 1
            within += off <= abs(rate) * made[0].delay_s + 2 * noise
            worst = max(worst, off / (abs(rate) * made[0].delay_s + 2 * noise))
        print(
            f"{name}: {found / count:.1%} found once, {within / count:.1%} within rate × time seen "
            f"in + two deviations of the noise; the worst at {worst:.2f} of that"
        )


if __name__ == "__main__":
    main()
