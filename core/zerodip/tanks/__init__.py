"""Tanks by the gas law."""
