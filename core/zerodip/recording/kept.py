"""A reading kept as plain values, and made of them again: texts are said anew in whatever units and
with whatever is known of the system by then."""

from collections.abc import Callable, Mapping
from dataclasses import asdict, fields
from typing import Any

import numpy as np

from zerodip.physics.drain_knee import Knee
from zerodip.recording.cycles import Cycles
from zerodip.recording.draws import Drawn
from zerodip.recording.figures import Empties, Figure, Trend
from zerodip.recording.flows import Flows
from zerodip.recording.leak import Leak
from zerodip.recording.plain import plain
from zerodip.recording.pump import Pump
from zerodip.recording.quality import Gap, Quality
from zerodip.recording.reading import Day, Endless, Reading

__all__ = ["cycles_kept", "cycles_restored", "kept", "restored"]

_FIGURES = ("cut_in", "cut_out", "run", "rest")
_PARTS: Mapping[str, Callable[..., Any]] = {
    "leak": Leak,
    "knee": Knee,
    "pump": Pump,
    "empties": Empties,
    "trend": Trend,
}


def kept(reading: Reading) -> dict[str, Any]:
    """A reading without its cycles, as JSON has values.

    Args:
        reading: The reading.

    Returns:
        Plain values.
    """
    made = {
        each.name: getattr(reading, each.name)
        for each in fields(reading)
        if each.name not in ("cycles", "quality")
    }
    told = {name: _part(value) for name, value in made.items()}
    quality = {k: v for k, v in asdict(reading.quality).items() if not k.startswith("_")}
    values: dict[str, Any] = plain({**told, "quality": quality})
    return values


def _part(value: Any) -> Any:
    if isinstance(value, tuple):
        return [_part(each) for each in value]
    return asdict(value) if hasattr(value, "__dataclass_fields__") else value


def restored(values: Mapping[str, Any], cycles: Cycles) -> Reading:
    """A reading of what `kept` gave.

    Args:
        values: Plain values.
        cycles: Its cycles.

    Returns:
        The reading.
    """
    quality = dict(values["quality"])
    quality["longest"] = [Gap(**gap) for gap in quality["longest"]]
    busiest = values["busiest"]
    return Reading(
        quality=Quality(**quality),
        cycles=cycles,
        days=tuple(Day(**{**d, "starts": tuple(d["starts"])}) for d in values["days"]),
        busiest=(busiest[0], busiest[1]) if busiest else None,
        dips=values["dips"],
        deepest_pa=values["deepest_pa"],
        longest_dip_s=values.get("longest_dip_s", 0.0),
        chatter=values["chatter"],
        coarse=values.get("coarse", False),
        zero_pa=values.get("zero_pa"),
        endless=tuple(Endless(**each) for each in values["endless"]),
        trips_s=tuple(values["trips_s"]),
        flows=Flows(**values.get("flows", {})),
        draws=tuple(Drawn(**each) for each in values.get("draws", ())),
        **{name: _made(Figure, values[name]) for name in _FIGURES},
        **{name: _made(made, values.get(name)) for name, made in _PARTS.items()},
    )


def _made(of: Callable[..., Any], values: Mapping[str, Any] | None) -> Any:
    return None if values is None else of(**values)


def cycles_kept(cycles: Cycles) -> dict[str, list[float | None]]:
    """Cycles as columns, to the thousandth.

    Args:
        cycles: The cycles.

    Returns:
        Columns by name; None where something was not seen.
    """
    made: dict[str, list[float | None]] = {
        each.name: plain(np.round(getattr(cycles, each.name), 3).tolist())
        for each in fields(cycles)
    }
    return made


def cycles_restored(columns: Mapping[str, list[float | None]]) -> Cycles:
    """Cycles of what `cycles_kept` gave.

    Args:
        columns: The columns.

    Returns:
        The cycles.
    """
    unseen: list[float | None] = [None] * len(columns["start_s"])  # what was not looked for then
    return Cycles(
        **{
            each.name: np.array(
                [np.nan if v is None else v for v in columns.get(each.name, unseen)],
                dtype=np.float64,
            )
            for each in fields(Cycles)
        }
    )
