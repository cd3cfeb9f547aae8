"""Made-up recordings for the demo: a week of a system that has lost air, and a night with a
drip."""

import uuid
from collections.abc import Iterator
from dataclasses import asdict

import numpy as np

from sites.models import System
from zerodip.fileformat.document import read_document
from zerodip.physics.simulation import Draw, simulate, trail
from zerodip.recording.layout import Column, Heading, Layout
from zerodip.recording.reading import read_recording
from zerodip.recording.samples import Samples
from zerodip.units import PSI

from .models import Recording, State
from .store import as_read, stored

__all__ = ["WEEK", "record"]

BEGIN_S = 1772409600.0  # Monday, 2 March 2026, midnight
_DAY_S, _NOISE_PA = 86400, 0.25 * PSI
WEEK = 7 * _DAY_S
_BLOCK = 262_144


def _taps(rng: np.random.Generator, seconds: float, flow: float, drip: float) -> Iterator[Draw]:
    """A house: mornings and evenings busy, nights quiet."""
    time = 0.0
    while time < seconds:
        hour = time % _DAY_S / 3600
        busy = 800 if 6 <= hour < 9 or 17 <= hour < 22 else 2500 if 9 <= hour < 17 else 14_000
        rest, open_s = rng.exponential(busy), rng.uniform(20, 420)
        yield Draw(rest, drip)
        yield Draw(open_s, drip + rng.uniform(0.1, 0.6) * flow)
        time += rest + open_s


def record(
    system: System, name: str, seconds: float, pre_charge_pa: float | None, drip: float
) -> Recording:
    """A recording of a system whose air is as said (Pa gauge; as set if None), with a drip that is
    a share of the pump's flow; read and kept as one that was sent."""
    raw = system.document
    if pre_charge_pa is not None:
        settings = {**raw["settings"], "pre_charge_gauge_pa": pre_charge_pa}
        tanks = [
            {k: v for k, v in t.items() if k != "pre_charge_gauge_pa"}
            for t in raw["system"]["tanks"]
        ]
        raw = {**raw, "settings": settings, "system": {**raw["system"], "tanks": tanks}}
        raw.pop("entered", None)
    document = read_document(raw)
    figures = document.figures()
    store, flow = figures.store, figures.mid_flow_m3_s  # type: ignore[attr-defined]
    rng = np.random.default_rng(sum(map(ord, name)))
    phases = simulate(store, _taps(rng, seconds, flow, drip * flow))
    line = trail(store, phases, 10 * len(phases))
    times = np.arange(0.0, seconds)
    gauge = np.interp(times, line.times_s, line.gauges_pa) + rng.normal(0, _NOISE_PA, len(times))
    written = np.round(gauge / PSI, 2) * PSI  # a recorder of two decimals
    return _kept(system, name, Samples(BEGIN_S + times, written))


def _kept(system: System, name: str, samples: Samples) -> Recording:
    layout = Layout(
        style="epoch_s",
        names=(Heading(name="epoch"), Heading(name="Pressure (psi)")),
        columns=(Column(at=1, holds="gauge", unit="psi"),),
    )
    recording = Recording.objects.create(
        id=uuid.uuid4(), system=system, name=name, size=len(samples) * 17, state=State.READING
    )
    blocks = (samples.taken(slice(k, k + _BLOCK)) for k in range(0, len(samples), _BLOCK))
    altitude_m = read_document(system.document).system.site.altitude_m
    made = read_recording(stored(recording, layout, blocks), altitude_m)
    Recording.objects.filter(pk=recording.pk).update(layout=asdict(layout), **as_read(made))
    return recording
