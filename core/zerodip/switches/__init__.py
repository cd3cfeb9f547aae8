"""Pressure switches and the schools of setting them."""
