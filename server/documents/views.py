"""The pages that a signed address opens, for people without an account."""

from dataclasses import replace

from django.http import HttpRequest, HttpResponse
from django.shortcuts import render
from django.views.decorators.cache import never_cache
from django.views.decorators.http import require_safe

from .api import as_calendar, as_pdf, origin
from .calendar import calendar
from .printing import report_pdf
from .selectors import link_by_address, reader_by_address
from .serializers import report_page

__all__ = ["due", "shared"]


@require_safe
@never_cache
def shared(request: HttpRequest, address: str, printed: str = "") -> HttpResponse:
    """A report by its signed address, to read or (`printed`) as a PDF; 404 for an address that does
    not live."""
    link = link_by_address(address)
    if link is None:
        return _private(render(request, "documents/gone.html", status=404))
    if printed:
        return _private(as_pdf(report_pdf(link.visit, link.units), f"report-{link.visit_id}"))
    page = report_page(link.visit, link.units)
    return _private(
        render(request, "documents/report.html", vars(replace(page, pdf=f"/papers/{address}.pdf")))
    )


@require_safe
@never_cache
def due(request: HttpRequest, address: str) -> HttpResponse:
    """A person's calendar of what is due, by its signed address."""
    actor = reader_by_address(address)
    if actor is None:
        return _private(
            HttpResponse("This calendar is no longer good.", status=404, content_type="text/plain")
        )
    return _private(as_calendar(calendar(actor, origin(request))))


def _private(response: HttpResponse) -> HttpResponse:
    """Kept by no search engine, and its address told to no other site."""
    response["X-Robots-Tag"] = "noindex, nofollow"
    response["Referrer-Policy"] = "no-referrer"
    return response
