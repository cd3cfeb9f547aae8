"""Emptying the tables between tests while a served host is at work on them."""

import functools
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from typing import Any
from unittest.mock import patch

from django.db import OperationalError
from django.db.backends.postgresql.operations import DatabaseOperations
from psycopg.errors import DeadlockDetected

__all__ = ["patient_emptying"]


def _patient(flush: Callable[..., None]) -> Callable[..., None]:
    """Empties the tables while a host may be at work on them: where each waits for the other, once
    more (the host has its own table by then, or was told to try again)."""

    @functools.wraps(flush)
    def emptied(*given: Any) -> None:
        for _ in range(4):
            try:
                return flush(*given)
            except OperationalError as error:
                if not isinstance(error.__cause__, DeadlockDetected):
                    raise
        return flush(*given)

    return emptied


@contextmanager
def patient_emptying() -> Iterator[None]:
    """Tables are emptied patiently as long as this lasts."""
    emptied = _patient(DatabaseOperations.execute_sql_flush)
    with patch.object(DatabaseOperations, "execute_sql_flush", emptied):
        yield
