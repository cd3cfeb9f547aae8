"""Rules as data: the engine that runs them, and where they come from."""
