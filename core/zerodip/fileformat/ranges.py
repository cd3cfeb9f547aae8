"""Ranges that several parts of the format share."""

from zerodip.units import PSI

__all__ = ["MOST_GAUGE_PA"]

MOST_GAUGE_PA = 300 * PSI  # a water gauge's end of scale, far beyond any house
