"""Whole visits by a technician who does exactly what each says next, on made-up plants of every
kind, through the API of a served Zero Dip. Goal: at least 95 % truly set within what was promised,
no limit passed, no step of making safe skipped, nothing turned that was right, always a next step.
What goes wrong is listed by cause.

bench/run visits, or python -m bench.visits SIZE SEED KIND…
"""

import collections
import re
import statistics
import sys
import uuid
from concurrent.futures import ThreadPoolExecutor
from typing import Any

from .plants import KIND_IDS, a_plant
from .served import Caller, served
from .technician import Outcome, walk

HANDS = 2  # technicians at work at once


def _visits(url: str, kind: str, seeds: list[str]) -> list[Outcome]:
    """One technician's visits, on a site of their own."""
    caller = Caller(url)
    workspace = caller.json("GET", "/api/rounds")["workspaces"][0]["id"]
    site, body = str(uuid.uuid4()), {"name": f"Bench {kind} {uuid.uuid4()}", "units": "us"}
    caller.json("PUT", f"/api/workspaces/{workspace}/sites/{site}", body)

    def ask(method: str, path: str, sent: Any) -> Any:
        return caller.json(method, path, sent)

    return [walk(ask, site, a_plant(kind, seed)) for seed in seeds]


def _cause(wrong: str) -> str:
    """What went wrong without its figures."""
    return re.sub(r"[\d.]+", "…", wrong)[:110]


def _print(kind: str, made: list[Outcome]) -> None:
    size, turned = len(made), sorted(each.turns for each in made)
    causes = collections.Counter(_cause(wrong) for each in made for wrong in each.wrong)
    kept = sum(each.called_set and each.truly_off <= each.promised for each in made)
    print(
        f"{kind:14} {sum(each.good for each in made) / size:6.1%} set within what was promised"
        f" ({kept / size:.1%} also by a gauge without error);"
        f" {statistics.mean(each.steps for each in made):.1f} steps,"
        f" {statistics.mean(turned):.2f} turns (95 %: {turned[size * 95 // 100]});"
        f" air off by {statistics.mean(each.air_off for each in made):.2f} psi"
    )
    for cause, count in causes.most_common(8):
        print(f"    {count:4} × {cause}")


def main() -> None:
    """Prints a line for each kind, and what went wrong by cause."""
    size, seed = (int(given) for given in [*sys.argv[1:3], "200", "11"][:2])
    with served() as url, ThreadPoolExecutor(HANDS) as hands:
        for kind in sys.argv[3:] or KIND_IDS:
            seeds = [f"{seed} {number}" for number in range(size)]
            parts = [seeds[hand::HANDS] for hand in range(HANDS)]
            each = hands.map(lambda part, kind=kind: _visits(url, kind, part), parts)
            _print(kind, [outcome for part in each for outcome in part])


if __name__ == "__main__":
    main()
