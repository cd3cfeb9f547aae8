"""What is said of a line: each thing where it is so and nowhere else, in the units asked for, the
same after it was kept; and what counts as known beside it."""

import json
from dataclasses import replace
from pathlib import Path
from typing import Any

import numpy as np
import pytest

from tests.core.systems import air_settings, compressor, file
from tests.lines import AIR_PA, GPM, Plant, line_of
from zerodip.cli import main
from zerodip.fileformat.document import Document, read_document
from zerodip.kinds.settings import Practice
from zerodip.recording.air_words import air_said
from zerodip.recording.figures import Empties, Figure, Trend
from zerodip.recording.fit import Known, fitted
from zerodip.recording.kept import cycles_kept, cycles_restored, kept, restored
from zerodip.recording.known import Beside, beside
from zerodip.recording.offers import offers_of
from zerodip.recording.predicted import predicted
from zerodip.recording.pump import Pump
from zerodip.recording.reading import Endless, Reading, read_recording
from zerodip.recording.samples import Samples
from zerodip.recording.told import told_of
from zerodip.recording.words import clock, said
from zerodip.units import PSI
from zerodip.visit.validation import check_record

EPOCH = 1772668800.0


@pytest.fixture(scope="module")
def calm() -> Reading:
    """A sound system: runs of a minute and more, a tight house."""
    plant = Plant(volume_m3=0.15)
    draws = [(3600.0, 0.0), (1500.0, 4 * GPM), (5400.0, 0.0), (1500.0, 4 * GPM), (3600.0, 0.0)]
    line = line_of(plant, draws)
    return read_recording([Samples(EPOCH + line.time_s, line.gauge_pa)])


def told(reading: Reading, known: Beside | None = None, units: str = "us") -> dict[str, str]:
    made = said(reading, None, known or Beside(), AIR_PA, units)
    return {each.id.removeprefix("line."): f"{each.title} {each.text}" for each in made}


def test_of_a_sound_system_nothing_stands_out(calm: Reading) -> None:
    assert set(told(calm)) == {"good"}


def test_a_line_on_which_the_pump_rests_says_so() -> None:
    quiet = line_of(Plant(), [(7200.0, 0.0)])
    assert set(told(read_recording([Samples(quiet.time_s, quiet.gauge_pa)]))) == {"quiet"}


HIGH = 100 * PSI
FIGURE = Figure(40 * PSI, 38 * PSI, 42 * PSI, 20)


@pytest.mark.parametrize(
    ("changes", "id", "word"),
    [
        ({"run": Figure(20.0, 15.0, 30.0, 12)}, "short", "20 s"),
        ({"chatter": 9}, "chatter", "9 times"),
        ({"dips": 3, "deepest_pa": 4 * PSI}, "dip", "4 psi"),
        ({"trips_s": (EPOCH,)}, "trip", "Thu 5 Mar 2026 00:00:00"),
        ({"cut_in": FIGURE}, "wanders", "38 psi to 42 psi"),
        ({"endless": (Endless(EPOCH, 1200.0, 52 * PSI, False),)}, "endless", "52 psi"),
        (
            {"cut_out": replace(FIGURE, least=40 * PSI, per_day=0.3 * PSI, per_day_error=1.0)},
            "drifts",
            "a day",
        ),
        ({"run": Figure(46.0, 40.0, 60.0, 12)}, "brief", "46 s"),
        ({"empties": Empties(12, 14, 46 * PSI)}, "empties", "empty at 46 psi"),
        ({"trend": Trend(74.0, 100.0, 0.05, 0.005)}, "longer", "74 s to 100 s"),
        ({"trend": Trend(100.0, 74.0, -0.05, 0.005)}, "shorter", "Air is being lost"),
        ({"zero_pa": 2.3 * PSI}, "zero", "2.3 psi when drained"),
    ],
)
def test_each_thing_is_said_where_it_is_so(
    calm: Reading, changes: dict[str, Any], id: str, word: str
) -> None:
    made = told(replace(calm, **changes))
    assert set(made) == {id}
    assert word in made[id]


def test_starts_are_held_against_the_motor(calm: Reading) -> None:
    bears = Beside(motor_per_day=10 / 86400)
    assert "starts" in told(calm, bears)
    assert "starts" not in told(calm, Beside(motor_per_day=300 / 86400))


