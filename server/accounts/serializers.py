"""Workspaces and their members as the API shows them."""

from typing import cast

from .models import Membership, Role, Workspace
from .permissions import Actor
from .schemas import MemberOut, RoleName, WorkspaceMembers

__all__ = ["workspace_members"]


def workspace_members(actor: Actor, workspace: Workspace) -> WorkspaceMembers:
    """A workspace with its members, owners first."""
    order = list(Role.values)
    members = sorted(
        workspace.memberships.all(), key=lambda each: (order.index(each.role), each.user.username)
    )
    return WorkspaceMembers(
        id=workspace.pk,
        name=workspace.name,
        may_change=actor.may("members.change", workspace.pk),
        members=[_member(actor, each) for each in members],
    )


def _member(actor: Actor, each: Membership) -> MemberOut:
    return MemberOut(
        user=each.user_id,
        username=each.user.username,
        name=each.user.shown,
        role=cast(RoleName, each.role),
        you=each.user_id == actor.user.pk,
    )
