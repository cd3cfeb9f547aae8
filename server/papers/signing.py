"""The address of a link: its id, signed, so that nobody finds a report by guessing ids."""

from uuid import UUID

from django.core.signing import BadSignature, Signer

__all__ = ["signed", "unsigned"]

_SALT = "papers.link"


def signed(link_id: UUID) -> str:
    """What stands in the address."""
    return Signer(salt=_SALT).sign(link_id.hex).replace(":", ".")


def unsigned(text: str) -> UUID | None:
    """The link's id; None where the address was not signed here."""
    try:
        return UUID(Signer(salt=_SALT).unsign(text.replace(".", ":", 1)))
    except (BadSignature, ValueError):
        return None
