"""The set-point bench: process pressure switches, calibrated against a reference gauge."""
