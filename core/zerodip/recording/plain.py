"""Values as JSON has them: no NaN, no arrays."""

import math
from typing import Any

import numpy as np

__all__ = ["plain"]


def plain(value: Any) -> Any:
    """A value with everything in it made plain.

    Args:
        value: Lists, tuples, dictionaries and numbers in any depth.

    Returns:
        The same as JSON has it; what is no number is None.
    """
    if isinstance(value, dict):
        return {key: plain(each) for key, each in value.items()}
    if isinstance(value, list | tuple):
        return [plain(each) for each in value]
    if isinstance(value, np.generic):
        value = value.item()
    return None if isinstance(value, float) and not math.isfinite(value) else value
