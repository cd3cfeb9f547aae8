"""Draws as events, their size where the air is known; what runs away all the time is none. A flow
recorded beside the pressure."""

import numpy as np
import pytest

from tests.lines import GPM, Plant, line_of
from zerodip.recording.reading import Reading, read_recording
from zerodip.recording.samples import Samples


@pytest.mark.parametrize("drip", [0.0, 0.01])
def test_draws_are_told_with_their_size(drip: float) -> None:
    plant = Plant()
    leak = drip * plant.flow_m3_s
    taps = [(240.0, 3 * GPM), (900.0, 2 * GPM), (1500.0, 4 * GPM)]
    draws = [(3600.0, leak)]
    for seconds, flow in taps:
        draws += [(seconds, flow + leak), (5400.0, leak)]
    line = line_of(plant, draws)
    made = read_recording([Samples(line.time_s, line.gauge_pa)])
    large = sorted(made.draws, key=lambda each: -each.by_air)[:3]
    got = sorted(each.by_air * plant.air for each in large)
    assert got == pytest.approx(sorted(seconds * flow for seconds, flow in taps), rel=0.15)
    rest = sum(each.by_air for each in made.draws) - sum(each.by_air for each in large)
    assert rest * plant.air < 0.02 * sum(got)
    begins = sorted(each.start_s for each in large)
    assert begins == pytest.approx([3600, 9240, 15540], abs=75)


def test_a_line_without_a_run_tells_no_draw() -> None:
    line = line_of(Plant(), [(7200.0, 0.0)])
    assert read_recording([Samples(line.time_s, line.gauge_pa)]).draws == ()


def with_flow(at_pump: bool) -> Reading:
    plant = Plant()
    draws = [(600.0, 0.0), (1800.0, 3 * GPM), (1200.0, 0.0), (1800.0, 2 * GPM), (900.0, 0.0)]
    line = line_of(plant, draws)
    bounds = np.cumsum([seconds for seconds, _ in draws])
    taps = np.array([flow for _, flow in draws])[np.searchsorted(bounds, line.time_s, "right")]
    runs = (line.time_s[:, None] >= line.start_s[: len(line.stop_s)]) & (
        line.time_s[:, None] < line.stop_s
    )
    pump = np.where(runs.any(axis=1), plant.delivers(line.gauge_pa), 0.0)
    flow = pump if at_pump else taps
    return read_recording([Samples(line.time_s, line.gauge_pa, None, flow)])


def test_a_flow_at_the_taps_tells_the_air() -> None:
    made = with_flow(at_pump=False).flows
    assert made.air_pa_m3 == pytest.approx(Plant().air, rel=0.03)
    assert made.delivery_m3_s is None


def test_a_flow_at_the_pump_tells_its_delivery() -> None:
    made = with_flow(at_pump=True).flows
    assert made.air_pa_m3 is None
    assert made.delivery_m3_s == pytest.approx(Plant().flow_m3_s, rel=0.05)
