"""Starts, stops and set points on simulated lines: against the truth, and beside a general library
of change points."""

import numpy as np
import pytest
import ruptures

from tests.lines import (
    AIR_PA,
    GPM,
    Plant,
    any_short_cycler,
    house_draws,
    line_of,
    long_draws,
    nearest,
)
from zerodip.recording.cycles import Cycles, cycles_of, draws_beside
from zerodip.recording.samples import Samples
from zerodip.units import PSI


def read(line: object) -> Cycles:
    return cycles_of(Samples(line.time_s, line.gauge_pa))  # type: ignore[attr-defined]


def random_plant(rng: np.random.Generator) -> Plant:
    return Plant(
        pre_charge=rng.uniform(20, 38),
        volume_m3=rng.uniform(0.03, 0.12),
        flow_m3_s=rng.uniform(6, 14) * GPM,
        falls_by=rng.uniform(0.1, 0.5),
    )


def test_starts_and_stops_lie_within_a_second() -> None:
    rng = np.random.default_rng(11)
    off: list[float] = []
    for seed in range(8):
        plant = random_plant(rng)
        line = line_of(plant, long_draws(rng, plant, 6), seed=seed)
        made = read(line)
        assert len(made) == len(line.start_s)
        off += nearest(made.start_s, line.start_s).tolist()
        off += nearest(made.stop_s, line.stop_s).tolist()
        assert np.nanmedian(made.cut_in_pa) == pytest.approx(40 * PSI, abs=0.1 * PSI)
        assert np.nanmedian(made.cut_out_pa) == pytest.approx(60 * PSI, abs=0.1 * PSI)
        assert np.nanpercentile(np.abs(made.cut_in_pa / PSI - 40), 95) < 0.3
        assert np.nanpercentile(np.abs(made.cut_out_pa / PSI - 60), 95) < 0.3
    assert len(off) > 500
    assert np.mean(np.array(off) <= 1.0) >= 0.99


def test_taps_opened_and_shut_beside_a_start_or_a_stop_are_told_from_it() -> None:
    """Seconds apart they make one break that lies between, up to ten seconds off; the set points
    and the pump's own bend tell them apart."""
    rng = np.random.default_rng(23)
    off: list[float] = []
    points: list[float] = []
    for seed in range(8):
        plant = random_plant(rng)
        line = line_of(plant, house_draws(rng, plant, 20_000), seed=seed)
        made = read(line)
        off += [*nearest(made.start_s, line.start_s), *nearest(made.stop_s, line.stop_s)]
        points += [*(made.cut_in_pa / PSI - 40), *(made.cut_out_pa / PSI - 60)]
    assert len(off) > 1000
    assert np.mean(np.array(off) <= 1.0) >= 0.985
    assert np.nanmean(np.abs(points) <= 0.3) >= 0.985


def test_however_fast_it_short_cycles_every_start_is_found_and_no_run_is_long() -> None:
    """Runs of a few samples turn so sharply that they look like a spike or a collapse."""
    rng = np.random.default_rng(6)
    off: list[float] = []
    for seed in range(12):
        plant, draws = any_short_cycler(rng)
        line = line_of(plant, draws, noise_psi=0.25, seed=seed)
        made = read(line)
        assert len(made) == len(line.start_s)
        longest = (line.stop_s - line.start_s[: len(line.stop_s)]).max()
        assert np.nanmax(made.run_s) < longest + 3
        off += [*nearest(made.start_s, line.start_s), *nearest(made.stop_s, line.stop_s)]
    assert len(off) > 2000
    assert np.mean(np.array(off) <= 1.0) >= 0.99


def test_two_sides_are_nearer_than_the_lowest_sample() -> None:
    """The lowest of many noisy samples lies below what they are samples of."""
    plant = Plant()
    line = line_of(plant, [(20, 0), (4000, 2 * GPM)], noise_psi=0.6)
    made = read(line)
    lowest = np.array([line.gauge_pa[np.abs(line.time_s - t) < 8].min() for t in made.start_s])
    assert np.median(lowest) < 40 * PSI - 0.5 * PSI
    assert abs(np.median(made.cut_in_pa) - 40 * PSI) < 0.2 * PSI


@pytest.mark.parametrize("seed", range(4))
def test_a_quiet_day_has_no_cycle(seed: int) -> None:
    """Noise, a leak, the day's warmth, a coarse gauge, a tap that takes less than brings it on."""
    rng = np.random.default_rng(seed)
    time_s = np.arange(86400.0)
    gauge = 50 + rng.normal(0, 0.3, len(time_s)) - 0.04 * time_s / 3600
    gauge += 3 * np.sin(time_s / 86400 * 2 * np.pi) if seed % 2 else 0
    gauge -= np.clip((time_s - 40_000) / 100, 0, 4) if seed >= 2 else 0
    gauge = np.round(gauge, 1) if seed == 3 else gauge
    assert len(cycles_of(Samples(time_s, gauge * PSI))) == 0


