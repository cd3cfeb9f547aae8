"""Reading recordings: speed beside plain numpy and polars, starts and stops against the truth,
quiet days, fitted plates against the Cramér–Rao bound. Lines are solved by scipy (tests/lines.py);
seeds are not those of the tests.

Goals: 10 million samples a second, half of one numpy pass of least, most, mean and difference; a
file in 1.5 times polars' own reading; times within a second for 99 % of cycles; no cycle in a quiet
day; set points within 0.3 psi; intervals that hold 87 to 93 %, spreads within 1.5 of the bound."""

import io
import sys
import time
from collections.abc import Callable, Sequence

import numpy as np
import polars as pl
import ruptures

from tests.lines import (
    AIR_PA,
    Plant,
    any_plant,
    any_quiet_day,
    any_short_cycler,
    house_draws,
    line_of,
    long_draws,
    nearest,
)
from zerodip.recording.arrays import Floats
from zerodip.recording.cycles import cycles_of
from zerodip.recording.files import guess_file, samples_of
from zerodip.recording.fit import Known, fitted
from zerodip.recording.packing import pack, pack_times
from zerodip.recording.pump import pump_of
from zerodip.recording.pyramid import PyramidMaker
from zerodip.recording.samples import Samples
from zerodip.recording.swings import noise_of
from zerodip.units import PSI

SEED = 9001
Draws = Sequence[tuple[float, float]]


def _timed(does: object) -> float:
    begin = time.perf_counter()
    does()  # type: ignore[operator]
    return time.perf_counter() - begin


def _sawtooth(count: int, hertz: float, starts_a_day: float) -> Samples:
    times = np.arange(count) / hertz
    period = 86400 / starts_a_day
    phase = (times % period) / period
    share = min(60 / period, 0.4)  # runs of a minute
    fall = 60 - 20 * phase / (1 - share)
    gauge = np.where(phase < 1 - share, fall, 40 + 20 * (phase - 1 + share) / share)
    gauge += np.random.default_rng(SEED).normal(0, 0.3, count)
    return Samples(1.7e9 + times, gauge * PSI)


def speed(count: int) -> None:
    """Analysis, and a plain pass over the same figures."""
    for hertz, starts in ((1.0, 30), (1.0, 300), (10.0, 100), (100.0, 100)):
        samples = _sawtooth(count, hertz, starts)
        gauge = samples.gauge_pa
        ours = _timed(lambda s=samples: cycles_of(s))
        plain = _timed(lambda g=gauge: (g.min(), g.max(), g.mean(), np.diff(g)))
        print(
            f"{hertz:5.0f} Hz, {starts:3} starts a day: {count / ours / 1e6:6.1f} million samples a"
            f" second (goal 10); numpy pass {count / plain / 1e6:.0f}, ratio {plain / ours:.2f}"
            " (goal 0.5)"
        )


def reading(rows: int) -> None:
    """A CSV of times and pressures, beside polars reading it by itself."""
    line = _sawtooth(rows, 1.0, 100)
    times = pl.from_epoch(pl.Series(line.time_s.astype(np.int64)), "s")
    table = pl.DataFrame({"Time": times, "psi": np.round(line.gauge_pa / PSI, 2)})
    data = table.write_csv(datetime_format="%Y-%m-%d %H:%M:%S").encode()
    layout = guess_file(io.BytesIO(data)).layout
    ours = _timed(lambda: sum(len(each) for each in samples_of(io.BytesIO(data), layout)))
    dates = _timed(lambda: pl.read_csv(data, try_parse_dates=True))
    text = _timed(lambda: pl.read_csv(data))
    print(
        f"{rows:,} rows: ours {ours:.2f} s; polars with dates {dates:.2f} s, ratio"
        f" {ours / dates:.2f}; times left as text {text:.2f} s, ratio {ours / text:.2f} (goal 1.5)"
    )


def packed(count: int) -> None:
    """Bytes a sample, with the pyramid, of 12-bit figures."""
    samples = _sawtooth(count, 1.0, 100)
    step = 150 / 4096
    values = np.round(np.round(samples.gauge_pa / PSI / step) * step, 4) * PSI
    size, maker = 0, PyramidMaker()
    for first in range(0, count, 65_536):
        part = slice(first, first + 65_536)
        size += len(pack(values[part], PSI)) + len(pack_times(samples.time_s[part]))
        for level in maker.feed(samples.time_s[part], values[part]):
            size += len(pack(level.drawn.least, PSI)) + len(pack(level.drawn.most, PSI))
            size += len(pack_times(level.drawn.time_s))
    print(f"{size / count:.2f} bytes a sample with its pyramid (goal 3)")


def _drawn(draws: Callable[[Plant], Draws], rng: np.random.Generator) -> tuple[Plant, Draws]:
    plant = any_plant(rng)
    return plant, draws(plant)


def times(lines: int) -> None:
    """Starts and stops against the truth, 0.3 psi of noise, a sample a second."""
    rng = np.random.default_rng(SEED)
    for name, made_up in (
        ("taps for long", lambda: _drawn(lambda p: long_draws(rng, p, 8), rng)),
        (
            "taps opened and shut within runs",
            lambda: _drawn(lambda p: house_draws(rng, p, 2e4), rng),
        ),
        ("small tanks that have lost air", lambda: any_short_cycler(rng)),
    ):
        off, points, cycles, found = [], [], 0, 0
        for seed in range(lines):
            line = line_of(*made_up(), seed=SEED + seed)
            made = cycles_of(Samples(line.time_s, line.gauge_pa))
            cycles, found = cycles + len(line.start_s), found + len(made)
            off += [*nearest(made.start_s, line.start_s), *nearest(made.stop_s, line.stop_s)]
            points += [*(made.cut_in_pa / PSI - 40), *(made.cut_out_pa / PSI - 60)]
        within = np.abs(np.array(points))
        print(
            f"{name}: {cycles} cycles, {found} found; within a second"
            f" {np.mean(np.array(off) <= 1):.2%} (goal 99 %), within five"
            f" {np.mean(np.array(off) <= 5):.2%}; points within 0.3 psi"
            f" {np.nanmean(within <= 0.3):.1%}, the worst {np.nanmax(within):.2f} psi"
        )


