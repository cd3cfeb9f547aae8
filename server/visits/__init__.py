"""Visits: what was confirmed, read, turned and measured, entry by entry."""
