"""The registry of rules: an explicit tuple, in the order in which findings of equal weight are shown."""

from .limits import LIMITS
from .running import RUNNING
from .start import START

__all__ = ["RULES"]

RULES = (*START, *RUNNING, *LIMITS)
