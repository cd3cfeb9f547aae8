"""The pages that a signed address opens, for people without an account."""

from dataclasses import replace

from django.http import HttpRequest, HttpResponse
from django.shortcuts import render
from django.views.decorators.cache import never_cache
from django.views.decorators.http import require_safe

from .api import as_pdf
from .printing import report_pdf
from .selectors import link_by_address
from .serializers import report_page

__all__ = ["gone", "private", "shared"]


@require_safe
@never_cache
def shared(request: HttpRequest, address: str, printed: str = "") -> HttpResponse:
    """A report by its signed address, to read or (`printed`) as a PDF; 404 for an address that does
    not live."""
    link = link_by_address(address)
    if link is None:
        return gone(request)
    if printed:
        return private(as_pdf(report_pdf(link.visit, link.units), f"report-{link.visit_id}"))
    page = report_page(link.visit, link.units)
    return private(
        render(request, "documents/report.html", vars(replace(page, pdf=f"/papers/{address}.pdf")))
    )


def gone(request: HttpRequest) -> HttpResponse:
    """What an address opens that does not live."""
    return private(render(request, "documents/gone.html", status=404))


def private(response: HttpResponse) -> HttpResponse:
    """Kept by no search engine, and its address told to no other site."""
    response["X-Robots-Tag"] = "noindex, nofollow"
    response["Referrer-Policy"] = "no-referrer"
    return response
