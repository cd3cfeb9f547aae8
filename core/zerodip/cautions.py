"""The usual cautions for each kind of system, said where settings are decided and nuts are turned."""

from .system import BLADDER_KINDS, KINDS

__all__ = ["CAUTIONS", "cautions"]

_CODES = (
    "Local codes and the maker’s instructions come first; electrical and gas-pressure work may need a licensed person."
)
_MAINS = "Power off and proved dead before the switch cover comes off: mains stands at open terminals."
_FIRST_FILL = "After any increase stay at the gauge with a hand on the switch during the first fill."
_STRETCH = "A wide differential overstretches a bladder; more pressure can start leaks at old fixtures."
_PIT = "A well pit is a confined space that can flood; a flooded well needs disinfection before anyone drinks."
_RECEIVER = (
    "Hot parts and stored air: eye and ear protection, bleed slowly, never plug, remove or raise a safety valve."
)
_LOW_VOLTAGE = "Pull the fuse before the switch is opened; a pump that runs on against dead-head gets hot."

CAUTIONS: dict[str, tuple[str, ...]] = {
    **dict.fromkeys(BLADDER_KINDS, (_MAINS, _FIRST_FILL, _STRETCH)),
    "well_bladder": (_MAINS, _FIRST_FILL, _STRETCH, _PIT),
    "well_air": (_MAINS, _FIRST_FILL, _PIT),
    "compressor": (_MAINS, _RECEIVER, _FIRST_FILL),
    "tankless": (_LOW_VOLTAGE,),
}


def cautions(kind: str) -> tuple[str, ...]:
    """The cautions for a kind of system, whom to defer to last. Source: common practice, no source."""
    return (*CAUTIONS[kind], _CODES) if kind in KINDS else (_CODES,)
