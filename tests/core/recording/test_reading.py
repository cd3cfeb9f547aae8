"""What is wrong with a recording, what it says, and the command."""

import json
from pathlib import Path
from typing import Any

import numpy as np
import pytest

from tests.lines import AIR_PA, GPM, Plant, line_of
from zerodip.cli import main
from zerodip.recording.arrays import Floats
from zerodip.recording.offers import offers_of
from zerodip.recording.quality import Quality, in_order
from zerodip.recording.reading import Reading, read_recording
from zerodip.recording.samples import Samples
from zerodip.recording.words import faults_said
from zerodip.units import PSI

EPOCH = 1772668800.0  # a Thursday, midnight


def quality_of(time_s: Floats, gauge: Floats) -> Quality:
    made = Quality()
    for first in range(0, len(time_s), 700):
        part = slice(first, first + 700)
        made.feed(Samples(time_s[part], gauge[part]))
    return made


def noisy(count: int = 8000, seed: int = 1) -> tuple[Floats, Floats]:
    rng = np.random.default_rng(seed)
    return EPOCH + np.arange(float(count)), (50 + rng.normal(0, 0.2, count)) * PSI


def test_a_sound_recording_has_no_fault() -> None:
    assert faults_said(quality_of(*noisy()), "us") == []


def test_each_fault_is_found_counted_and_said() -> None:
    time_s, gauge = noisy()
    time_s[2000:] += 3000  # a gap
    time_s[100] = time_s[99]  # one moment twice
    time_s[200], time_s[201] = time_s[201], time_s[200]  # out of order
    gauge[300] = np.nan
    gauge[400] += 30 * PSI
    gauge[6000:6005] = -5 * PSI
    made = quality_of(time_s, gauge)
    assert (made.gaps, made.missing, made.spikes) == (1, 1, 1)
    assert made.longest[0].seconds == pytest.approx(3001)
    assert made.below == 5
    assert made.repeated >= 1
    assert made.back == 1
    told = {each.id.split(".")[1] for each in faults_said(made, "metric")}
    assert told == {"disorder", "repeated", "gaps", "missing", "spikes", "offset"}


def test_a_sensor_that_stands_still_is_told_from_a_coarse_one() -> None:
    time_s, gauge = noisy(9000)
    gauge[3000:8000] = gauge[3000]
    stuck = quality_of(time_s, gauge)
    assert stuck.is_stuck
    assert stuck.still_s == pytest.approx(4999, abs=2)
    coarse = quality_of(time_s, np.round(np.full(9000, 50.0)) * PSI)
    assert not coarse.is_stuck


def test_what_is_read_is_in_order_and_each_moment_once() -> None:
    time_s = np.array([3.0, 1.0, 2.0, 2.0, np.nan, 5.0])
    made = in_order(Samples(time_s, np.array([30.0, 10.0, 20.0, 21.0, 1.0, np.nan])))
    assert made.time_s.tolist() == [1.0, 2.0, 3.0]
    assert made.gauge_pa.tolist() == [10.0, 20.0, 30.0]


def reading_of(plant: Plant, draws: list[tuple[float, float]], at: float = 0.0) -> Reading:
    line = line_of(plant, draws)
    samples = Samples(line.time_s + at, line.gauge_pa)
    blocks = (samples.taken(slice(k, k + 5000)) for k in range(0, len(samples), 5000))
    return read_recording(blocks)


def test_a_leak_is_told_and_in_litres_where_the_air_is_known() -> None:
    plant = Plant()
    drip = 0.01 * plant.flow_m3_s
    draws = [(40_000, drip), (300, 4 * GPM), (20_000, drip)]
    made = reading_of(plant, draws, EPOCH)
    assert made.leak
    assert made.leak.is_there
    assert made.leak.rate * plant.air == pytest.approx(drip, rel=0.02)


def test_a_tight_system_has_no_leak() -> None:
    plant = Plant()
    made = reading_of(plant, [(20_000, 0.0), (600, 4 * GPM), (20_000, 0.0)])
    assert made.leak
    assert not made.leak.is_there


