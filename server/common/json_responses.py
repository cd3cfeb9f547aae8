"""Long lists, written out as they are: validating what the server itself made takes longer than all
the rest, and so does unpacking JSON columns and times only to pack them again. Tests hold these
answers to their schemas."""

from collections.abc import Iterable
from typing import Any

import orjson
from django.db.models import F, FloatField, Func, TextField
from django.db.models.functions import Cast
from django.http import HttpResponse
from pydantic import BaseModel

__all__ = [
    "as_iso",
    "as_seconds",
    "as_text",
    "json_response",
    "model_response",
    "models_response",
    "packed",
]


def as_text(column: str) -> Cast:
    """A JSON column as the database writes it, for `packed`."""
    return Cast(column, TextField())


def as_iso(column: str) -> Func:
    """A time as the database writes it, ISO 8601 in UTC; None stays None."""
    return Func(
        F(column),
        template="to_char(%(expressions)s at time zone 'UTC', 'YYYY-MM-DD\"T\"HH24:MI:SS\"Z\"')",
        output_field=TextField(),
    )


def as_seconds(column: str) -> Func:
    """A time in seconds since 1970."""
    return Func(
        F(column), template="extract(epoch from %(expressions)s)::float8", output_field=FloatField()
    )


def packed(text: str) -> Any:
    """JSON text that goes into an answer as it is."""
    return orjson.Fragment(text)


def model_response(made: BaseModel) -> HttpResponse:
    """What the server itself made, written out without being validated again."""
    return HttpResponse(made.model_dump_json(), content_type="application/json")


def models_response(made: Iterable[BaseModel]) -> HttpResponse:
    """The same for a list."""
    rows = ",".join(each.model_dump_json() for each in made)
    return HttpResponse(f"[{rows}]", content_type="application/json")


def json_response(data: Any) -> HttpResponse:
    """Plain values, dates, UUIDs and packed JSON as a JSON answer."""
    return HttpResponse(orjson.dumps(data), content_type="application/json")
