"""Making safe: the steps for each kind of system, in order, each confirmed by the person; what stays shut until then; and how
much water comes out of the tank."""

import math
from dataclasses import dataclass

from ..facts import Facts, ReceiverFacts, WaterFacts
from ..tanks.bladder import water_m3
from ..units import Shown, text
from .records import UNDONE_BY_POWER, Log

__all__ = ["DrainView", "SafeStep", "drain_view", "power_up", "safe_steps", "standing"]

BUCKET_M3 = 0.0125  # what a person carries: 12.5 L, about 3 gal
HOSE_M3_S = 0.25e-3  # a garden hose at low pressure, about 15 L/min


@dataclass(frozen=True, kw_only=True)
class SafeStep:
    """One step: what to do, the caution that bites here, whether it is confirmed and still holds, the step that it needs first
    (empty: none), and why it is shut (empty: open). `while_off`: it holds only until power is on again."""

    id: str
    does: str
    caution: str
    done: bool
    after: str
    shut: str
    while_off: bool = False


@dataclass(frozen=True, kw_only=True)
class DrainView:
    """Water (or free air) that will come out: how much (m³), through a hose (s), in buckets; in words."""

    volume_m3: float
    seconds: float
    buckets: int
    says: str


@dataclass(frozen=True)
class _Kind:
    id: str
    does: str
    caution: str = ""
    after: str = ""


_OFF = _Kind(
    "power_off",
    "Breaker off, both poles of 240 V; lock or tag it.",
    "A machine's own switch is not enough: its line terminals stay live.",
)
_DEAD = _Kind(
    "proved_dead", "Prove it dead at the switch, meter tried on something live before and after.", after="power_off"
)
_PEOPLE = _Kind("bystanders", "Children, pets and bystanders away.")
_SHUT_HOUSE = _Kind("house_shut", "Shut the house valve, so that the house is not drained too.")
_HOSE = _Kind(
    "hose",
    "Hose on the lowest drain, led outside or to a sink; not through the filters.",
    "Where it leads must not flood a pit.",
)
_DRAIN = _Kind(
    "drained",
    "Drain until the gauge stands at zero, before anything is unscrewed.",
    "Stored pressure throws water and parts.",
    "proved_dead",
)
_PIT = _Kind(
    "pit",
    "A well pit: aired, dry, somebody outside; otherwise stay out.",
    "A confined space that can flood, with no safe disconnect in it.",
)
_GLASSES = _Kind("glasses", "Eye and ear protection on; hot parts left to cool.", "Head and pipes burn; air cuts.")
_BLEED = _Kind(
    "bled",
    "Open the drain cock slowly, until the gauge stands at zero.",
    "Never plug, remove or raise the safety valve.",
    "proved_dead",
)
_FUSE = _Kind("power_off", "Pull the fuse of the pump.", "A battery feeds a short for a long time.")
_FUSE_DEAD = _Kind("proved_dead", "See that the pump does not answer to an open tap.", after="power_off")
_TAP = _Kind("drained", "Open the lowest tap until nothing comes.", after="proved_dead")

_ISOLATE = _Kind(
    "isolated",
    "Shut the switch off from its line, and vent it slowly to zero.",
    "A process line may hold hot, toxic or gas-filled pressure: its owner’s permit first.",
    "proved_dead",
)
_HAZARD = _Kind(
    "area",
    "Ask whether the area is classed as hazardous.",
    "There no energised enclosure is ever opened: leave it to a licensed person.",
)

_WATER = (_PEOPLE, _OFF, _DEAD, _SHUT_HOUSE, _HOSE, _DRAIN)
_BY_KIND = {
    "well_bladder": (_PEOPLE, _PIT, _OFF, _DEAD, _SHUT_HOUSE, _HOSE, _DRAIN),
    "well_air": (_PEOPLE, _PIT, _OFF, _DEAD, _SHUT_HOUSE, _HOSE, _DRAIN),
    "cistern": _WATER,
    "boosted": (
        _PEOPLE,
        _OFF,
        _DEAD,
        _Kind("supply_shut", "Shut the supply valve before the pump."),
        _SHUT_HOUSE,
        _HOSE,
        _DRAIN,
    ),
    "compressor": (_PEOPLE, _GLASSES, _OFF, _DEAD, _BLEED),
    "tankless": (_FUSE, _FUSE_DEAD, _TAP),
}
_POWER_UP = _Kind(
    "power_up",
    "Cover back on, bystanders away; then power on, a hand on the switch for the first fill.",
    "Mains stands at open terminals. Stay at the gauge after any increase.",
)


def safe_steps(kind: str, log: Log, nuts: str = "two") -> tuple[SafeStep, ...]:
    """The steps for a kind of system, with what is confirmed; a switch with two set-points (`nuts` "points") has steps of
    its own on top. A step that needs another first says so."""
    steps = _BY_KIND[kind]
    if nuts == "points":
        steps = (_HAZARD, *steps, _ISOLATE)
    return tuple(_step(each, steps, log) for each in steps)


def _step(each: _Kind, steps: tuple[_Kind, ...], log: Log) -> SafeStep:
    before = next((other for other in steps if other.id == each.after), None)
    return SafeStep(
        id=each.id, does=each.does, caution=each.caution, done=log.confirmed(each.id),
        after=before.id if before else "", shut=f"First: {before.does}" if before and not log.confirmed(before.id) else "",
        while_off=each.id in UNDONE_BY_POWER,
    )  # fmt: skip


def power_up(log: Log) -> SafeStep:
    """Powering up again, which undoes what holds only while power is off."""
    up = _POWER_UP
    return SafeStep(id=up.id, does=up.does, caution=up.caution, done=standing(log) == "on", after="", shut="")


def standing(log: Log) -> str:
    """How power stands by what was confirmed last: "unknown", "off" (proved dead), or "on" again (cover on, bystanders away)."""
    if log.confirmed("power_off"):
        return "off" if log.confirmed("proved_dead") else "unknown"
    return "on" if log.value("safe.power_up") else "unknown"


def drain_view(facts: Facts, gauge_pa: float, units: str) -> DrainView | None:
    """What comes out when the tank is drained from `gauge_pa` (Pa gauge): of water through a hose and in buckets, of a receiver
    the free air; None where nothing is stored. Source: the gas law; hose and bucket common practice, no source."""
    if isinstance(facts, ReceiverFacts):
        air = facts.store.held_m3(gauge_pa)
        return DrainView(
            volume_m3=air,
            seconds=0.0,
            buckets=0,
            says=f"{text(air, 'air_volume', units)} of free air will come out: bleed slowly.",
        )
    if not isinstance(facts, WaterFacts):
        return None
    held = water_m3(facts.bank, gauge_pa + facts.atmosphere_pa)
    buckets = max(math.ceil(held / BUCKET_M3), 1) if held > 0 else 0
    f = Shown(facts, units)
    minutes = held / HOSE_M3_S / 60
    says = (
        f"About {text(held, 'volume', units)} will come out: {minutes:.0f} min through a hose, or {buckets} buckets. "
        f"Tank {f.nominal_m3:volume}."
        if held > 0
        else "The tank holds nothing above its air at this pressure."
    )
    return DrainView(volume_m3=held, seconds=held / HOSE_M3_S, buckets=buckets, says=says)