def test_a_drain_gives_the_knee() -> None:
    """Two cycles, then the pump off and the tank drained: below the pre-charge the gauge falls at
    once."""
    plant = Plant(pre_charge=31)
    line = line_of(plant, [(20, 0), (500, 4 * GPM), (400, 0.0)])
    low = plant.pre_charge * PSI + AIR_PA
    last = line.gauge_pa[-1] + AIR_PA
    count = int(plant.air * (1 / low - 1 / last) / (3 * GPM))
    fall = 1 / (1 / last + 3 * GPM / plant.air * np.arange(count)) - AIR_PA
    gauge = np.concatenate(
        [line.gauge_pa, fall, np.maximum(low - AIR_PA - 4 * PSI * np.arange(200), 0)]
    )
    noise = np.random.default_rng(3).normal(0, 0.2 * PSI, len(gauge))
    made = read_recording([Samples(np.arange(float(len(gauge))), gauge + noise)])
    assert made.knee
    assert made.knee.gauge_pa == pytest.approx(31 * PSI, abs=1.0 * PSI)
    assert made.trips_s


def test_a_pump_that_never_comes_to_cut_out_is_told() -> None:
    plant = Plant(falls_by=1.0, flow_m3_s=6 * GPM)
    made = reading_of(plant, [(20, 0), (3000, 1 * GPM), (5000, 5 * GPM)])
    assert made.endless
    assert not made.endless[-1].ended
    assert 40 * PSI < made.endless[-1].gauge_pa < 60 * PSI


def test_days_hours_and_drift() -> None:
    """Half a psi a day on top of a week of equal cycles, a coarse step."""
    rng, step = np.random.default_rng(5), 5.0
    time_s = np.arange(0, 4 * 86400.0, step)
    phase = (time_s % 3000) / 3000
    gauge = np.where(phase < 0.7, 60 - 20 * phase / 0.7, 40 + 20 * (phase - 0.7) / 0.3)
    gauge += 0.5 * time_s / 86400 + rng.normal(0, 0.2, len(time_s))
    made = read_recording([Samples(EPOCH + time_s, gauge * PSI)])
    assert made.cut_in
    assert made.cut_in.drifts
    assert made.cut_in.per_day == pytest.approx(0.5 * PSI, rel=0.1)
    assert [sum(day.starts) for day in made.days] == pytest.approx([28.8] * 4, abs=1)
    assert made.busiest
    assert made.busiest[1] in (1, 2)


def test_cut_at_any_place_it_reads_the_same(monkeypatch: pytest.MonkeyPatch) -> None:
    from zerodip.recording import reading

    plant = Plant()
    whole = reading_of(plant, [(20, 0), (30_000, 3 * GPM)])
    monkeypatch.setattr(reading, "_BLOCK", 6000)
    parts = reading_of(plant, [(20, 0), (30_000, 3 * GPM)])
    assert len(parts.cycles) == len(whole.cycles)
    assert parts.cycles.start_s[:-1] == pytest.approx(whole.cycles.start_s[:-1], abs=0.6)


def written(tmp_path: Path, plant: Plant, draws: list[tuple[float, float]]) -> Path:
    line = line_of(plant, draws)
    rows = [
        f"{EPOCH + t:.0f},{g / PSI:.2f}" for t, g in zip(line.time_s, line.gauge_pa, strict=True)
    ]
    file = tmp_path / "week.csv"
    file.write_text("Logger\n\nepoch,Pressure (psi)\n" + "\n".join(rows) + "\n")
    return file


