"""A technician who does exactly what the visit says next, on made-up plants of every kind; at full
size and with other seeds in bench/visits."""

from typing import Any

import pytest

from bench.plants import KIND_IDS, a_plant
from bench.technician import walk

from .conftest import World


@pytest.mark.parametrize("kind", KIND_IDS)
def test_whoever_does_what_the_visit_says_ends_truly_set(world: World, kind: str) -> None:
    def ask(method: str, path: str, body: Any) -> Any:
        answer = world["technician"].send(method, path, body)
        assert answer.status_code < 300, (path, answer.content[:500])
        return answer.json()

    ended = [walk(ask, str(world.site.pk), a_plant(kind, f"3 {n}")) for n in range(10)]
    wrong = [(each.wrong, each.steps) for each in ended if not each.good]
    assert len(wrong) <= 1, wrong
