"""Workspaces and their members as the API shows them."""

from typing import cast

from .models import Membership, Role, Workspace
from .permissions import Actor
from .schemas import MemberOut, RoleName, WorkspaceMembers

__all__ = ["workspace_members"]


def workspace_members(
    actor: Actor, workspace: Workspace, with_second_factor: set[int]
) -> WorkspaceMembers:
    """A workspace with its members, owners first; only owners are told who has a second factor."""
    order = list(Role.values)
    members = sorted(
        workspace.memberships.all(), key=lambda each: (order.index(each.role), each.user.username)
    )
    owner = actor.may("members.change", workspace.pk)
    return WorkspaceMembers(
        id=workspace.pk,
        name=workspace.name,
        handle=workspace.handle,
        second_factor=workspace.second_factor,
        may_change=owner,
        members=[
            _member(actor, each, owner and each.user_id in with_second_factor) for each in members
        ],
    )


def _member(actor: Actor, each: Membership, second_factor: bool) -> MemberOut:
    return MemberOut(
        user=each.user_id,
        username=each.user.username,
        name=each.user.shown,
        role=cast(RoleName, each.role),
        you=each.user_id == actor.user.pk,
        second_factor=second_factor,
    )
