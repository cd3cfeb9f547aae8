"""Made-up plants of every kind for a technician's hands: what stands there truly, and the file of
what is read of it. The plates are partly unread and a little wrong, the nuts unknown, gauge and
tyre gauge off, and each check of the air costs some."""

import copy
import random
from dataclasses import dataclass, field, replace
from typing import Any

from tests.core.test_other_plant import a_tankless, a_water, motors
from zerodip.fileformat.document import Document, read_document
from zerodip.kinds.limits import highest_allowed_pa
from zerodip.kinds.registry import KINDS, figures_for, kind_of
from zerodip.units import PSI, to_si

from .fleet import Switch, switch_slopes

__all__ = ["KIND_IDS", "Plant", "a_plant"]

KIND_IDS = tuple(KINDS)
_CFM, _GAL = to_si(1, "cfm"), to_si(1, "gal")
_BLADDERS = ("well_bladder", "cistern", "boosted")
_UNREADABLE = 0.25  # share of the plates that cannot be read
# What a plate says and may be unreadable, by the path in the file.
_PLATES = (
    ("relief", "setting_gauge_pa"),
    ("tanks", "max_gauge_pa"),
    ("receivers", "max_gauge_pa"),
    ("pump", "max_gauge_pa"),
    ("pump", "dead_head_gauge_pa"),
)


@dataclass
class Plant:
    """One plant: its file as read, the truth as a file, the switch at the technician's hands, the
    true pre-charge (psi; None without one), and how far both gauges are off (psi)."""

    raw: dict[str, Any]
    truth: Document
    switch: Switch
    air: float | None
    gauge_off: float
    gauge_error: float
    tyre_off: float
    chance: random.Random
    passed: list[str] = field(default_factory=list)

    @property
    def kind(self) -> str:
        """Id of its kind."""
        return self.truth.system.kind

    def points(self) -> tuple[float, float]:
        """What is read of both points on the gauge, psi."""
        low, high = (seen + self.gauge_off for seen in self.switch.watch())
        step = self.switch.rounds
        low, high = round(low / step) * step, round(high / step) * step
        return max(low, 0.0), max(high, low + step)

    def turn(self, turns: tuple[float, float]) -> None:
        """Turns the nuts; a limit that is passed by it is noted."""
        before = self.switch.points[1]
        self.switch.turn(turns)
        after = self.switch.points[1]
        if after > before and after > self.switch.highest:
            self.passed.append(f"cut-out {after:.1f} over {self.switch.highest:.1f} psi")

    def read_air(self) -> float:
        """The tyre gauge's word, psi; each reading lets some out."""
        assert self.air is not None
        seen = self.air + self.tyre_off + self.chance.gauss(0, 0.2)
        self.air = max(self.air - self.chance.uniform(0.05, 0.25), 0.0)
        return max(round(2 * seen) / 2, 0.0)

    def set_air(self, shown: float) -> float:
        """Air is added or let out until the tyre gauge shows what was told; what it shows then."""
        self.air = max(shown - self.tyre_off + self.chance.gauss(0, 0.25), 0.0)
        return self.read_air()

    def run_s(self) -> float | None:
        """One run by the stopwatch, by the true plant at its true points."""
        low, high = (point * PSI for point in self.switch.points)
        settings = replace(self.truth.settings, cut_in_gauge_pa=low, cut_out_gauge_pa=high)
        if self.air is not None:
            settings = replace(settings, pre_charge_gauge_pa=self.air * PSI)
        figures = figures_for(self.truth.system, settings, self.truth.practice)
        run = kind_of(figures).diagnosis.run_s(figures)
        if run is None or run > 3600:
            return None
        return round(max(run * self.chance.gauss(1, 0.02) + self.chance.gauss(0, 0.4), 0.5), 1)


def _raw(kind: str, rng: random.Random) -> dict[str, Any]:
    if kind == "tankless":
        raw = a_tankless(rng, motors(rng))
        raw["system"]["accumulator"]["max_gauge_pa"] = _up(rng, raw, 10, 60)
    elif kind == "compressor":
        raw = _compressor(rng)
    else:
        raw, _ = a_water(kind, rng)
        raw["system"]["relief"] = {"present": True, "setting_gauge_pa": _up(rng, raw, 8, 40)}
        for tank in raw["system"]["tanks"]:
            tank["max_gauge_pa"] = _up(rng, raw, 10, 60)
    raw["system"]["kind"] = kind
    nuts = {"compressor": ("one", "two"), "tankless": ("one",)}.get(kind, ("two", "two", "one"))
    raw["system"]["switch"] = {"nuts": rng.choice(nuts)}
    return raw


