"""Houses and recorders that share no code and no assumption with what reads their lines."""
