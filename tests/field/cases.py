"""Houses drawn by what is wrong with them, with a day's taps, and what may be said of their lines.
Nothing of the core is used here."""

import random
from collections.abc import Callable
from dataclasses import dataclass, replace

from .house import House, Line, Tap, lived
from .recorders import Sensor, seen


@dataclass(frozen=True)
class Case:
    """What is wrong, the house, its true line, and how it was recorded: times (s) and psi."""

    fault: str
    house: House
    line: Line
    sensor: Sensor
    times: list[float]
    psi: list[float]


# What is said of a fault: one of these at least, and none but these and what is only a note.
TELLS: dict[str, tuple[str, ...]] = {
    "healthy": (),
    "above": ("line.empties",),
    "leak": ("line.leak",),
    "plateau": ("line.endless",),
    "trips": ("line.trip",),
    "waterlogged": ("line.short", "line.chatter"),
    "burst": ("line.short", "line.chatter"),
    "drifts": ("line.drifts",),
    "weakens": ("line.longer",),
}
# What else is so, and may be said with it.
MAY: dict[str, tuple[str, ...]] = {
    "above": ("line.dip", "line.short"),
    "leak": (),
    "trips": ("line.dip", "line.empties"),
    "waterlogged": ("line.air", "line.starts"),
    "burst": ("line.shorter", "line.wanders"),
    "drifts": ("line.shorter", "line.longer"),
}


def _pump(rng: random.Random, cut_out: float, at_gpm: float) -> tuple[float, float, float]:
    """Dead-head, b and a of a pump that gives so much at cut-out."""
    top = cut_out + rng.uniform(18, 45)
    b = rng.uniform(0.3, 0.5) * (top - cut_out) / at_gpm
    return top, b, (top - cut_out - b * at_gpm) / at_gpm**2


def _house(rng: random.Random) -> House:
    cut_in = float(rng.choice([20, 30, 40, 50]))
    cut_out, volume = cut_in + 20, float(rng.choice([32, 44, 62, 86]))
    # What runs for a minute and a half or so between the points.
    drawdown = volume * (cut_in + 12.7) * (1 / (cut_in + 14.7) - 1 / (cut_out + 14.7))
    top, b, a = _pump(rng, cut_out, drawdown / rng.uniform(1.3, 2.2))
    return House(
        volume=volume,
        charge=cut_in - 2,
        cut_in=cut_in,
        cut_out=cut_out,
        dead_head=top,
        b=b,
        a=a,
        lag=rng.uniform(0.3, 0.8),
        ramp=rng.uniform(0.3, 0.6),
        elastic=rng.uniform(0.004, 0.012),
        cools=rng.choice([0.0, 0.0, 110.0]),
    )


def _taps(rng: random.Random, until: float, often: float) -> list[Tap]:
    made, t = [], rng.uniform(10, 60)
    while t < until:
        lasts = rng.choice((rng.uniform(10, 60), rng.uniform(120, 500)))
        made.append(Tap(t, t + lasts, rng.uniform(0.8, 4.0)))
        t += lasts + rng.expovariate(1 / often)
    return made


Drawn = tuple[House, list[Tap], float]
DAY = 86400.0


def _healthy(rng: random.Random) -> Drawn:
    return _house(rng), _taps(rng, 8 * 3600, 900), 8 * 3600


def _above(rng: random.Random) -> Drawn:
    of = _house(rng)
    charge = of.cut_in + rng.uniform(4, 10)
    return replace(of, charge=charge, lag=rng.uniform(0.5, 1.2)), _taps(rng, 3600, 90), 3600


def _leak(rng: random.Random) -> Drawn:
    of = replace(_house(rng), leak=rng.uniform(0.04, 0.15), cools=0.0)
    quiet = [Tap(tap.since, tap.until, tap.gpm) for tap in _taps(rng, 2 * 3600, 700)]
    return of, quiet, 10 * 3600


def _plateau(rng: random.Random) -> Drawn:
    of = _house(rng)
    top = of.cut_out - rng.uniform(2, 6)
    held = of.volume * (of.charge + 14.7)
    gal = held * (1 / (of.cut_in + 14.7) - 1 / (of.cut_in + 17.7))
    # An orifice passes less the lower it stands; as long as it takes to cut-in, and a little.
    lasts = 2 + 60 * gal / (10 * ((of.cut_in + 1) / 50) ** 0.5)
    return replace(of, dead_head=top), [Tap(60, 60 + lasts * 1.1, 10)], 3000


def _trips(rng: random.Random) -> Drawn:
    of = _house(rng)
    of = replace(of, charge=of.cut_in + 0.5, trips_at=of.cut_in - 10, lag=1.2, elastic=0.01)
    return of, [*_taps(rng, 500, 300), Tap(900, 1300, 18)], 1500


def _waterlogged(rng: random.Random) -> Drawn:
    of = replace(_house(rng), plain=True, volume=80.0, air=rng.uniform(0.04, 0.12))
    return of, _taps(rng, 1500, 60), 1500


def _burst(rng: random.Random) -> Drawn:
    return replace(_house(rng), burst_at=1200), [Tap(60, 5000, 3.5)], 2400


def _drifts(rng: random.Random) -> Drawn:
    of = replace(_house(rng), drifts=rng.choice((-1, 1)) * rng.uniform(0.8, 1.3))
    return of, _taps(rng, 3 * DAY, 5000), 3 * DAY


def _weakens(rng: random.Random) -> Drawn:
    return replace(_house(rng), weakens=0.03), _taps(rng, 4 * DAY, 5000), 4 * DAY


FAULTS: dict[str, Callable[[random.Random], Drawn]] = {
    "healthy": _healthy,
    "above": _above,
    "leak": _leak,
    "plateau": _plateau,
    "trips": _trips,
    "waterlogged": _waterlogged,
    "burst": _burst,
    "drifts": _drifts,
    "weakens": _weakens,
}


def drawn(fault: str, rng: random.Random) -> Case:
    """A house with a fault, recorded as suits how fast it moves."""
    house, taps, until = FAULTS[fault](rng)
    begins = house.cut_in + (3 if fault == "plateau" else 14)
    line = lived(house, taps, until, begins, 0.1 if until > DAY else 0.02)
    fast = fault in ("above", "trips", "waterlogged", "burst")
    every = rng.choice((0.2, 0.5)) if fast else rng.choice((1.0, 2.0))
    every = 5.0 if until > DAY else every
    sensor = Sensor(
        every=every, noise=rng.uniform(0.1, 0.3), step=rng.choice((0.05, 0.1)), filter=0.1
    )
    return Case(fault, house, line, sensor, *seen(line, sensor, rng))


def misses(case: Case, ids: list[str], starts: list[float]) -> list[str]:
    """What is not as it was: warnings that a fault does not bring (`ids`), one that it does and
    that is not there, and starts (s) that were not, or were not found."""
    told, may = TELLS[case.fault], MAY.get(case.fault, ())
    wrong = [f"false: {each}" for each in ids if each not in (*told, *may)]
    if told and not set(told) & set(ids):
        wrong.append(f"silent: {' or '.join(told)}")
    near = max(1.5, 3 * case.sensor.every)
    until = case.times[-1] - 2 * near
    off = case.line.stops
    so = [t for t in case.line.begins if t < until and not any(t <= s < t + 4 for s in off)]
    lost = [t for t in so if not any(abs(t - each) <= near for each in starts)]
    made = [t for t in starts if not any(abs(t - each) <= near for each in case.line.begins)]
    wrong += [f"{len(lost)} of {len(so)} starts not found"] if lost else []
    return wrong + ([f"{len(made)} starts that were none"] if made else [])
