"""What a system's file tells beside the line: what was read, with the spread it is usually read
with; what was only assumed is not known."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from zerodip.fileformat.document import Document
from zerodip.physics.motors import starts_per_day_limit
from zerodip.recording.fit import Known
from zerodip.recording.reading import Reading

__all__ = ["Beside", "beside", "from_line"]

# Standard deviations, as shares. A tank's plate: common practice, no source. A pump by its plate:
# half of ISO 9906 grade 3B's 9 %, from memory. A knee: about 1 psi of 55 absolute. A flow
# meter: common practice, no source.
_VOLUME, _FLOW, _KNEE, _METER = 0.02, 0.045, 0.02, 0.03


@dataclass(frozen=True)
class Beside:
    """What stands beside a line: readings known, the altitude (m), and the plate's own pre-charge
    (Pa gauge) and starts that its motor bears in a day (1/s), None where not known; what stores: a
    bladder with air behind it, a plain tank, or no water at all (a receiver, a pump without a
    tank), of which a water tank's gas law tells nothing; the practice's gas exponent; and the
    points that its switch is set to (Pa gauge)."""

    known: tuple[Known, ...] = ()
    altitude_m: float = 0.0
    pre_charge_gauge_pa: float | None = None
    motor_per_day: float | None = None
    store: Literal["bladder", "plain", "none"] = "bladder"
    exponent: float = 1.0
    cut_in_gauge_pa: float | None = None
    cut_out_gauge_pa: float | None = None


def beside(document: Document | None) -> Beside:
    """What a system's file tells; nothing without one.

    Args:
        document: The file.

    Returns:
        What stands beside the line.
    """
    if document is None:
        return Beside()
    figures, system = document.figures(), document.system
    tanks = getattr(system, "tanks", ())
    power = getattr(getattr(system, "pump", None), "power_w", None)
    known = []
    if tanks and not any(
        system.is_assumed(f"system.tanks.{at}.volume_m3") for at in range(len(tanks))
    ):
        known.append(Known("volume", sum(tank.volume_m3 for tank in tanks), _VOLUME))
    flow = getattr(figures, "mid_flow_m3_s", None)
    if tanks and flow and not system.is_assumed("system.pump"):
        known.append(Known("flow", flow, _FLOW))
    return Beside(
        tuple(known),
        system.site.altitude_m,
        getattr(document.settings, "pre_charge_gauge_pa", None) if tanks else None,
        starts_per_day_limit(power) if power else None,
        "none" if not tanks else "plain" if getattr(system, "plain", False) else "bladder",
        document.practice.gas_exponent,
        **{
            name: getattr(document.settings, name)
            for name in ("cut_in_gauge_pa", "cut_out_gauge_pa")
            if not system.is_assumed(f"settings.{name}")
        },
    )


def from_line(reading: Reading, air_pa: float) -> Sequence[Known]:
    """What the recording itself tells apart from its breaks: the knee of a drain is the pre-charge;
    a recorded flow gives the air, or the pump.

    Args:
        reading: What the line says.
        air_pa: The air's pressure at the site, Pa.

    Returns:
        Readings known.
    """
    made = []
    if reading.knee is not None:
        made.append(Known("pre_charge", reading.knee.gauge_pa + air_pa, _KNEE))
    if reading.flows.air_pa_m3 is not None:
        made.append(Known("catch", reading.flows.air_pa_m3, _METER))
    if reading.flows.delivery_m3_s is not None:
        made.append(Known("flow", reading.flows.delivery_m3_s, _METER))
    return made
