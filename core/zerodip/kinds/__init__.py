"""The kinds of system: one folder each, listed in `zerodip.kinds.registry`."""
