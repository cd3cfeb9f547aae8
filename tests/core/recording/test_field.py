"""Lines and files that nothing of the core had a part in: `tests.field`."""

import io
import random

import numpy as np
import pytest

from tests.field.house import House, Tap, lived
from tests.field.recorders import FORMS, Sensor, seen
from zerodip.recording.files import guess_file, samples_of
from zerodip.units import PSI


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
