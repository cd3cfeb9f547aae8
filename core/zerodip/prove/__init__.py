"""Proving: what was measured beside what was predicted, and what a difference means."""
