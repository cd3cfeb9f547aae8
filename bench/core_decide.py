"""`decide` per call, in plain Python, for each demo system. Goal: under 2 ms for wells, under 5 ms
for any kind."""

import statistics
import time

from sites.demo import SITES
from zerodip.decide.judge import decide
from zerodip.fileformat.document import read_document


def milliseconds(call: object, count: int = 400) -> tuple[float, float]:
    """Median and 95th percentile of one call."""
    taken = []
    for _ in range(count):
        start = time.perf_counter()
        call()  # type: ignore[operator]
        taken.append((time.perf_counter() - start) * 1e3)
    return statistics.median(taken), statistics.quantiles(taken, n=20)[-1]


def main() -> None:
    """Prints one line a system."""
    for _, _, files in SITES:
        for file in files:
            document = read_document(file)
            middle, high = milliseconds(lambda d=document: decide(d.system, d.settings, d.practice))
            name, kind = document.system.name, document.system.kind
            goal = 2 if kind.startswith("well") else 5
            print(
                f"{name:22} {kind:12} median {middle:.2f} ms  p95 {high:.2f} ms  (goal {goal} ms)"
            )


if __name__ == "__main__":
    main()
