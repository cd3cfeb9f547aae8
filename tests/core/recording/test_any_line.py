"""Whatever a recorder wrote, reading it ends: nothing is raised, and what is said is said of
numbers."""

import json

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.core.systems import file
from tests.lines import GPM, any_plant, line_of
from zerodip.fileformat.document import Document, read_document
from zerodip.recording.kept import cycles_kept, cycles_restored, kept, restored
from zerodip.recording.offers import offers_of
from zerodip.recording.reading import read_recording
from zerodip.recording.samples import Samples
from zerodip.recording.told import told_of
from zerodip.units import PSI


def told(samples: Samples, document: Document) -> None:
    blocks = (samples.taken(slice(k, k + 700)) for k in range(0, len(samples), 700))
    made = read_recording(blocks, 900.0, "Europe/Berlin")
    for units in ("us", "metric", "kpa"):
        json.dumps(told_of(made, "", document, units), allow_nan=False)
        offers_of(made, "any", units)
    again = restored(json.loads(json.dumps(kept(made))), cycles_restored(cycles_kept(made.cycles)))
    told_of(again, "", document, "us")


SHAPES = st.sampled_from(["walk", "noise", "steps", "constant", "sine", "saw", "huge", "negative"])


@settings(max_examples=150, deadline=None)
@given(
    SHAPES,
    st.integers(0, 2500),
    st.integers(0, 2**31),
    st.sampled_from([0.01, 1.0, 60.0]),
    st.booleans(),
    st.booleans(),
)
def test_any_figures_are_read(
    shape: str, count: int, seed: int, step_s: float, current: bool, flow: bool
) -> None:
    rng = np.random.default_rng(seed)
    at = np.arange(float(count))
    gauge = {
        "walk": lambda: np.cumsum(rng.normal(0, 1, count)) + 50,
        "noise": lambda: rng.normal(50, 20, count),
        "steps": lambda: 20.0 * (at // 37 % 4),
        "constant": lambda: np.full(count, 50.0),
        "sine": lambda: 50 + 10 * np.sin(at / rng.uniform(1, 60)),
        "saw": lambda: 40 + 20 * (at % 90) / 90 + rng.normal(0, rng.uniform(0, 2), count),
        "huge": lambda: rng.normal(0, 1e6, count),
        "negative": lambda: -10 + 3 * np.sin(at / 20),
    }[shape]()
    gauge[rng.random(count) < rng.choice([0, 0.2])] = np.nan
    time_s = 1.7e9 + at * step_s + rng.choice([0, 1e4]) * (at > count / 2)
    time_s[rng.random(count) < rng.choice([0, 0.05])] = np.nan
    samples = Samples(
        time_s,
        gauge * PSI,
        rng.uniform(0, 8, count) * (rng.random(count) > 0.5) if current else None,
        rng.uniform(0, 1e-3, count) if flow else None,
    )
    told(samples, read_document(file()))


@pytest.mark.parametrize("seed", range(12))
def test_a_house_is_read_whatever_else_is_recorded_beside_it(seed: int) -> None:
    """Taps at any moment, small tanks, figures that fit nothing: no run agrees with any other."""
    rng = np.random.default_rng(seed)
    plant = any_plant(rng)
    draws = []
    for _ in range(12):
        draws += [(rng.exponential(900), rng.choice([0.0, 0.05]) * GPM)]
        draws += [(rng.uniform(20, 900), rng.uniform(0.1, 0.7) * plant.flow_m3_s)]
    line = line_of(plant, draws, seed=seed)
    falls = np.diff(line.gauge_pa, prepend=line.gauge_pa[0]) > -5e3
    flow = np.full(len(falls), 2 * GPM)
    wild = np.where(falls, 5.0, 0.1)  # on and off with the noise
    told(Samples(line.time_s, line.gauge_pa, wild, flow), read_document(file()))
