"""Addresses that work without signing in: an id, signed for one use, so that nobody finds a report
by guessing ids."""

from uuid import UUID

from django.core.signing import BadSignature, Signer

__all__ = ["signed", "unsigned"]


def signed(id: UUID, use: str) -> str:
    """What stands in the address; `use` is "link", "certificate" or "feed"."""
    return Signer(salt=f"papers.{use}").sign(id.hex).replace(":", ".")


def unsigned(text: str, use: str) -> UUID | None:
    """The id; None where the address was not signed here for this use."""
    try:
        return UUID(Signer(salt=f"papers.{use}").unsign(text.replace(".", ":", 1)))
    except (BadSignature, ValueError):
        return None
