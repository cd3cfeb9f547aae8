"""The registry of rules: an explicit tuple, in the order in which findings of equal weight are shown."""

from .limits import LIMITS
from .receiver import RECEIVER
from .running import RUNNING
from .start import START
from .supply import SUPPLY
from .tankless import TANKLESS
from .taps import TAPS

__all__ = ["RULES"]

RULES = (*START, *SUPPLY, *RUNNING, *RECEIVER, *TANKLESS, *LIMITS, *TAPS)
