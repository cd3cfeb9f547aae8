"""The usual jobs: what technicians are called for beside setting a switch. A job is data."""
