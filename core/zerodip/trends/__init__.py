"""Figures of a system over its visits: the line through them, and when it leaves its band."""
