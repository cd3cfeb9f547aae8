"""A server for one benchmark."""

from collections.abc import Iterator
from contextlib import contextmanager

from tests.serving import serving


@contextmanager
def served() -> Iterator[str]:
    """The address of Zero Dip with the benchmarks' settings, stopped afterwards."""
    with serving("zerodip", DJANGO_SETTINGS_MODULE="bench.settings") as made:
        yield made.url
