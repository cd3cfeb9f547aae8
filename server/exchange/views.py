"""The calendar that a signed address opens, for programs without an account."""

from django.http import HttpRequest, HttpResponse
from django.views.decorators.cache import never_cache
from django.views.decorators.http import require_safe

from documents.api import origin
from documents.selectors import reader_by_address
from documents.views import private

from .api import as_calendar
from .calendar import calendar

__all__ = ["due"]


@require_safe
@never_cache
def due(request: HttpRequest, address: str) -> HttpResponse:
    """A person's calendar of what is due, by its signed address."""
    actor = reader_by_address(address)
    if actor is None:
        says = "This calendar is no longer good."
        return private(HttpResponse(says, status=404, content_type="text/plain"))
    return private(as_calendar(calendar(actor, origin(request))))