def test_units_are_those_asked_for(calm: Reading) -> None:
    assert "0.28 bar" in told(replace(calm, dips=1, deepest_pa=4 * PSI), units="metric")["dip"]
    assert "kPa" in told(replace(calm, dips=1, deepest_pa=4 * PSI), units="kpa")["dip"]


def test_times_are_told_by_the_zone_s_clock_or_counted() -> None:
    assert clock(EPOCH, "Europe/Berlin").endswith("01:00:00")
    assert clock(3725, "") == "1:02:05"


def test_kept_and_made_again_it_says_the_same() -> None:
    plant = Plant(pre_charge=24)
    draws = [(3600.0, 0.02 * GPM), (2500.0, 4 * GPM), (5400.0, 0.02 * GPM)]
    line = line_of(plant, draws)
    made = read_recording([Samples(EPOCH + line.time_s, line.gauge_pa)])
    columns = json.loads(json.dumps(cycles_kept(made.cycles)))
    again = restored(json.loads(json.dumps(kept(made))), cycles_restored(columns))
    document = read_document(file())
    first, second = (told_of(each, "", document, "metric") for each in (made, again))
    assert first["says"] == second["says"]
    assert first["plates"] == second["plates"]
    assert first["draws"] == second["draws"]
    for mine, yours in zip(first["cycles"], second["cycles"], strict=True):
        assert mine == pytest.approx(yours, abs=2e-3)


def document(**assumed: bool) -> Document:
    raw = file()
    if assumed:
        raw["system"]["assumed"] = assumed
    return read_document(raw)


def test_what_is_only_assumed_is_not_known() -> None:
    names = {each.name for each in beside(document()).known}
    assert names == {"volume", "flow"}
    unread = document(**{"system.tanks": True})
    assert {each.name for each in beside(unread).known} == {"flow"}
    assert beside(None).known == ()


def test_of_a_plain_tank_the_share_of_a_fresh_charge_is_told() -> None:
    """Half of the air that the atmosphere would fill it with."""
    known = Beside(pre_charge_gauge_pa=0.0, store="plain")
    pump = Pump(1e-8, 1e-11, 0.3, 50)
    air = 0.5 * AIR_PA
    plates = fitted(pump, [Known("pre_charge", air, 0.01), Known("volume", 0.2, 0.01)])
    made = list(air_said(plates, known, AIR_PA, HIGH, "us"))
    assert "50 % of a fresh charge" in made[0].text
    full = fitted(pump, [Known("pre_charge", AIR_PA, 0.01), Known("volume", 0.2, 0.01)])
    assert not list(air_said(full, known, AIR_PA, HIGH, "us"))


@pytest.mark.parametrize(
    ("psi", "ids"),
    [
        (38.0, []),
        (36.0, []),
        (26.0, ["line.less_air"]),
        (10.0, ["line.air"]),
        (50.0, ["line.more_air"]),
        (-8.0, ["line.doubt"]),
        (110.0, ["line.doubt"]),
    ],
)
def test_what_a_fast_fill_may_explain_is_not_said_for_certain(psi: float, ids: list[str]) -> None:
    """A fill without any heat lost shows the air divided by 1.4: 38 psi as 23."""
    pump = Pump(1e-8, 1e-11, 0.3, 50)
    known = [Known("pre_charge", psi * PSI + AIR_PA, 0.01), Known("volume", 0.2, 0.01)]
    beside_it = Beside(pre_charge_gauge_pa=38 * PSI)
    made = list(air_said(fitted(pump, known), beside_it, AIR_PA, HIGH, "us"))
    assert [each.id for each in made] == ids


@pytest.mark.parametrize("exponent", [1.05, 1.2, 1.4])
def test_a_warm_fill_is_never_called_lost_air(exponent: float) -> None:
    """A line in which each run warms the air by n, the pre-charge as set."""
    plant = Plant(pre_charge=38, volume_m3=0.08)
    warm = replace(plant, volume_m3=plant.volume_m3 / exponent)  # stiffer by n
    line = line_of(warm, [(20, 0), (6000, 3 * GPM), (3000, 0.0)])
    made = read_recording([Samples(line.time_s, line.gauge_pa)])
    assert made.pump
    known = [Known("volume", plant.volume_m3, 0.02), Known("flow", plant.flow_m3_s, 0.045)]
    plates = fitted(made.pump, known)
    said_of_it = air_said(plates, Beside(pre_charge_gauge_pa=38 * PSI), AIR_PA, HIGH, "us")
    assert "line.air" not in {each.id for each in said_of_it}


