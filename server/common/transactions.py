"""Changes of the database: whole or not at all, and answered where two get in each other's way."""

import random
import time
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from functools import wraps
from typing import ParamSpec, TypeVar

from django.db import DatabaseError, connection, transaction
from psycopg import errors

from .errors import Conflict

__all__ = ["CROSSED", "serialisable", "write"]

P = ParamSpec("P")
T = TypeVar("T")
_TIMES, _PAUSE_S = 6, 0.02
# The same id or name at once, or a parent that went meanwhile: seen differently the second time.
_MEANWHILE = (errors.UniqueViolation, errors.ForeignKeyViolation)
# Waiting for each other: PostgreSQL has let the whole transaction go.
CROSSED = (errors.DeadlockDetected, errors.SerializationFailure)


def write(change: Callable[P, T]) -> Callable[P, T]:
    """One change, made in a transaction of its own or as a part of the one around it. Where another
    got in its way it is made again, against what stands then; at last the other's stands, which is
    a Conflict and no crash."""

    @wraps(change)
    def made(*args: P.args, **kwargs: P.kwargs) -> T:
        for attempt in range(_TIMES):
            inside = connection.in_atomic_block
            try:
                with transaction.atomic():
                    return change(*args, **kwargs)
            except DatabaseError as error:
                if not isinstance(error.__cause__, _MEANWHILE if inside else _MEANWHILE + CROSSED):
                    raise
            time.sleep(random.uniform(0, _PAUSE_S * 2**attempt))  # noqa: S311 - only a pause
        raise Conflict("Somebody else changes the same at this moment. Try again.", {})

    return made


@contextmanager
def serialisable() -> Iterator[None]:
    """What is changed within is as if nobody else had changed anything meanwhile, whole or not at
    all. Inside another transaction it is a part of that."""
    inside = connection.in_atomic_block
    with transaction.atomic():
        if not inside:
            with connection.cursor() as cursor:
                cursor.execute("SET TRANSACTION ISOLATION LEVEL SERIALIZABLE")
        yield
