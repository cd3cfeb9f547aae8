"""Links to certificates: giving and taking back."""

from uuid import UUID

from accounts.permissions import Actor, require
from common.transactions import write
from documents.services import give_link, take_link
from zerodip.errors import Fault, InvalidInput

from .models import CertificateLink
from .selectors import calibration_for_actor

__all__ = ["make_link", "revoke_link"]


@write
def make_link(
    actor: Actor, calibration_id: UUID, link_id: UUID, days: int, units: str
) -> CertificateLink:
    """A link under the id given, for so many days, to the certificate of a calibration that is
    signed. Safe to repeat. Raises InvalidInput, Conflict, NotFound, Forbidden."""
    made = calibration_for_actor(actor, calibration_id, lock=True)
    require(actor, "documents.share", made.device.site.workspace_id)
    if made.closed_at is None:
        says = "is shared once it is signed and closed."
        raise InvalidInput([Fault(path="calibration", code="open", title="It", says=says)])
    noted = {"calibration": str(made.pk)}
    return give_link(actor, made.links, link_id, days, units, made.device_id, noted)


@write
def revoke_link(actor: Actor, calibration_id: UUID, link_id: UUID) -> CertificateLink:
    """Kills a link at once. Safe to repeat. Raises NotFound, Forbidden."""
    made = calibration_for_actor(actor, calibration_id)
    require(actor, "documents.share", made.device.site.workspace_id)
    noted = {"calibration": str(made.pk)}
    return take_link(actor, made.links, link_id, made.device_id, noted)
