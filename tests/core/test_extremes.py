"""Any file that reading accepts is decided: values drawn from the very ends of what is allowed, at
a fixed seed."""

import json
import math
import random
from dataclasses import asdict
from typing import Any

import pytest

from zerodip.decide.judge import decision
from zerodip.decide.simulation import simulate_draw
from zerodip.decide.summary import summarize
from zerodip.errors import InvalidInput
from zerodip.fileformat.document import Document, read_document
from zerodip.fileformat.fields import Checked, Spec, classes_of, specs
from zerodip.kinds.registry import KINDS, figures_for
from zerodip.kinds.settings import Practice, Settings
from zerodip.physics.simulation import Draw, simulate
from zerodip.switch.belief import Watch
from zerodip.switch.classes import class_of
from zerodip.switch.watching import believed
from zerodip.units import PSI, SYSTEMS


def _value(spec: Spec, chance: random.Random) -> Any:
    least, most = spec.least or 0.0, spec.most or 0.0
    if spec.kind == "choice":
        return chance.choice(spec.options)
    if spec.kind == "flag":
        return chance.choice([True, False, None])
    if spec.kind == "words":
        return "x"
    if chance.random() < 0.35:
        return chance.choice([least, most])
    if least < 0:
        return chance.uniform(least, most)
    spread = math.exp(chance.uniform(math.log(max(least, 1e-9)), math.log(most)))
    return min(max(spread, least), most)


def _made(cls: type[Checked], chance: random.Random) -> dict[str, Any]:
    raw: dict[str, Any] = dict([cls.tag]) if cls.tag else {}
    for name, spec in specs(cls).items():
        if spec.optional and chance.random() < 0.4:
            continue
        classes = classes_of(spec)
        if spec.kind == "part":
            raw[name] = _made(chance.choice(classes), chance)
        elif spec.kind == "parts":
            raw[name] = [
                _made(classes[0], chance) for _ in range(chance.randint(int(spec.least or 1), 4))
            ]
        else:
            raw[name] = _value(spec, chance)
    return raw


def _falling(pump: dict[str, Any]) -> None:
    points = pump.get("points", [])
    for name in points[0] if points else ():
        rises = name == ("flow_m3_s" if "model" in pump or "nominal_v" in pump else "gauge_pa")
        for point, value in zip(
            points, sorted((p[name] for p in points), reverse=not rises), strict=True
        ):
            point[name] = value
    if points and ("model" in pump or "nominal_v" in pump):
        points[0]["flow_m3_s"] = 0


def documents(
    seed: int, count: int, kinds: tuple[str, ...] = tuple(KINDS)
) -> list[tuple[Document, random.Random]]:
    chance, found = random.Random(seed), []
    while len(found) < count:
        kind = chance.choice(kinds)
        raw = {
            "format": "zerodip-system",
            "version": 1,
            "system": {**_made(KINDS[kind].model, chance), "kind": kind},
        }
        raw |= {"settings": _made(Settings, chance), "practice": _made(Practice, chance)}
        _falling(raw["system"]["pump"])
        try:
            found.append((read_document(raw), chance))
        except InvalidInput:
            continue
    return found


@pytest.mark.parametrize("seed", range(6))
def test_every_readable_file_is_decided_with_finite_numbers(seed: int) -> None:
    for document, chance in documents(seed, 60):
        figures = figures_for(document.system, document.settings, document.practice)
        json.dumps(asdict(decision(figures, chance.choice(SYSTEMS))), allow_nan=False)
        shown = simulate_draw(figures, chance.choice([None, chance.uniform(0, 0.1)]))
        json.dumps(shown and asdict(shown), allow_nan=False)
        assert shown is None or len(shown.trail.times_s) < 4000
        assert summarize(document.system, document.settings, document.practice).headline


def test_the_simulation_moves_on_whatever_the_plant() -> None:
    for document, chance in documents(
        11, 150, tuple(id for id, kind in KINDS.items() if kind.simulating)
    ):
        plant = figures_for(document.system, document.settings, document.practice).store
        phases = simulate(
            plant, [Draw(60, 0), Draw(600, chance.uniform(0, 0.05)), Draw(240, 0)], most_events=400
        )
        stalled = [p for p in phases if p.end_s <= p.start_s and p.pump == "running"]
        assert len(stalled) <= len(phases) / 2
        stored = plant.off_m3 - plant.on_m3 > 1e-6
        assert not stored or len(phases) > 190 or phases[-1].end_s == pytest.approx(900)


def test_a_switch_watched_a_thousand_times_is_still_judged() -> None:
    of = class_of("one", stiff=False)
    looks = [
        Watch((40 + 0.1 * (k % 3)) * PSI, (60 + 0.1 * (k % 2)) * PSI, (0.125 * (-1) ** k,))
        for k in range(1100)
    ]
    assert believed(of, looks, 0.7 * PSI).mean[0] == pytest.approx(40 * PSI, rel=0.02)