def beside_ruptures(lines: int) -> None:
    """The same lines by a general library of change points, which is told how many there are."""
    rng, ours, theirs = np.random.default_rng(SEED + 1), [], []
    for seed in range(lines):
        plant = any_plant(rng)
        line = line_of(plant, house_draws(rng, plant, 1500), seed=SEED + seed)
        true = np.concatenate([line.start_s, line.stop_s])
        if not len(true):
            continue
        made = cycles_of(Samples(line.time_s, line.gauge_pa))
        ours += nearest(np.concatenate([made.start_s, made.stop_s]), true).tolist()
        signal = np.column_stack([line.gauge_pa / PSI, np.ones_like(line.time_s), line.time_s])
        search = ruptures.BottomUp(model="linear", jump=1).fit(signal)
        theirs += nearest(np.array(search.predict(n_bkps=len(true)), float), true).tolist()
    for name, off in (("ours", ours), ("ruptures", theirs)):
        told = np.array(off)
        print(
            f"{name:8}: {len(told)} starts and stops, median {np.median(told):.2f} s off, within a"
            f" second {np.mean(told <= 1):.1%}, within five {np.mean(told <= 5):.1%}"
        )


def quiet(days: int) -> None:
    """Days on which nothing starts."""
    rng = np.random.default_rng(SEED)
    false = sum(len(cycles_of(Samples(*any_quiet_day(rng)))) for _ in range(days))
    print(f"{false} false cycles in {days} quiet days (goal 0)")


def plates(lines: int) -> None:
    """Pre-charge by the line, tank and flow known: how often the interval holds it, and its spread
    beside the Cramér–Rao bound of the same runs and falls."""
    rng, held, errors, bounds = np.random.default_rng(SEED), 0, [], []
    for seed in range(lines):
        plant = any_plant(rng)
        line = line_of(plant, long_draws(rng, plant, 3), seed=2 * SEED + seed)
        samples = Samples(line.time_s, line.gauge_pa)
        noise = noise_of(samples.gauge_pa)
        pump = pump_of(samples, cycles_of(samples), AIR_PA, noise)
        assert pump
        known = [Known("volume", plant.volume_m3, 1e-6), Known("flow", plant.flow_m3_s, 1e-6)]
        within, true = fitted(pump, known).pre_charge_abs_pa, plant.pre_charge * PSI + AIR_PA
        assert within
        held += within.least <= true <= within.most
        errors.append(within.value / true - 1)
        bounds.append(_bound(plant, line.start_s, line.stop_s))
    spread, bound = np.std(errors), np.sqrt(np.mean(np.square(bounds)))
    print(
        f"{lines} lines: 90 % intervals hold {held / lines:.1%} (goal 87 to 93); spread"
        f" {spread:.2%} of absolute pressure, bound {bound:.2%}, ratio {spread / bound:.2f}"
        f" (goal 1.5); bias {np.mean(errors):+.2%}"
    )


def _bound(plant: Plant, starts: Floats, stops: Floats) -> float:
    """Least spread of Q/(V·c), a share: each cycle with a level and a draw of its own, the pump's
    curve (three terms) shared, 0.3 psi of noise in each sample of its run and the fall before."""
    noise = 0.3 * PSI
    shared, rows = np.zeros((3, 3)), 0
    middle, half = (plant.cut_in + plant.cut_out) / 2, (plant.cut_out - plant.cut_in) / 2
    for start, stop, before in zip(starts[1:], stops[1:], stops[:-1], strict=False):
        run = np.arange(0.0, stop - start)
        fall = np.arange(before - start, 0.0)
        if len(run) < 8 or len(fall) < 8:
            continue
        level = (np.linspace(plant.cut_in, plant.cut_out, len(run)) - middle) / half
        # Columns: level at the start, draw, three terms of the delivery.
        heaped = [np.cumsum(each) for each in (np.ones_like(level), level, level**2)]
        top = np.column_stack([np.ones(len(run)), -run, *heaped])
        low = np.column_stack([np.ones(len(fall)), -fall, *np.zeros((3, len(fall)))])
        pressure = (
            np.concatenate(
                [
                    np.linspace(plant.cut_in, plant.cut_out, len(run)),
                    np.linspace(plant.cut_out, plant.cut_in, len(fall)),
                ]
            )
            * PSI
            + AIR_PA
        )
        design = np.vstack([top, low])
        normal = design.T @ ((pressure**2 / noise)[:, None] ** 2 * design)
        own = np.linalg.inv(normal[:2, :2])
        shared += normal[2:, 2:] - normal[2:, :2] @ own @ normal[:2, 2:]
        rows += 1
    return float(np.sqrt(np.linalg.inv(shared)[0, 0])) * plant.air / plant.flow_m3_s


def main() -> None:
    """Prints all; `small` as an argument: a tenth."""
    share = 10 if "small" in sys.argv else 1
    speed(20_000_000 // share)
    reading(4_000_000 // share)
    packed(4_000_000 // share)
    times(40 // share)
    beside_ruptures(40 // share)
    quiet(400 // share)
    plates(400 // share)


if __name__ == "__main__":
    main()
