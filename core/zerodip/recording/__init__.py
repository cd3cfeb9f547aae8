"""A line of pressure over time: read from any recorder's file, judged for what is wrong with it,
and read as a technician reads it. The only package here that uses numpy and polars; the page's own
core comes without it."""