def test_of_a_receiver_a_line_tells_no_tank() -> None:
    """A compressor's line bends as a water tank's does; its plates are not those of one."""
    line = line_of(Plant(pre_charge=24), [(20, 0), (4000, 3 * GPM), (3000, 0.03 * GPM)])
    made = read_recording([Samples(line.time_s, line.gauge_pa)])
    of = Document(compressor(), air_settings(), Practice(), {})
    told_of_it = told_of(made, "", of, "us")
    assert told_of_it["plates"] is None
    assert not any("pre-charge" in each for each in told_of_it["not_sure"])
    assert not any("house valve" in each["text"] for each in told_of_it["says"])


@pytest.mark.parametrize("share", [0.1, 0.5])
def test_the_predicted_cycle_is_the_plates_own(share: float) -> None:
    """Its ends are the set points of the file; under a larger draw it runs longer."""
    of = document()
    made = predicted(of, share, 100_000.0)
    assert made
    assert made.run_s
    assert min(made.gauge_pa) <= of.settings.cut_in_gauge_pa + 1
    assert max(made.gauge_pa) == pytest.approx(of.settings.cut_out_gauge_pa, abs=0.2 * PSI)
    alone = of.figures().run_s  # type: ignore[attr-defined]
    assert made.run_s > alone


def test_every_offer_fits_its_slot_and_comes_with_a_remark(calm: Reading) -> None:
    short = replace(calm, run=Figure(12.0, 11.0, 13.0, 12))
    endless = replace(short, endless=(Endless(EPOCH, 1200.0, 52 * PSI, False),))
    offers = offers_of(endless, "week", "us")
    for each in offers:
        assert check_record(each.slot, each.value) == [], each
    assert offers[-1].slot == "note"
    assert "week" in offers[-1].value["text"]
    assert {"found.cut_in", "found.cut_out", "found.run", "saw"} <= {o.slot for o in offers}
    drawn = offers_of(replace(calm, run=Figure(90.0, 67.0, 168.0, 12)), "week", "us")
    assert "found.run" not in {each.slot for each in drawn}  # no stopwatch's run
    assert "runs 67 to 168 s with draws" in drawn[-1].value["text"]
    none = line_of(Plant(), [(7200.0, 0.0)])
    assert offers_of(read_recording([Samples(none.time_s, none.gauge_pa)]), "x", "us") == []


def test_the_command_takes_the_system_s_file(
    tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    line = line_of(Plant(pre_charge=24), [(20, 0), (6000, 3 * GPM), (3000, 0.0)])
    rows = [f"{EPOCH + t:.0f},{g:.0f}" for t, g in zip(line.time_s, line.gauge_pa, strict=True)]
    recording, of = tmp_path / "day.csv", tmp_path / "system.json"
    recording.write_text("epoch,Pa\n" + "\n".join(rows))
    of.write_text(json.dumps(file()))
    assert main(["recording", str(recording), "--system", str(of)]) == 0
    made = json.loads(capsys.readouterr().out)
    plates = made["plates"]
    assert plates["pre_charge_gauge_pa"] is not None or plates["settles"]
    assert made["not_sure"] is not None
    of.write_text("{}")
    assert main(["recording", str(recording), "--system", str(of)]) == 1


def test_a_line_written_with_holes_says_no_more_than_it_shows() -> None:
    """Every third sample missing, in random stretches: points as before, nothing invented."""
    line = line_of(Plant(), [(20, 0), (8000, 3 * GPM), (600, 0.0)])
    rng = np.random.default_rng(3)
    gauge = line.gauge_pa.copy()
    gauge[rng.random(len(gauge)) < 0.3] = np.nan
    made = read_recording([Samples(line.time_s, gauge)])
    assert made.cut_in
    assert made.cut_in.usual == pytest.approx(40 * PSI, abs=0.3 * PSI)
    assert made.quality.missing == int(np.isnan(gauge).sum())
    assert not made.endless
    assert not made.dips
