"""Where practitioners differ: the ways that there are, and what each would set."""
