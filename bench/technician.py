"""A technician who knows nothing and does exactly what the visit says next, through the API, at a
made-up plant."""

import re
import uuid
from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from typing import Any

from zerodip.fileformat.document import read_document
from zerodip.units import PSI

from .plants import Plant

__all__ = ["Ask", "Outcome", "walk"]

MOST_STEPS = 120
# Sends one request (method, path, body) and gives the answer; raises if it is refused.
Ask = Callable[[str, str, Any], Any]


@dataclass
class Outcome:
    """How one visit ended: steps and turns taken, whether the switch was called set, within what
    was promised and how far the worse point is, by this gauge and truly (psi); what went wrong."""

    kind: str
    steps: int = 0
    turns: int = 0
    called_set: bool = False
    promised: float = 0.0
    off: float = 0.0
    truly_off: float = 0.0
    air_off: float = 0.0
    wrong: list[str] = field(default_factory=list)
    last: str = ""

    @property
    def good(self) -> bool:
        """Set, within what was promised as this gauge shows it, and nothing went wrong."""
        return self.called_set and self.off <= self.promised and not self.wrong


class _Visit:
    """One visit under way."""

    def __init__(self, ask: Ask, site: str, plant: Plant) -> None:
        self.ask, self.plant, self.out = ask, plant, Outcome(plant.kind)
        self.system = str(uuid.uuid4())
        ask(
            "PUT",
            f"/api/sites/{site}/systems/{self.system}",
            {"document": plant.raw, "name": self.system},
        )
        visit = ask("PUT", f"/api/systems/{self.system}/visits/{uuid.uuid4()}", None)
        self.id, self.now = visit["id"], visit
        self.record("gauge.error", plant.gauge_error * PSI)

    @property
    def view(self) -> Any:
        return self.now["view"]

    def record(self, slot: str, value: Any) -> None:
        standing = [each for each in self.now["entries"] if each["slot"] == slot]
        single = slot not in ("try", "lap") and not slot.startswith("safe.")
        supersedes = standing[-1]["id"] if standing and single else None
        body = {"slot": slot, "value": value, "supersedes": supersedes}
        self.now = self.ask("PUT", f"/api/visits/{self.id}/entries/{uuid.uuid4()}", body)

    def step(self) -> bool:
        """Does what is next; False once there is nothing more."""
        told = self.view["next"]
        self.out.steps, self.out.last = self.out.steps + 1, told["says"]
        getattr(self, f"_{told['do']}")(told["slots"])
        return bool(told["do"] != "close")

    def _confirm(self, slots: list[str]) -> None:
        self.record(slots[0], True)

    def _watch(self, slots: list[str]) -> None:
        self._powered()
        low, high = self.plant.points()
        self.record("found.cut_in", low * PSI)
        self.record("found.cut_out", high * PSI)
        run = self.plant.run_s()
        if run is not None:
            self.record("found.run", run)

    def _read(self, slots: list[str]) -> None:
        self._dead_and_drained("read the air")
        self.record("found.water_at_valve", False)
        self.record("found.pre_charge", self.plant.read_air() * PSI)

    def _decide(self, slots: list[str]) -> None:
        """Takes what is proposed."""
        system = self.ask("GET", f"/api/systems/{self.system}", None)
        document = system["document"]
        told = self.ask("POST", "/api/propose", {"document": document})["proposed"]
        names = ("cut_in_gauge_pa", "cut_out_gauge_pa", "pre_charge_gauge_pa")
        settings = {name: told[name] for name in names} | {
            "air_renewed": told["air_renewed"] or None
        }
        entered = {k: v for k, v in document["entered"].items() if "settings." not in k}
        chosen = read_document({**document, "settings": settings, "entered": entered}).decided()
        body = {"version": system["version"], "document": chosen.as_json()}
        self.ask("PUT", f"/api/systems/{self.system}/decisions/{uuid.uuid4()}", body)
        self.record("decided", True)

    def _air(self, slots: list[str]) -> None:
        self._dead_and_drained("set the air")
        target = self.view["air"]["target_gauge_pa"] / PSI
        self.record("air.left", self.plant.set_air(target) * PSI)

    def _look(self, slots: list[str]) -> None:
        self._powered()
        setting, pending = self.view["set"], self._value("set.turned")
        made = pending if setting["do"] == "see" and pending else {"first": 0.0, "second": 0.0}
        low, high = self.plant.points()
        seen = {
            "first": made["first"],
            "second": made["second"],
            "after": setting["looks"],
            "cut_in_gauge_pa": low * PSI,
            "cut_out_gauge_pa": high * PSI,
        }
        self.record("try", seen)

    def _turn(self, slots: list[str]) -> None:
        if self.view["power"] != "off":
            self.out.wrong.append("told to turn while power is not proved off")
        setting = self.view["set"]
        by = {turn["nut"]: turn["turns"] for turn in setting["turns"]}
        made = tuple(by.get(nut["nut"], 0.0) for nut in setting["nuts"])
        right = 0.5 * setting["tolerance_pa"] / PSI
        if not self.out.turns and self._off() <= right:
            self.out.wrong.append("told to turn what was right")
        self.plant.turn(made)
        self.out.turns += 1
        first, second = (*made, 0.0)[:2]
        self.record("set.turned", {"first": first, "second": second, "after": setting["looks"]})

    def _limit(self, slots: list[str]) -> None:
        """What cannot be read is said so."""
        self.record(slots[0], True)

    def _time(self, slots: list[str]) -> None:
        self._powered()
        self.record("lap", {"run_s": self.plant.run_s() or 900.0, "rest_s": None})

    def _sign(self, slots: list[str]) -> None:
        self.record("signed", "A technician")

    def _close(self, slots: list[str]) -> None:
        self.now = self.ask("PUT", f"/api/visits/{self.id}/closed", None)

    def _value(self, slot: str) -> Any:
        standing = [each for each in self.now["entries"] if each["slot"] == slot]
        return standing[-1]["value"] if standing else None

    def _powered(self) -> None:
        if self.view["power"] == "off":
            self.out.wrong.append("told to watch while power is off")

    def _dead_and_drained(self, what: str) -> None:
        done = {each["id"] for each in self.view["make_safe"] if each["done"]}
        if self.view["power"] != "off" or not {"power_off", "proved_dead", "drained"} <= done:
            self.out.wrong.append(f"told to {what} while it is not dead and drained")

    def _off(self, truly: bool = False) -> float:
        """How far the worse point that is set is from its target, psi: as this gauge shows it, or
        truly."""
        setting, switch = self.view["set"], self.plant.switch
        targets = setting["target_in_gauge_pa"] / PSI, setting["target_out_gauge_pa"] / PSI
        shift = 0.0 if truly else self.plant.gauge_off
        pairs = list(zip(switch.points, targets, strict=True))
        points = pairs[1:] if switch.of == "one" else pairs
        return max(abs(point + shift - target) for point, target in points)

    def end(self) -> Outcome:
        """How it ended."""
        setting, out = self.view["set"], self.out
        out.called_set = setting["do"] == "done"
        found = re.search(r"within ([\d.]+) psi", setting["says"])
        out.promised = float(found.group(1)) + 0.05 if found else 0.0  # as rounded on the page
        out.off, out.truly_off = self._off(), self._off(truly=True)
        air: Mapping[str, Any] | None = self.view["air"]
        if air and self.plant.air is not None:
            out.air_off = abs(self.plant.air + self.plant.tyre_off - air["target_gauge_pa"] / PSI)
        out.wrong += [f"passed a limit: {each}" for each in self.plant.passed]
        if not out.called_set:
            out.wrong.append(f"not set: {setting['do']}: {setting['says']}")
        elif out.off > out.promised:
            out.wrong.append(f"{out.off:.1f} psi off, {out.promised:.1f} promised")
        if out.air_off > 1.5:
            out.wrong.append(f"air {out.air_off:.1f} psi off")
        return out


def walk(ask: Ask, site: str, plant: Plant) -> Outcome:
    """One whole visit."""
    visit = _Visit(ask, site, plant)
    while visit.step():
        if visit.out.steps >= MOST_STEPS:
            visit.out.wrong.append(f"no end after {MOST_STEPS} steps: {visit.out.last}")
            break
    return visit.end()
