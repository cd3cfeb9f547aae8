"""Samples as they are worked with: times and figures in SI, as many of each."""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from zerodip.recording.arrays import Floats, Places

__all__ = ["Samples"]


@dataclass(frozen=True)
class Samples:
    """A stretch of a recording: times (s since 1970, or since its start; NaN where one could not
    be read), gauge pressures (Pa; NaN where missing) and, where recorded, the pump's current (A)
    and a flow (m³/s), as many of each; and how often the recorder's clock was put back and forward
    in a block, which is taken off the times."""

    time_s: Floats
    gauge_pa: Floats
    current_a: Floats | None = None
    flow_m3_s: Floats | None = None
    put_back: int = 0
    put_forward: int = 0

    def __len__(self) -> int:
        return len(self.time_s)

    def taken(self, which: "slice | NDArray[np.bool_] | Places") -> "Samples":
        """Some of them."""
        return Samples(
            self.time_s[which],
            self.gauge_pa[which],
            None if self.current_a is None else self.current_a[which],
            None if self.flow_m3_s is None else self.flow_m3_s[which],
        )
