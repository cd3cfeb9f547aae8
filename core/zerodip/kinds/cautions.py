"""The usual cautions, said where settings are decided and nuts are turned. Source: common practice,
no source."""

__all__ = ["CODES", "FIRST_FILL", "MAINS", "PIT", "STRETCH"]

CODES = (
    "Local codes and the maker’s instructions come first; electrical and gas-pressure work may need"
    " a licensed person."
)
MAINS = (
    "Power off and proved dead before the switch cover comes off: mains stands at open terminals."
)
FIRST_FILL = "After any increase stay at the gauge with a hand on the switch during the first fill."
STRETCH = (
    "A wide differential overstretches a bladder; more pressure can start leaks at old fixtures."
)
PIT = (
    "A well pit is a confined space that can flood; a flooded well needs disinfection before anyone"
    " drinks."
)
