"""Who may do what: one row per permission, and the one place that asks."""

from collections.abc import Iterable
from dataclasses import dataclass
from functools import cached_property
from uuid import UUID

from common.errors import Forbidden, NotFound

from .models import Role, User, Workspace

__all__ = ["PERMISSIONS", "Actor", "require"]

_ALL = frozenset({Role.OWNER, Role.TECHNICIAN, Role.VIEWER})
_WRITERS = frozenset({Role.OWNER, Role.TECHNICIAN})

# permission: roles that have it. An operation without a row here fails the tests.
PERMISSIONS: dict[str, frozenset[Role]] = {
    "rounds.read": _ALL,
    "systems.read": _ALL,
    "systems.change": _WRITERS,
    "decisions.save": _WRITERS,
    "sites.change": _WRITERS,
    "sites.add": _WRITERS,
    "systems.add": _WRITERS,
    "decide.ask": _ALL,
    "visits.read": _ALL,
    "visits.change": _WRITERS,
    "documents.read": _ALL,
    "documents.share": _WRITERS,
    "gauges.read": _ALL,
    "gauges.change": _WRITERS,
    "members.read": _ALL,
    "members.change": frozenset({Role.OWNER}),
    "archive.read": _ALL,
    "archive.take": _WRITERS,
    "experience.read": _ALL,
    "experience.change": _WRITERS,
    "recordings.read": _ALL,
    "recordings.change": _WRITERS,
    "calibrations.read": _ALL,
    "calibrations.change": _WRITERS,
    "practice.read": _ALL,
    "practice.change": _WRITERS,
}
# Operations anyone may call, signed in or not, and those that need no more than being signed in.
OPEN = frozenset({"session.read", "session.open", "session.demo", "session.code"})
PERSONAL = frozenset({"session.close", "feed.own", "password.own", "account.own"})


@dataclass(frozen=True)
class Actor:
    """The signed-in person, with their role in each workspace, fetched once when first asked for.
    Workspaces that ask for a second factor are there only for who has shown one (`verified`)."""

    user: User
    verified: bool = False

    @cached_property
    def roles(self) -> dict[UUID, str]:
        """Role by workspace id."""
        theirs = self.user.memberships.all()
        if not self.verified:
            theirs = theirs.filter(workspace__second_factor=False)
        return dict(theirs.values_list("workspace_id", "role"))

    def may(self, permission: str, workspace_id: UUID) -> bool:
        """Whether the actor has a permission in a workspace."""
        return self.roles.get(workspace_id) in PERMISSIONS[permission]

    def named(self, ids: Iterable[UUID]) -> list[Workspace]:
        """Workspaces by their ids, among those that the actor belongs to."""
        return list(Workspace.objects.filter(pk__in=set(ids) & set(self.roles)))

    def workspaces(self, permission: str) -> list[UUID]:
        """The workspaces in which the actor has a permission."""
        return [workspace for workspace in self.roles if self.may(permission, workspace)]


def require(actor: Actor, permission: str, workspace_id: UUID) -> None:
    """Lets the actor pass, or raises NotFound (an outsider) or Forbidden (an insider without the
    right)."""
    role = actor.roles.get(workspace_id)
    if role is None:
        raise NotFound
    if not actor.may(permission, workspace_id):
        raise Forbidden(f"A {role} may look, but not change this.")
