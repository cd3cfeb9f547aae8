"""The set-point bench: switches, references, calibrations."""

from uuid import UUID

from django.http import HttpRequest, HttpResponse
from ninja import Router

from accounts.auth import actor_of
from common.clock import made_of
from common.errors import REFUSALS, Problem
from common.json_responses import model_response
from common.schemas import Told, Units
from documents.api import as_pdf, origin
from documents.schemas import LinkIn, LinkOut
from documents.serializers import link_out
from documents.signing import signed
from zerodip.bench.contact import Change

from . import links, selectors, services
from .certificate import certificate_pdf, label_pdf
from .models import CertificateLink
from .serializers import (
    BeginIn,
    CalibrationEntryIn,
    CalibrationOut,
    CalibrationRow,
    ChangeIn,
    CloseIn,
    DeviceIn,
    DeviceOut,
    ReferenceIn,
    ReferenceOut,
    calibration_out,
    calibration_row,
    device_out,
    reference_out,
)

router = Router(tags=["calibrations"])
READ, CHANGE = {"x-permission": "calibrations.read"}, {"x-permission": "calibrations.change"}
SHARE = {"x-permission": "documents.share"}
CHANGES = {200: CalibrationOut, 409: Problem, **REFUSALS}


@router.get("/devices", response={200: list[DeviceOut], **REFUSALS}, openapi_extra=READ)
def read_devices(request: HttpRequest) -> list[DeviceOut]:
    """The switches in use of the actor's workspaces, the soonest due first."""
    actor = actor_of(request)
    return [device_out(each, actor) for each in selectors.devices_for_actor(actor)]


@router.get("/devices/{device_id}", response={200: DeviceOut, **REFUSALS}, openapi_extra=READ)
def read_device(request: HttpRequest, device_id: UUID) -> DeviceOut:
    """One switch."""
    actor = actor_of(request)
    return device_out(selectors.device_for_actor(actor, device_id), actor)


@router.put(
    "/sites/{site_id}/devices/{device_id}",
    response={200: DeviceOut, 409: Problem, **REFUSALS},
    openapi_extra=CHANGE,
)
def put_device(
    request: HttpRequest, site_id: UUID, device_id: UUID, body: DeviceIn, units: Told = "us"
) -> DeviceOut:
    """Adds a switch under the id given, or changes it. Safe to repeat."""
    actor = actor_of(request)
    made = services.put_device(actor, site_id, device_id, body.version, body.device)
    return device_out(made, actor)


@router.delete("/devices/{device_id}", response={204: None, **REFUSALS}, openapi_extra=CHANGE)
def retire_device(request: HttpRequest, device_id: UUID) -> HttpResponse:
    """Takes a switch out of use; its calibrations stay. Safe to repeat."""
    services.retire_device(actor_of(request), device_id)
    return HttpResponse(status=204)


@router.get("/references", response={200: list[ReferenceOut], **REFUSALS}, openapi_extra=READ)
def read_references(request: HttpRequest) -> list[ReferenceOut]:
    """The references of the actor's workspaces."""
    return [reference_out(each) for each in selectors.references_for_actor(actor_of(request))]


@router.put(
    "/workspaces/{workspace_id}/references/{reference_id}",
    response={200: ReferenceOut, 409: Problem, **REFUSALS},
    openapi_extra=CHANGE,
)
def put_reference(
    request: HttpRequest,
    workspace_id: UUID,
    reference_id: UUID,
    body: ReferenceIn,
    units: Told = "us",
) -> ReferenceOut:
    """Adds a reference under the id given, or changes it. Safe to repeat."""
    return reference_out(
        services.put_reference(
            actor_of(request),
            workspace_id,
            reference_id,
            body.version,
            body.reference,
            body.gauge,
            body.retired,
        )
    )


@router.get("/devices/{device_id}/label.pdf", response={200: bytes, **REFUSALS}, openapi_extra=READ)
def read_label(request: HttpRequest, device_id: UUID, units: Units = "us") -> HttpResponse:
    """The label for a switch; not found where it was never calibrated."""
    device = selectors.device_for_actor(actor_of(request), device_id)
    return as_pdf(label_pdf(device, units), f"label-{device.pk}")


@router.get(
    "/devices/{device_id}/calibrations",
    response={200: list[CalibrationRow], **REFUSALS},
    openapi_extra=READ,
)
def read_calibrations(request: HttpRequest, device_id: UUID) -> list[CalibrationRow]:
    """A switch's calibrations, the latest first."""
    device = selectors.device_for_actor(actor_of(request), device_id)
    return [calibration_row(each) for each in selectors.calibrations_of(device)]


