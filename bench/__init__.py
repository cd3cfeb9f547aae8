"""Benchmarks: each prints figures measured in one run. `bench/run` lists and runs them; nothing
here is a test."""
