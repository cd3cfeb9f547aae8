"""The simulated plant."""
