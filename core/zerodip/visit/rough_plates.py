"""A system of which only its kind is known, and what a caller reads off its plates."""

from collections.abc import Mapping
from typing import Any

from zerodip.errors import Fault, InvalidInput
from zerodip.fileformat.document import Document, read_document
from zerodip.fileformat.templates import template_file

__all__ = ["ROUGH", "rough_of", "rough_system"]

# What a caller may read, with the places in a file where it may stand.
ROUGH: Mapping[str, tuple[str, ...]] = {
    "cut_in_gauge_pa": ("settings.cut_in_gauge_pa",),
    "cut_out_gauge_pa": ("settings.cut_out_gauge_pa",),
    "volume_m3": ("system.tanks.0.volume_m3", "system.receivers.0.volume_m3"),
    "flow_m3_s": ("system.pump.flow_m3_s", "system.pump.points.0.flow_m3_s"),
    "pre_charge_gauge_pa": ("settings.pre_charge_gauge_pa",),
    "dead_head_gauge_pa": ("system.pump.dead_head_gauge_pa",),
}
_LEAST_SHARE = 0.4  # of cut-out, for a cut-in that nobody read
_ONE_POINT = 1  # a pump of several points is not known by one flow
_OF_AIR = "settings.pre_charge_gauge_pa"
_DEAD_HEAD = "system.pump.dead_head_gauge_pa"


def rough_of(kind: str) -> tuple[str, ...]:
    """The names of what is asked of a kind's plates.

    Args:
        kind: The kind's id.

    Returns:
        Names of `ROUGH`.
    """
    raw = template_file(kind, "Trouble")
    return tuple(name for name in ROUGH if _place(raw, name) is not None)


def rough_system(kind: str, plates: Mapping[str, Any]) -> Document:
    """The usual system of a kind with what was read put in; a pre-charge that nobody read keeps its
    distance to cut-in.

    Args:
        kind: The kind's id.
        plates: Values (SI) by the names of `ROUGH`.

    Returns:
        The system's file.

    Raises:
        InvalidInput: With every fault, by its path in `plates` or in the file.
    """
    raw = template_file(kind, "Trouble")
    usual = raw["settings"]["cut_in_gauge_pa"]
    band = raw["settings"]["cut_out_gauge_pa"] - usual
    faults = []
    for name, value in plates.items():
        path = _place(raw, name)
        if path is None:
            says = "is nothing that is read of this kind of system."
            title = f"“{name[:40]}”"
            faults.append(Fault(path=f"plates.{name}", code="not_a_choice", title=title, says=says))
        else:
            _put(raw, path, value)
            raw["system"]["assumed"].pop(path, None)
    if faults:
        raise InvalidInput(faults)
    _beside(raw["settings"], plates, band)
    charge, low = raw["settings"].get("pre_charge_gauge_pa"), raw["settings"]["cut_in_gauge_pa"]
    if charge and "pre_charge_gauge_pa" not in plates and isinstance(low, int | float):
        raw["settings"]["pre_charge_gauge_pa"] = max(charge + low - usual, 0.0)
    return read_document(raw)


def _beside(settings: dict[str, Any], plates: Mapping[str, Any], band: float) -> None:
    """Where one point alone was read, the other stands at the usual differential from it."""
    low, high = (plates.get(name) for name in ("cut_in_gauge_pa", "cut_out_gauge_pa"))
    if isinstance(low, int | float) and high is None:
        settings["cut_out_gauge_pa"] = low + band
    if isinstance(high, int | float) and low is None:
        settings["cut_in_gauge_pa"] = max(high - band, _LEAST_SHARE * high)


def _place(raw: dict[str, Any], name: str) -> str | None:
    """Where a figure stands in this kind's file."""
    return next((path for path in ROUGH.get(name, ()) if _holds(raw, path)), None)


def _holds(raw: Any, path: str) -> bool:
    pump = raw["system"]["pump"]
    if path == _DEAD_HEAD:
        return bool(pump.get("model") == "constant")
    if ".points." in path and len(pump.get("points", ())) != _ONE_POINT:
        return False
    if path == _OF_AIR and not raw["settings"].get("pre_charge_gauge_pa"):
        return False
    for step in path.split("."):
        if isinstance(raw, list):
            raw = raw[int(step)] if int(step) < len(raw) else None
        else:
            raw = raw.get(step) if isinstance(raw, Mapping) else None
        if raw is None:
            return False
    return True


def _put(raw: Any, path: str, value: Any) -> None:
    *steps, last = path.split(".")
    for step in steps:
        raw = raw[int(step)] if isinstance(raw, list) else raw[step]
    raw[last] = value
