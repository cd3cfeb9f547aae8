"""Deciding: judging settings, proposing them, weighing them side by side, sizing tanks."""
