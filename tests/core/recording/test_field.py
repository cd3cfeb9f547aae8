"""Lines and files that nothing of the core had a part in: `tests.field`."""

import io
import random

import numpy as np
import pytest

from tests.field.cases import Case, drawn, misses
from tests.field.house import House, Tap, lived
from tests.field.recorders import FORMS, Sensor, seen
from zerodip.recording.files import guess_file, samples_of
from zerodip.recording.known import Beside
from zerodip.recording.reading import Reading, read_recording
from zerodip.recording.samples import Samples
from zerodip.recording.words import faults_said, said
from zerodip.units import PSI

EPOCH = 1.7e9


@pytest.mark.parametrize("form", FORMS)
@pytest.mark.parametrize("every", [0.5, 2.0, 10.0])
def test_every_form_of_file_is_understood_alone(form: str, every: float) -> None:
    line = lived(House(), [Tap(50, 900, 4)], 1500, 55)
    times, psi = seen(line, Sensor(every=every), random.Random(1))
    data = FORMS[form](times, psi).encode()
    found = guess_file(io.BytesIO(data))
    assert [each for each in found.doubts if "taken as" in each] == []
    blocks = list(samples_of(io.BytesIO(data), found.layout))
    gauge = np.concatenate([each.gauge_pa for each in blocks])
    assert gauge / PSI == pytest.approx(psi, abs=0.1)
    at = np.concatenate([each.time_s for each in blocks])
    assert at - at[0] == pytest.approx(np.array(times) - times[0], abs=0.01 if every > 1 else 0.6)


def read(case: Case) -> Reading:
    """A case as it was recorded."""
    samples = Samples(EPOCH + np.array(case.times), np.array(case.psi) * PSI)
    return read_recording([samples])


def missed(case: Case) -> list[str]:
    """What is not told of a case, or told and not so."""
    made = read(case)
    told = [*faults_said(made.quality, "us"), *said(made, None, Beside(), 101325.0, "us")]
    ids = [each.id for each in told if each.weight in ("warning", "danger")]
    starts = made.cycles.start_s[np.isfinite(made.cycles.start_s)] - EPOCH
    return misses(case, ids, starts.tolist())


@pytest.mark.parametrize("fault", ["healthy", "above", "leak", "trips", "waterlogged", "drifts"])
def test_a_line_tells_its_fault_and_no_other(fault: str) -> None:
    for seed in range(2):
        told = missed(drawn(fault, random.Random(f"{fault} {seed}")))
        assert [each for each in told if not each.endswith(("not found", "were none"))] == []


def test_air_over_cut_in_is_told_by_where_the_gauge_collapses() -> None:
    """The switch is at 40, the air at 46: 46 is told, and cut-in is not."""
    house = House(volume=20, charge=46, lag=0.9, elastic=0.008, dead_head=88)
    line = lived(house, [Tap(20, 1500, 4)], 1600, 58)
    times, psi = seen(line, Sensor(every=0.5), random.Random(3))
    made = read_recording([Samples(np.array(times), np.array(psi) * PSI)])
    assert made.empties
    assert made.empties.starts == len(line.starts) > 8
    assert made.empties.from_pa == pytest.approx(46 * PSI, abs=0.7 * PSI)
    assert made.cut_in is None
    assert made.dips == len(line.starts)


def test_a_pump_that_stalls_has_not_stopped() -> None:
    line = lived(House(dead_head=56.6), [Tap(60, 200, 6)], 3000, 44)
    times, psi = seen(line, Sensor(every=1.0), random.Random(4))
    made = read_recording([Samples(np.array(times), np.array(psi) * PSI)])
    assert [each.ended for each in made.endless] == [False]
    assert made.endless[0].gauge_pa == pytest.approx(56.6 * PSI, abs=0.5 * PSI)
    assert made.cut_out is None


def test_a_point_on_the_line_contradicts_the_switch_aloud() -> None:
    """Without the switch nobody could tell a stall from a stop; its setting does."""
    line = lived(House(cut_out=57), [Tap(60, 200, 6)], 1500, 44)
    times, psi = seen(line, Sensor(every=1.0), random.Random(6))
    made = read_recording([Samples(np.array(times), np.array(psi) * PSI)])
    set_to = Beside(cut_in_gauge_pa=40 * PSI, cut_out_gauge_pa=60 * PSI)
    told = said(made, None, set_to, 101325.0, "us")
    assert [each.title for each in told if each.id == "line.apart"] == [
        "Cut-out is 57 psi on the line, 60 psi as set"
    ]


def test_a_drain_alone_tells_its_knee_over_the_sensors_zero() -> None:
    house = House(charge=31, volume=32, power_off=30)
    line = lived(house, [Tap(40, 700, 5)], 800, 58)
    times, psi = seen(line, Sensor(every=1.0, offset=2.3), random.Random(5))
    made = read_recording([Samples(np.array(times), np.array(psi) * PSI)])
    assert made.zero_pa == pytest.approx(2.3 * PSI, abs=0.15 * PSI)
    assert made.knee
    assert made.knee.gauge_pa == pytest.approx(31 * PSI, abs=0.8 * PSI)
