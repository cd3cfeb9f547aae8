"""Addresses: the API, and the page for everything else (its router reads the path)."""

from django.conf import settings
from django.http import HttpRequest, HttpResponse
from django.urls import path, re_path
from django.views.decorators.csrf import ensure_csrf_cookie
from django.views.generic import TemplateView

from calibrations.views import certificate
from documents.views import shared
from exchange.views import due

from .api import api
from .health import live, ready


def service_worker(request: HttpRequest) -> HttpResponse:
    """The page's service worker, at the root because it serves every address of the page; asked for
    anew each time, so that a new version is noticed."""
    script = (settings.WEB_DIST / "sw.js").read_bytes()
    response = HttpResponse(script, content_type="text/javascript")
    response["Cache-Control"] = "no-cache"
    return response


robots = TemplateView.as_view(template_name="robots.txt", content_type="text/plain")
page = ensure_csrf_cookie(TemplateView.as_view(template_name="page.html"))

urlpatterns = [
    path("health/live", live, name="live"),
    path("health/ready", ready, name="ready"),
    path("robots.txt", robots, name="robots"),
    path("sw.js", service_worker, name="service_worker"),
    path("api/", api.urls),
    re_path(r"^papers/due/(?P<address>[\w.-]+)\.ics$", due, name="due"),
    re_path(r"^papers/certificates/(?P<address>[\w.-]+)\.pdf$", certificate, name="certificate"),
    re_path(r"^papers/(?P<address>[\w.-]+?)(?P<printed>\.pdf)?$", shared, name="shared"),
    re_path(r"^(?!api/|health/|papers/|static/|media/|favicon\.ico).*$", page, name="page"),
]
handler400 = "common.errors.bad_request"
handler404 = "common.errors.not_found"
handler500 = "common.errors.broken"
