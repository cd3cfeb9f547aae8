"""What a gauge on the wire shows while one watches: whatever has come so far, nothing false is
said. The lines are solved by scipy, or come from a stand-in."""

from dataclasses import asdict, replace
from typing import Any

import numpy as np
import pytest

from tests.core.systems import file
from tests.lines import AIR_PA, GPM, Line, Plant, any_plant, line_of
from zerodip.fileformat.document import read_document
from zerodip.recording.live import Seen, seen_of, seen_restored
from zerodip.recording.samples import Samples
from zerodip.recording.watched import Wanted, hints_of, offered
from zerodip.stand_in import Hands, Sensor, StandIn
from zerodip.units import PSI
from zerodip.visit.log import Record, log_of

STEP_S = 0.05  # twenty a second
WANTED = Wanted(cut_in_pa=40 * PSI, cut_out_pa=60 * PSI, run_s=60.0)


def until(line: Line, end_s: float) -> Seen | None:
    came = line.time_s < end_s
    return seen_of(Samples(line.time_s[came], line.gauge_pa[came]), AIR_PA)


def test_whatever_came_so_far_points_and_times_are_those_of_the_plant() -> None:
    rng, within, count = np.random.default_rng(41), 0, 0
    for seed in range(8):
        plant = replace(any_plant(rng), lag_s=rng.uniform(0.2, 2.0))
        taps = [(rng.uniform(30, 150), rng.uniform(0.05, 0.7) * plant.flow_m3_s) for _ in range(3)]
        draws = [part for tap in taps for part in (tap, (rng.uniform(30, 90), 0.0))]
        line = line_of(plant, draws, STEP_S, rng.uniform(0.03, 0.3), seed)
        for end_s in np.arange(6.0, line.time_s[-1], 7.0):
            seen = until(line, end_s)
            assert seen is not None
            if seen.stop:
                assert np.abs(line.stop_s - seen.stop.at_s).min() < 3.0
                assert abs(seen.stop.gauge_pa - plant.cut_out * PSI) < 1.0 * PSI
            if seen.start:
                assert np.abs(line.start_s - seen.start.at_s).min() < 3.0
                off = abs(seen.start.gauge_pa - plant.cut_in * PSI)
                count, within = count + 1, within + (off <= seen.start.error_pa)
    assert within >= 0.95 * count > 0


def test_a_pump_that_never_reaches_cut_out_tells_no_stop() -> None:
    plant = Plant(falls_by=2.4, pre_charge=30)  # delivers nothing from 58 psi on
    line = line_of(plant, [(60, 5 * GPM), (600, 0.0)], STEP_S, 0.1, 3)
    for end_s in np.arange(60.0, line.time_s[-1], 20.0):
        seen = until(line, end_s)
        assert seen is not None
        assert seen.stop is None
        assert (seen.run_s, seen.quiet) == (None, None)


@pytest.mark.parametrize("tap", [0.2, 0.6, 0.8])
@pytest.mark.parametrize("open_s", [3.0, 20.0, 60.0])
def test_a_tap_shut_while_the_pump_runs_is_no_start(tap: float, open_s: float) -> None:
    """With a tap open that takes nearly all, the gauge hardly rises until it is shut."""
    plant, at_s = StandIn(read_document(file()), Hands(tap=tap), 0.0), 0.0
    while not plant.runs(at_s):
        at_s += 0.1
    samples = watched([(0, Hands(tap=tap)), (at_s + open_s, Hands())], at_s + open_s + 85)
    seen = seen_of(samples, AIR_PA, 1.5)
    assert seen is not None
    assert seen.stop is not None
    if seen.start is None:
        assert seen.run_s is None
        assert [each.title for each in hints_of(seen, "watch", "us")] == ["The start was not clear"]
    else:
        assert seen.start.at_s == pytest.approx(at_s + 1.5, abs=2.0)
        assert seen.run_s == pytest.approx(seen.stop.at_s - at_s, abs=seen.time_error_s + 0.5)
    if open_s < 5 or tap < 0.5:
        assert seen.start is not None  # done as it is told, it is seen


