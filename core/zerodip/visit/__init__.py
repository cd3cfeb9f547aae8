"""The visit: what is recorded on the way through its six steps, and what to do next."""
