"""Samples go through storage and come out the same, in few bytes; a pyramid says what its samples
say."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from zerodip.recording.packing import pack, pack_times, unpack, unpack_times
from zerodip.recording.pyramid import FACTORS, PyramidMaker
from zerodip.units import PSI

NUMBERS = st.one_of(
    st.floats(-1e6, 1e6, allow_nan=False),
    st.integers(-9999, 9999).map(lambda n: n / 100),
    st.just(float("nan")),
)


@settings(max_examples=200, deadline=None)
@given(st.lists(NUMBERS, max_size=60), st.sampled_from([1.0, PSI, 1e5, 100.0]))
def test_figures_come_out_as_they_went_in(read: list[float], factor: float) -> None:
    values = np.array(read) * factor
    assert np.array_equal(unpack(pack(values, factor)), values, equal_nan=True)


@settings(max_examples=100, deadline=None)
@given(st.lists(st.floats(0, 2e9) | st.just(float("nan")), max_size=60))
def test_times_come_out_to_the_microsecond(times: list[float]) -> None:
    time_s = np.array(times, dtype=float)
    made = unpack_times(pack_times(time_s))
    assert np.allclose(made, time_s, atol=1e-6, rtol=0, equal_nan=True)


def test_twelve_bits_take_less_than_three_bytes_a_sample() -> None:
    """A full scale of 4,096 steps, three steps of noise, a sample a second."""
    rng = np.random.default_rng(1)
    count = 65_536
    steps = np.round(2048 + 900 * np.sin(np.arange(count) / 50) + rng.normal(0, 3, count))
    values = steps / 100 * PSI
    size = len(pack(values, PSI)) + len(pack_times(1.7e9 + np.arange(float(count))))
    maker = PyramidMaker()
    levels = [*maker.feed(np.arange(float(count)), values), *maker.end()]
    for level in levels:
        size += len(pack(level.drawn.least, PSI)) + len(pack(level.drawn.most, PSI))
        size += len(pack_times(level.drawn.time_s))
    assert size / count < 3


@pytest.mark.parametrize("count", [1, 63, 64, 65, 4096, 300_001])
def test_every_level_holds_the_least_and_most(count: int) -> None:
    rng = np.random.default_rng(count)
    values = rng.normal(50, 5, count)
    values[rng.random(count) < 0.01] = np.nan
    time_s = np.arange(float(count))
    maker = PyramidMaker()
    levels = []
    for first in range(0, count, 7_777):
        levels += maker.feed(time_s[first : first + 7_777], values[first : first + 7_777])
    levels += maker.end()
    for factor in FACTORS:
        parts = [each.drawn for each in levels if each.factor == factor]
        times = np.concatenate([each.time_s for each in parts])
        least = np.concatenate([each.least for each in parts])
        assert times.tolist() == list(range(0, count, factor))
        for at in range(0, len(times), max(len(times) // 50, 1)):
            bucket = values[at * factor : (at + 1) * factor]
            if np.isfinite(bucket).any():
                assert least[at] == np.nanmin(bucket)