@pytest.mark.parametrize("seed", [0, 3, 21, 65])
def test_where_a_tap_is_shut_and_the_day_warms_nothing_starts(seed: int) -> None:
    """A fall that ends bends as sharply as a start, and warmth brings the line up again."""
    time_s, gauge = np.arange(20_000.0), 50 + np.random.default_rng(seed).normal(0, 0.6, 20_000)
    gauge -= 9 * np.clip((time_s - 9000) / 180, 0, 1)
    gauge += 3.5 * np.sin(time_s / 86400 * 2 * np.pi)
    assert len(cycles_of(Samples(time_s, gauge * PSI))) == 0


def test_draws_by_the_falls_are_not_biased() -> None:
    """What lies beyond the next break would make every fall too gentle."""
    rng = np.random.default_rng(77)
    off = []
    for seed in range(10):
        plant = random_plant(rng)
        draw = rng.uniform(0.1, 0.6) * plant.flow_m3_s
        made = read(line_of(plant, [(6000.0, draw)], noise_psi=0.05, seed=seed))
        before, after, *_ = draws_beside(made, AIR_PA)
        beside = np.array([np.nanmedian(before), np.nanmedian(after)])
        off.append(beside * plant.air / plant.flow_m3_s - draw / plant.flow_m3_s)
    assert np.abs(np.mean(off, axis=0)).max() < 5e-4


def test_a_tap_that_holds_the_line_within_the_band_is_no_cycle() -> None:
    """The pump runs on while a second tap pulls the line down again before cut-out."""
    plant = Plant()
    draws = [(20, 0), (500, 3 * GPM), (200, 11 * GPM), (200, 3 * GPM), (900, 0.0)]
    line = line_of(plant, draws)
    made = read(line)
    assert len(made) == len(line.start_s)
    assert nearest(made.stop_s, line.stop_s).max() < 3


def test_the_current_tells_the_moment_of_the_click() -> None:
    plant = Plant()
    line = line_of(plant, [(20, 0), (3000, 3 * GPM)])
    clicked = line.start_s - 2.0  # the pump delivers two seconds after the click
    runs = (line.time_s[:, None] >= clicked) & (line.time_s[:, None] < line.stop_s)
    current = np.where(runs.any(axis=1), 7.5, 0.1)
    made = cycles_of(Samples(line.time_s, line.gauge_pa, current))
    assert nearest(made.start_s, clicked).max() <= 0.51
    assert np.median(made.cut_in_pa) > 40 * PSI + 0.2 * PSI  # before it fell on to the turn


def test_a_gap_is_no_rest_and_what_it_cuts_is_open() -> None:
    plant = Plant()
    line = line_of(plant, [(20, 0), (4000, 3 * GPM)])
    middle = 0.1 * line.start_s[3] + 0.9 * line.stop_s[3]
    kept = (line.time_s < middle) | (line.time_s > middle + 900)
    made = cycles_of(Samples(line.time_s[kept], line.gauge_pa[kept]))
    assert np.isnan(made.stop_s).sum() >= 1
    whole = np.isfinite(made.run_s)
    assert made.run_s[whole].max() < 2 * np.median(made.run_s[whole])


def test_beside_a_general_library_of_change_points() -> None:
    """ruptures (binary segmentation, piecewise linear) on the same line: ours is as near or nearer.
    It is told how many there are; ours is not."""
    plant = Plant(volume_m3=0.05)
    line = line_of(plant, [(20, 0), (900, 3 * GPM)])
    true = np.concatenate([line.start_s, line.stop_s])
    signal = np.column_stack([line.gauge_pa / PSI, np.ones_like(line.time_s), line.time_s])
    found = ruptures.BottomUp(model="linear", jump=1).fit(signal).predict(n_bkps=len(true))
    made = read(line)
    ours = nearest(np.concatenate([made.start_s, made.stop_s]), true)
    theirs = nearest(np.array(found, dtype=float), true)
    assert ours.mean() <= theirs.mean()
    assert ours.max() <= 1.0


def test_a_stop_before_hours_of_rest_is_found_at_the_end_of_the_rise() -> None:
    """A small tank, short taps, long flat lines after: the highest sample lies anywhere on them."""
    rng = np.random.default_rng(4)
    plant = Plant(cut_in=28.5, cut_out=43.5, pre_charge=21, volume_m3=0.024, flow_m3_s=12 * GPM)
    draws = []
    for _ in range(60):
        draws += [(rng.exponential(600), 0.0), (rng.uniform(20, 420), rng.uniform(1, 7) * GPM)]
    line = line_of(plant, [*draws, (300, 0.0)], noise_psi=0.25)
    made = read(line)
    assert len(made) == len(line.start_s)
    off = np.concatenate([nearest(made.start_s, line.start_s), nearest(made.stop_s, line.stop_s)])
    assert np.mean(off <= 2.0) >= 0.99
    assert off.max() < 10
