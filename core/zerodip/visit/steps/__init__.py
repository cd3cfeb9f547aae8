"""The steps of a visit: what each shows, worked out from the system's figures and the visit's
log."""