def test_the_command_tells_what_was_read(
    tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    file = written(tmp_path, Plant(pre_charge=24), [(20, 0), (6000, 3 * GPM), (3000, 0.0)])
    assert main(["recording", str(file), "--units", "metric"]) == 0
    told: dict[str, Any] = json.loads(capsys.readouterr().out)
    assert told["format"]["layout"]["style"] == "epoch_s"
    assert told["points"]["cut_in"]["usual"] == pytest.approx(40 * PSI, abs=0.2 * PSI)
    assert told["plates"]["pre_charge_gauge_pa"] is None
    assert any("cannot tell" in each for each in told["not_sure"])
    assert told["says"][0]["id"] == "line.brief"


def test_the_command_refuses_what_is_no_recording(
    tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    file = tmp_path / "picture.csv"
    file.write_bytes(b"\x89PNG" + b"\0" * 50)
    assert main(["recording", str(file)]) == 2
    assert "picture" in capsys.readouterr().err
    assert main(["recording", str(tmp_path / "none.csv")]) == 2


def test_the_command_is_told_what_it_would_guess_wrong(
    tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    rows = "".join(f"05/06/2025 10:{n // 60:02d}:{n % 60:02d},1,{4 + n % 16}\n" for n in range(900))
    file = tmp_path / "signal.csv"
    file.write_text("When,state,x\n" + rows)
    told = ["--column", "3", "--scale", "4-20 mA = 0-10 bar", "--first", "day", "--no-cycles"]
    assert main(["recording", str(file), *told, "--units", "bar"]) == 0
    made = json.loads(capsys.readouterr().out)
    assert "cycles" not in made
    assert made["format"]["layout"]["pattern"].startswith("%d/%m")
    column = made["format"]["layout"]["columns"][0]
    assert (column["at"], column["unit"], column["stands_most_pa"]) == (2, "mA", 1e6)
    assert main(["recording", str(file), "--scale", "loud", "--zone", "Nowhere"]) == 1
    assert capsys.readouterr().err.count("zerodip: ") == 2
    assert main(["recording", str(file), "--summary", "--unit", "psi", "--column", "3"]) == 0
    assert not capsys.readouterr().out.startswith("{")


@pytest.mark.parametrize("volume_m3", [0.004, 0.008, 0.015])
def test_however_short_it_cycles_no_run_is_without_end(volume_m3: float) -> None:
    """Runs of a few samples each: nothing is told of what the samples do not show."""
    plant = Plant(volume_m3=volume_m3)
    line = line_of(plant, [(20, 0), *[(200, 4 * GPM), (100, 0.0)] * 12])
    made = read_recording([Samples(line.time_s, line.gauge_pa)])
    assert not made.endless
    assert not made.dips
    assert made.coarse is (volume_m3 < 0.008)
    if made.coarse:  # three samples a run: which of them are cycles, nobody can tell
        assert offers_of(made, "x", "us") == []
        return
    assert made.cut_in
    assert abs(made.cut_in.cycles - len(line.start_s)) <= 0.1 * len(line.start_s)
    assert made.chatter <= np.count_nonzero(np.diff(line.start_s) < 10) + 2
    assert made.run
    assert made.run.usual == pytest.approx(
        np.median(line.stop_s - line.start_s[: len(line.stop_s)]), abs=1
    )


def test_a_dip_is_told_with_its_depth_and_seconds() -> None:
    """At each start the gauge falls to a third for three seconds: more air than cut-in."""
    plant = Plant(volume_m3=0.1)
    line = line_of(plant, [(20, 0), (4000, 3 * GPM), (600, 0.0)], noise_psi=0.1)
    gauge = line.gauge_pa.copy()
    for start in line.start_s:
        at = int(np.searchsorted(line.time_s, start))
        gauge[at : at + 3] = 14 * PSI
    made = read_recording([Samples(line.time_s, gauge)])
    assert made.dips == pytest.approx(len(line.start_s), abs=1)
    assert made.deepest_pa == pytest.approx(26 * PSI, abs=2 * PSI)
    assert made.longest_dip_s == pytest.approx(3, abs=1)
    slots = [(each.slot, each.value) for each in offers_of(made, "x", "us")]
    assert "found.cut_in" not in [slot for slot, _ in slots]
    assert ("saw", {"item": "breath", "says": "yes"}) in slots


@pytest.mark.parametrize("shown", [0, 1, 2, 3])
def test_starts_are_found_however_many_samples_show_the_collapse(shown: int) -> None:
    """Air over cut-in, a leak that brings the pump on all night: some collapses fall between two
    samples, others show in three."""
    plant = Plant(volume_m3=0.06)
    line = line_of(plant, [(30_000, 0.05 * GPM), (600, 3 * GPM), (20_000, 0.05 * GPM)])
    gauge = line.gauge_pa.copy()
    rng = np.random.default_rng(shown)
    for start in line.start_s:
        at = int(np.searchsorted(line.time_s, start))
        gauge[at : at + (rng.integers(0, 4) if shown == 3 else shown)] = 2 * PSI
    made = read_recording([Samples(line.time_s, gauge)])
    assert np.isfinite(made.cycles.start_s).sum() == len(line.start_s)
    if shown > 1:  # cut-in lies somewhere below what the gauge fell from
        assert made.empties
        assert made.empties.from_pa == pytest.approx(40 * PSI, abs=1 * PSI)
        assert made.cut_in is None
    else:
        assert made.cut_in
        assert made.cut_in.usual == pytest.approx(40 * PSI, abs=0.5 * PSI)
    assert not made.endless
