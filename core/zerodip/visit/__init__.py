"""The visit: what is recorded on the way through its steps, and what to do next."""
