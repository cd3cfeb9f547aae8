"""Filling, starting and how often."""