@router.put(
    "/devices/{device_id}/calibrations/{calibration_id}",
    response=CHANGES,
    openapi_extra=CHANGE,
)
def begin_calibration(
    request: HttpRequest,
    device_id: UUID,
    calibration_id: UUID,
    body: BeginIn,
    units: Told = "us",
) -> HttpResponse:
    """Begins a calibration under the id given, or gives the one already open. Safe to repeat."""
    made = services.begin(
        actor_of(request),
        device_id,
        calibration_id,
        body.reference,
        body.gauge,
        body.on,
        made_of(request),
    )
    return model_response(calibration_out(made, units, actor_of(request)))


@router.get(
    "/calibrations/{calibration_id}",
    response={200: CalibrationOut, **REFUSALS},
    openapi_extra=READ,
)
def read_calibration(
    request: HttpRequest, calibration_id: UUID, units: Told = "us"
) -> HttpResponse:
    """A calibration, with what is next."""
    found = selectors.calibration_for_actor(actor_of(request), calibration_id)
    return model_response(calibration_out(found, units, actor_of(request)))


@router.get(
    "/calibrations/{calibration_id}/certificate.pdf",
    response={200: bytes, **REFUSALS},
    openapi_extra=READ,
)
def read_certificate(
    request: HttpRequest, calibration_id: UUID, units: Units = "us"
) -> HttpResponse:
    """The certificate of a calibration, one page; not found before each point was read."""
    found = selectors.calibration_for_actor(actor_of(request), calibration_id)
    return as_pdf(certificate_pdf(found, units), f"calibration-{found.pk}")


@router.put(
    "/calibrations/{calibration_id}/entries/{calibration_entry_id}",
    response=CHANGES,
    openapi_extra=CHANGE,
)
def add_calibration_entry(
    request: HttpRequest,
    calibration_id: UUID,
    calibration_entry_id: UUID,
    body: CalibrationEntryIn,
    units: Told = "us",
) -> HttpResponse:
    """Adds one entry, or corrects one. Safe to repeat."""
    made = services.add_entry(
        actor_of(request),
        calibration_id,
        calibration_entry_id,
        body.value,
        body.supersedes,
        made_of(request),
    )
    return model_response(calibration_out(made, units, actor_of(request)))


@router.put(
    "/calibrations/{calibration_id}/changes/{calibration_entry_id}",
    response=CHANGES,
    openapi_extra=CHANGE,
)
def take_change(
    request: HttpRequest,
    calibration_id: UUID,
    calibration_entry_id: UUID,
    body: ChangeIn,
    units: Told = "us",
) -> HttpResponse:
    """Takes the reading at a change of the contact that the reference on the wire saw. Safe to
    repeat."""
    change = Change(**body.dict())
    made = services.take_change(
        actor_of(request), calibration_id, calibration_entry_id, change, made_of(request)
    )
    return model_response(calibration_out(made, units, actor_of(request)))


@router.put("/calibrations/{calibration_id}/closed", response=CHANGES, openapi_extra=CHANGE)
def close_calibration(
    request: HttpRequest, calibration_id: UUID, body: CloseIn, units: Told = "us"
) -> HttpResponse:
    """Closes a calibration, signed. Safe to repeat."""
    made = services.close(
        actor_of(request), calibration_id, body.signed_by, body.remark, made_of(request)
    )
    return model_response(calibration_out(made, units, actor_of(request)))


@router.get(
    "/calibrations/{calibration_id}/links",
    response={200: list[LinkOut], **REFUSALS},
    openapi_extra=READ,
)
def read_certificate_links(request: HttpRequest, calibration_id: UUID) -> list[LinkOut]:
    """The links to a certificate that were ever made, newest first."""
    actor = actor_of(request)
    made = selectors.calibration_for_actor(actor, calibration_id)
    shares = actor.may("documents.share", made.device.site.workspace_id)
    return [_link_out(request, link, shares) for link in made.links.select_related("made_by")]


@router.put(
    "/calibrations/{calibration_id}/links/{certificate_link_id}",
    response={200: LinkOut, 409: Problem, **REFUSALS},
    openapi_extra=SHARE,
)
def make_certificate_link(
    request: HttpRequest, calibration_id: UUID, certificate_link_id: UUID, body: LinkIn
) -> LinkOut:
    """A link by which anyone reads the certificate until it expires or is revoked. Safe to
    repeat."""
    actor = actor_of(request)
    made = links.make_link(actor, calibration_id, certificate_link_id, body.days, body.units)
    return _link_out(request, made)


@router.delete(
    "/calibrations/{calibration_id}/links/{certificate_link_id}",
    response={200: LinkOut, **REFUSALS},
    openapi_extra=SHARE,
)
def revoke_certificate_link(
    request: HttpRequest, calibration_id: UUID, certificate_link_id: UUID
) -> LinkOut:
    """Revokes a link: dead at once."""
    actor = actor_of(request)
    return _link_out(request, links.revoke_link(actor, calibration_id, certificate_link_id))


def _link_out(request: HttpRequest, link: CertificateLink, shares: bool = True) -> LinkOut:
    address = f"{origin(request)}/papers/certificates/{signed(link.pk, 'certificate')}.pdf"
    return link_out(link, address, shares)