def _up(rng: random.Random, raw: dict[str, Any], least: float, most: float) -> float:
    return float(raw["settings"]["cut_out_gauge_pa"] + rng.uniform(least, most) * PSI)


def _compressor(rng: random.Random) -> dict[str, Any]:
    top, low = rng.uniform(6, 20) * _CFM, rng.uniform(70, 110) * PSI
    high = low + rng.uniform(20, 35) * PSI
    shares = ((40, 1.0), (90, 0.9), (160, 0.8))
    return {
        "format": "zerodip-system",
        "version": 1,
        "system": {
            "receivers": [
                {
                    "volume_m3": rng.uniform(20, 200) * _GAL,
                    "max_gauge_pa": high + rng.uniform(8, 40) * PSI,
                }
            ],
            "pump": {
                "points": [{"gauge_pa": p * PSI, "flow_m3_s": top * s} for p, s in shares],
                "max_gauge_pa": high + rng.uniform(8, 40) * PSI,
            },
            "relief": {"present": True, "setting_gauge_pa": high + rng.uniform(8, 40) * PSI},
            "use": {"use_m3_s": rng.uniform(0.2, 0.7) * top},
        },
        "settings": {"cut_in_gauge_pa": low, "cut_out_gauge_pa": high},
    }


def _as_read(truth: dict[str, Any], rng: random.Random) -> dict[str, Any]:
    """The plates as a person reads them: some not at all, volumes and flows a little wrong."""
    raw = copy.deepcopy(truth)
    system = raw["system"]
    for part, name in _PLATES:
        at = system.get(part)
        for each in at if isinstance(at, list) else [at] if at else []:
            if rng.random() < _UNREADABLE and name in each and each.get("model") != "rated_point":
                each[name] = None
    tanks = system.get("tanks", ())
    if tanks and not all(tank["max_gauge_pa"] for tank in tanks):
        system["relief"] = copy.deepcopy(truth["system"]["relief"])  # partly unread: not all
    for tank in (*system.get("tanks", ()), *system.get("receivers", ())):
        tank["volume_m3"] *= rng.uniform(0.95, 1.05)
    if "flow_m3_s" in system["pump"]:
        system["pump"]["flow_m3_s"] *= rng.uniform(0.9, 1.1)
    return raw


def a_plant(kind: str, seed: str) -> Plant:
    """A random plant of a kind, as it is found: the points somewhere near its file's, the air
    partly lost."""
    rng = random.Random(f"{kind} {seed}")
    truth = _raw(kind, rng)
    truth["system"]["name"] = f"Made-up {kind} {seed}"
    document = read_document(truth)
    nuts, stiff = document.system.switch.nuts, kind_of(document.system).stiff_switch
    settings = document.settings
    target = settings.cut_in_gauge_pa / PSI, settings.cut_out_gauge_pa / PSI
    highest = highest_allowed_pa(kind_of(document.system).limits, document.figures())
    error = rng.choice((0.5, 1.0, 1.5))
    small = min(1.0, (target[1] - target[0]) / 20)
    found = target[0] + small * rng.uniform(-9, 7), target[1] + small * rng.uniform(-9, 4)
    charge = settings.pre_charge_gauge_pa
    switch = Switch(
        of=nuts,
        stiff=stiff,
        chance=random.Random(f"{kind} {seed} switch"),
        noise=0.4 * error,
        points=[max(found[0], 3.0), max(found[1], found[0] + 5 * small, 6.0)],
        target=target,
        highest=float("inf") if highest is None else highest / PSI,
        slopes=switch_slopes(rng, nuts, stiff),
        backlash=rng.uniform(0, 0.06),
        drift=rng.uniform(0, 0.3) * small,
        rounds=rng.choice((0.5, 1.0)),
    )
    air = None
    if kind in _BLADDERS and charge is not None:
        air = max(charge / PSI - rng.choice((0, 0, 2, 4, 8)) + rng.gauss(0, 1), 3.0)
    return Plant(
        raw=_as_read(truth, rng),
        truth=document,
        switch=switch,
        air=air,
        gauge_off=rng.gauss(0, 0.3 * error),
        gauge_error=error,
        tyre_off=rng.gauss(0, 0.4),
        chance=random.Random(f"{kind} {seed} hands"),
    )