def watched(
    hands: list[tuple[float, Hands]], seconds: float, seed: int = 1, **settings: Any
) -> Samples:
    """A stand-in's gauge under hands that move at some times (s)."""
    raw = file()
    raw = {**raw, "settings": {**raw["settings"], **settings}}
    raw["entered"] = {}
    raw["system"] = {
        **raw["system"],
        "tanks": [
            {k: v for k, v in tank.items() if k != "pre_charge_gauge_pa"}
            for tank in raw["system"]["tanks"]
        ],
    }
    rng = np.random.default_rng(seed)
    plant = StandIn(read_document(raw), hands[0][1], 0.0)
    sensor = Sensor(lambda: float(rng.normal(0, 0.08 * PSI)))
    times, gauges, todo = np.arange(0.0, seconds, STEP_S), [], list(hands)
    for at_s in times:
        while todo and todo[0][0] <= at_s:
            plant.move(todo.pop(0)[1], float(at_s))
        gauges.append(sensor.reads(plant.gauge_pa(float(at_s)), float(at_s)))
    return Samples(times, np.array(gauges))


@pytest.mark.parametrize("tap", [0.15, 0.3, 0.5, 0.8])
def test_where_the_tank_is_empty_before_the_switch_clicks_cut_in_is_not_told(tap: float) -> None:
    """A pre-charge above cut-in: the gauge falls from it to nothing, and the click is within."""
    samples = watched(
        [(0, Hands(tap=tap))], 500.0, cut_in_gauge_pa=30 * PSI, pre_charge_gauge_pa=38 * PSI
    )
    seen = seen_of(samples, AIR_PA)
    assert seen is not None
    assert seen.start is not None
    assert seen.start.dips
    assert seen.start.gauge_pa == pytest.approx(38 * PSI, abs=1.0 * PSI)
    slots = [each.slot for each in offered(seen, "watch", log_of([]), WANTED, "us")]
    assert "found.cut_in" not in slots
    assert [each.title for each in hints_of(seen, "watch", "us")] == ["It dips: cut-in is hidden"]


@pytest.mark.parametrize("pre_charge", [14.0, 22.0, 31.0, 38.0])
def test_a_drain_tells_the_pre_charge_once_the_tank_is_empty(pre_charge: float) -> None:
    samples = watched(
        [(0, Hands(power="off", drain=0.8))], 600.0, pre_charge_gauge_pa=pre_charge * PSI
    )
    empty = int(np.flatnonzero(samples.gauge_pa < 3 * PSI)[0])
    early = seen_of(samples.taken(slice(0, empty - 60)), AIR_PA)
    seen = seen_of(samples.taken(slice(0, empty + 200)), AIR_PA)
    assert early is not None
    assert early.knee is None
    assert seen is not None
    assert seen.knee is not None
    assert seen.knee.gauge_pa == pytest.approx(pre_charge * PSI, abs=0.6 * PSI)
    made = offered(seen, "safe", log_of([]), WANTED, "us")
    assert [each.slot for each in made] == ["found.knee"]


def test_a_leak_is_watched_at_rest_and_an_opened_tap_is_none() -> None:
    cycle = [(80, 5 * GPM), (200, 0.0)]
    drip = line_of(Plant(), [*cycle, (400, 0.02 * GPM)], STEP_S, 0.1, 5)
    seen = until(drip, drip.time_s[-1])
    assert seen is not None
    assert seen.quiet is not None
    fall = seen.quiet.first_pa - seen.quiet.later_pa
    truly = np.interp(
        [drip.time_s[-1] - seen.quiet.seconds, drip.time_s[-1]], drip.time_s, drip.gauge_pa
    )
    assert fall == pytest.approx(truly[0] - truly[1], abs=0.5 * PSI)
    tap = line_of(Plant(), [*cycle, (200, 0.0), (15, 3 * GPM)], STEP_S, 0.1, 5)
    opened = until(tap, tap.time_s[-1])
    assert opened is not None
    assert opened.quiet is None


def test_across_a_gap_nothing_is_told() -> None:
    line = line_of(Plant(), [(10, 0.0), (90, 6 * GPM), (120, 0.0)], STEP_S, 0.1, 2)
    kept = ~((line.time_s > line.start_s[0] - 5) & (line.time_s < line.start_s[0] + 5))
    seen = seen_of(Samples(line.time_s[kept], line.gauge_pa[kept]), AIR_PA)
    assert seen is not None
    assert (seen.start, seen.run_s) == (None, None)
    assert seen_restored(asdict(seen)) == seen


