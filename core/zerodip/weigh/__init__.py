"""Weighing one setting, school or size against another."""
