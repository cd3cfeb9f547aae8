"""Set-point switches and their calibrations: the bench."""