def cycle_at(turned_s: float | None, low_pa: float = 0.0) -> list[Any]:
    """What is offered at Set after one whole cycle, with a turn recorded at some time."""
    line = line_of(Plant(), [(10, 0.0), (60, 6 * GPM), (120, 0.0)], STEP_S, 0.05, 2)
    seen = until(line, line.time_s[-1])
    assert seen is not None
    records = [Record(id="low", slot="gauge.low", value=1 * PSI, at="1970-01-01T00:00:00+00:00")]
    if turned_s is not None:
        at = f"1970-01-01T00:{int(turned_s // 60):02}:{turned_s % 60:05.2f}+00:00"
        value = {"first": 0.5, "second": 0.0, "after": 0}
        records.append(Record(id="turn", slot="set.turned", value=value, at=at))
    return offered(seen, "set", log_of(records), WANTED, "us", low_pa=low_pa)


def test_a_look_is_of_what_came_after_the_turn() -> None:
    (look,) = cycle_at(5.0)
    assert (look.value["first"], look.value["second"], look.value["after"]) == (0.5, 0.0, 0)
    assert look.value["cut_out_gauge_pa"] == pytest.approx(59 * PSI, abs=0.3 * PSI)
    assert cycle_at(100.0) == []  # the start was before the turn
    assert cycle_at(None)[0].value["first"] == 0.0


def test_pressures_are_as_the_visit_s_own_gauge_shows_them() -> None:
    """The visit's gauge shows a psi too little; so does this one, or it does not."""
    (same,), (other,) = cycle_at(5.0, 1 * PSI), cycle_at(5.0)
    apart = same.value["cut_out_gauge_pa"] - other.value["cut_out_gauge_pa"]
    assert apart == pytest.approx(1 * PSI, abs=0.2)


@pytest.mark.parametrize(("draw", "says"), [(0.0, ["found.gauge"]), (6 * GPM, [])])
def test_a_gauge_that_moves_is_not_offered_as_what_it_shows_now(
    draw: float, says: list[str]
) -> None:
    line = line_of(Plant(), [(10, 0.0), (30, draw)], STEP_S, 0.05, 2)
    seen = until(line, 20.0)
    assert seen is not None
    assert [each.slot for each in offered(seen, "watch", log_of([]), WANTED, "us")] == says


def test_what_is_on_record_is_said_and_corrected() -> None:
    line = line_of(Plant(), [(10, 0.0), (60, 6 * GPM), (120, 0.0)], STEP_S, 0.05, 2)
    seen = until(line, line.time_s[-1])
    assert seen is not None
    made = {each.slot: each for each in offered(seen, "watch", log_of([]), WANTED, "us")}
    assert set(made) == {"found.gauge", "found.cut_in", "found.cut_out", "found.run"}
    taken = [
        Record(id=slot, slot=slot, value=each.value, at="1970-01-01T00:10:00+00:00")
        for slot, each in made.items()
    ]
    taken[1] = replace(taken[1], value=1.0)
    again = offered(seen, "watch", log_of(taken), WANTED, "us")
    assert [(each.slot, each.taken, each.supersedes) for each in again] == [
        ("found.cut_in", False, "found.cut_in"),
        ("found.cut_out", True, "found.cut_out"),
        ("found.run", True, "found.run"),
    ]


def test_a_look_that_was_taken_stays_on_record_until_a_nut_is_turned() -> None:
    line = line_of(Plant(), [(10, 0.0), (60, 6 * GPM), (120, 0.0)], STEP_S, 0.05, 2)
    seen = until(line, line.time_s[-1])
    (look,) = cycle_at(None)
    taken = Record(
        id="look", slot="try", value=look.value, at="1970-01-01T00:04:00+00:00", by_gauge="Sender"
    )
    assert seen is not None
    (again,) = offered(seen, "set", log_of([taken]), WANTED, "us")
    assert again.taken
    turn = Record(
        id="turn", slot="set.turned", value={"first": 1.0}, at="1970-01-01T00:05:00+00:00"
    )
    assert offered(seen, "set", log_of([taken, turn]), WANTED, "us") == []
