"""The pages that a signed address opens, for people without an account."""

from django.http import HttpRequest, HttpResponse
from django.shortcuts import render
from django.views.decorators.cache import never_cache
from django.views.decorators.http import require_safe

from .api import as_pdf
from .presenting import report_context
from .printing import pdf
from .selectors import link_by_address

__all__ = ["shared"]


@require_safe
@never_cache
def shared(request: HttpRequest, address: str, printed: str = "") -> HttpResponse:
    """A report by its signed address, to read or (`printed`) as a PDF; 404 for an address that does not live."""
    link = link_by_address(address)
    if link is None:
        return _private(render(request, "papers/gone.html", status=404))
    context = report_context(link.visit, link.units)
    if printed:
        return _private(as_pdf(pdf("papers/report.html", context, link.units), f"report-{link.visit_id}"))
    return _private(render(request, "papers/report.html", {**context, "pdf": f"/papers/{address}.pdf"}))


def _private(response: HttpResponse) -> HttpResponse:
    """Kept by no search engine, and its address told to no other site."""
    response["X-Robots-Tag"] = "noindex, nofollow"
    response["Referrer-Policy"] = "no-referrer"
    return response
