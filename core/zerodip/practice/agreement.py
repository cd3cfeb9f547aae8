"""When what was measured counts as what was predicted. Source: common practice, no source."""

__all__ = ["agrees"]

_APART = 0.12  # of the prediction: nearer than this is the same


def agrees(measured: float, predicted: float) -> bool:
    """Whether a measured figure agrees with the predicted one (the same unit)."""
    return abs(measured - predicted) <= _APART * abs(predicted)
