"""What the reader tells every process that shows a gauge: messages through PostgreSQL."""

import json
from typing import Any

import psycopg
from django.db import connection

__all__ = ["CHANNEL", "connected", "message", "tell"]

CHANNEL = "zerodip_live"


async def connected() -> "psycopg.AsyncConnection[Any]":
    """A connection of its own to the application's database, that holds no transaction."""
    given = connection.get_connection_params()
    names = ("dbname", "user", "password", "host", "port", "connect_timeout", "sslmode")
    asked = {name: given[name] for name in names if given.get(name) is not None}
    return await psycopg.AsyncConnection.connect(autocommit=True, **asked)


def message(**fields: Any) -> str:
    """One message; PostgreSQL carries up to 8,000 bytes."""
    return json.dumps(fields, separators=(",", ":"))


def tell(**fields: Any) -> None:
    """Tells it once the transaction ends well."""
    with connection.cursor() as cursor:
        cursor.execute("select pg_notify(%s, %s)", [CHANNEL, message(**fields)])
