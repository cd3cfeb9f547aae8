"""Ranges that several parts of the format share."""

from zerodip.units import PSI

__all__ = ["MOST_GAUGE_PA", "RUN_S"]

MOST_GAUGE_PA = 300 * PSI  # a water gauge's end of scale, far beyond any house
RUN_S = (0.2, 36000.0)  # a pump run that can be timed
