"""Pumps: curve, friction, delivery."""
