"""What a signed address of a certificate opens, for people without an account."""

from django.http import HttpRequest, HttpResponse
from django.views.decorators.cache import never_cache
from django.views.decorators.http import require_safe

from documents.api import as_pdf
from documents.views import gone, private

from .certificate import certificate_pdf
from .selectors import link_by_address

__all__ = ["certificate"]


@require_safe
@never_cache
def certificate(request: HttpRequest, address: str) -> HttpResponse:
    """A certificate by its signed address, as it stands with its corrections; 404 for an address
    that does not live."""
    link = link_by_address(address)
    if link is None:
        return gone(request)
    name = f"calibration-{link.calibration_id}"
    return private(as_pdf(certificate_pdf(link.calibration, link.units), name))
