"""Reports, labels and links."""

from uuid import UUID

from django.conf import settings
from django.db.models import Q
from django.http import HttpRequest, HttpResponse
from ninja import Query, Router, Status

from accounts.auth import actor_of
from common.errors import REFUSALS, NotFound
from common.schemas import Units
from sites.selectors import systems_for_actor
from visits.selectors import visit_for_actor
from zerodip.answers.as_json import as_json
from zerodip.documents.report import Report

from . import selectors, services
from .models import Link
from .printing import labels_pdf, report_pdf
from .schemas import FeedOut, LabelsWanted, LinkIn, LinkOut
from .serializers import feed_out, labels_page, link_out, report_address, report_told

router = Router(tags=["documents"])
READ, SHARE = {"x-permission": "documents.read"}, {"x-permission": "documents.share"}


def origin(request: HttpRequest) -> str:
    """Where this server is reached: as the settings say, or as this request reached it."""
    return settings.ADDRESS or request.build_absolute_uri("/").rstrip("/")


def as_pdf(data: bytes, name: str) -> HttpResponse:
    """A PDF that the browser shows, and keeps under a name."""
    response = HttpResponse(data, content_type="application/pdf")
    response["Content-Disposition"] = f'inline; filename="{name}.pdf"'
    return response


@router.get("/visits/{visit_id}/report", response={200: Report, **REFUSALS}, openapi_extra=READ)
def read_report_words(request: HttpRequest, visit_id: UUID, units: Units = "us") -> HttpResponse:
    """The report of a visit in words, to be shown."""
    told = report_told(visit_for_actor(actor_of(request), visit_id), units)
    return HttpResponse(as_json(told), content_type="application/json")


@router.get("/visits/{visit_id}/report.pdf", response={200: bytes, **REFUSALS}, openapi_extra=READ)
def read_report(request: HttpRequest, visit_id: UUID, units: Units = "us") -> HttpResponse:
    """The report of a visit, to hand over."""
    visit = visit_for_actor(actor_of(request), visit_id)
    return as_pdf(report_pdf(visit, units), f"report-{visit.pk}")


@router.get("/labels.pdf", response={200: bytes, **REFUSALS}, openapi_extra=READ)
def read_labels(request: HttpRequest, wanted: Query[LabelsWanted]) -> HttpResponse:
    """Labels for the switches of systems, eight to a sheet, the first at a place of the sheet that
    is still free."""
    whose = Q(pk__in=wanted.system) | Q(site_id=wanted.site, retired_at=None)
    found = systems_for_actor(actor_of(request)).filter(whose)
    systems = list(found.select_related("next_check", "site").order_by("site__name", "name"))
    if not systems:
        raise NotFound
    page = labels_page(systems, origin(request), wanted.units, wanted.first)
    return as_pdf(labels_pdf(page, wanted.units or systems[0].site.units), "labels")


@router.get(
    "/visits/{visit_id}/links", response={200: list[LinkOut], **REFUSALS}, openapi_extra=READ
)
def read_links(request: HttpRequest, visit_id: UUID) -> list[LinkOut]:
    """The links to a visit's report that were ever made, newest first."""
    actor = actor_of(request)
    visit = visit_for_actor(actor, visit_id)
    shares = actor.may("documents.share", visit.system.site.workspace_id)
    return [_link_out(request, link, shares) for link in selectors.links_of(actor, visit_id)]


@router.put(
    "/visits/{visit_id}/links/{link_id}", response={200: LinkOut, **REFUSALS}, openapi_extra=SHARE
)
def make_link(request: HttpRequest, visit_id: UUID, link_id: UUID, body: LinkIn) -> LinkOut:
    """A link by which anyone reads the report until it expires or is revoked. Safe to repeat."""
    made = services.make_link(actor_of(request), visit_id, link_id, body.days, body.units)
    return _link_out(request, made)


@router.delete(
    "/visits/{visit_id}/links/{link_id}", response={200: LinkOut, **REFUSALS}, openapi_extra=SHARE
)
def revoke_link(request: HttpRequest, visit_id: UUID, link_id: UUID) -> LinkOut:
    """Revokes a link: dead at once."""
    return _link_out(request, services.revoke_link(actor_of(request), visit_id, link_id))


def _link_out(request: HttpRequest, link: Link, shares: bool = True) -> LinkOut:
    return link_out(link, report_address(link, origin(request)), shares)


@router.get(
    "/feed", response={200: FeedOut, **REFUSALS}, openapi_extra={"x-permission": "feed.own"}
)
def read_feed(request: HttpRequest) -> FeedOut:
    """The address of the actor's own calendar of what is due."""
    return feed_out(selectors.feed_of(actor_of(request)), origin(request))


@router.post(
    "/feed", response={200: FeedOut, **REFUSALS}, openapi_extra={"x-permission": "feed.own"}
)
def make_feed(request: HttpRequest) -> FeedOut:
    """A new address for it; the one before is dead at once."""
    return feed_out(services.make_feed(actor_of(request)), origin(request))


@router.delete(
    "/feed", response={204: None, **REFUSALS}, openapi_extra={"x-permission": "feed.own"}
)
def end_feed(request: HttpRequest) -> Status[None]:
    """Kills the address."""
    services.end_feed(actor_of(request))
    return Status(204, None)
