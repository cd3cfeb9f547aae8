"""What is told in text goes packed over the line."""

from typing import Any

from django.http import HttpRequest
from django.http.response import HttpResponseBase
from django.middleware.gzip import GZipMiddleware

__all__ = ["Compressed"]

_TEXT = ("application/json", "application/problem+json", "text/csv", "text/html", "text/calendar")


class Compressed(GZipMiddleware):
    """Django's own packing, with its guard against guessing secrets by length; but photos, papers
    and archives are packed already, and a line that is told piece by piece must not wait."""

    def process_response(self, request: HttpRequest, response: HttpResponseBase) -> Any:
        if not response.headers.get("Content-Type", "").startswith(_TEXT):
            return response
        return super().process_response(request, response)
