"""Figures and the sentences that tell them."""
