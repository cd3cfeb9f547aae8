"""Who belongs to a workspace, in which role. A workspace always has an owner."""

import secrets
from uuid import UUID

from django.contrib.auth import update_session_auth_hash
from django.contrib.auth.password_validation import validate_password
from django.core.exceptions import ValidationError
from django.http import HttpRequest

from audit.services import log_event
from common.errors import Conflict, Forbidden, NotFound
from common.transactions import write
from zerodip.errors import Fault, InvalidInput
from zerodip.fileformat.fields import Spec, check

from .limits import forget_name
from .models import Membership, Role, User, Workspace
from .permissions import Actor, require
from .second_factor import end_for

__all__ = [
    "add_member",
    "change_password",
    "change_role",
    "end_second_factor",
    "new_password",
    "remove_member",
]

_SIGN_IN, _NAME = (
    Spec(kind="words", title="Sign-in name", most=60),
    Spec(kind="words", title="Name", most=60),
)


@write
def add_member(
    actor: Actor, workspace_id: UUID, username: str, name: str, role: str
) -> tuple[User, str]:
    """A new person with a first password, shown this once. Their sign-in name ends with the
    workspace's handle: so none is ever taken elsewhere, and nobody learns who else is here. Raises
    InvalidInput, NotFound, Forbidden."""
    require(actor, "members.change", workspace_id)
    username, name = username.strip(), name.strip()
    faults = [*check(_SIGN_IN, username, "username"), *check(_NAME, name, "name")]
    if not faults and not username:
        faults.append(
            Fault(path="username", code="missing", title="Sign-in name", says="is missing.")
        )
    if not faults and "@" in username:
        says = "needs no @; the workspace's own ending is added."
        faults.append(Fault(path="username", code="letters", title="Sign-in name", says=says))
    username = f"{username}@{Workspace.objects.get(pk=workspace_id).handle}"
    if not faults and User.objects.filter(username__iexact=username).exists():
        faults.append(
            Fault(
                path="username",
                code="taken",
                title="Sign-in name",
                says="is taken; choose another.",
            )
        )
    if faults:
        raise InvalidInput(faults)
    password = secrets.token_urlsafe(9)
    user = User.objects.create_user(username=username, password=password, first_name=name)
    Membership.objects.create(user=user, workspace_id=workspace_id, role=role)
    log_event(actor.user, "members.add", workspace_id, member=user.pk, role=role)
    return user, password


@write
def change_role(actor: Actor, workspace_id: UUID, user_id: int, role: str) -> None:
    """Gives a member another role. Safe to repeat. Raises Conflict for the last owner, NotFound,
    Forbidden."""
    member = _member(actor, workspace_id, user_id)
    if member.role == role:
        return
    _keep_an_owner(member)
    member.role = role
    member.save(update_fields=["role"])
    log_event(actor.user, "members.role", workspace_id, member=user_id, role=role)


@write
def remove_member(actor: Actor, workspace_id: UUID, user_id: int) -> None:
    """Takes somebody out of a workspace; what they recorded stays. Raises Conflict for the last
    owner, NotFound, Forbidden."""
    member = _member(actor, workspace_id, user_id)
    _keep_an_owner(member)
    member.delete()
    log_event(actor.user, "members.remove", workspace_id, member=user_id)


@write
def new_password(actor: Actor, workspace_id: UUID, user_id: int) -> tuple[User, str]:
    """A new password for a member who lost theirs, shown this once. Only for people who belong to
    no workspace that the actor does not own. Raises NotFound, Forbidden."""
    member = _ours_alone(actor, workspace_id, user_id)
    password = secrets.token_urlsafe(9)
    member.user.set_password(password)
    member.user.save(update_fields=["password"])
    forget_name(member.user.username)
    log_event(actor.user, "members.password", workspace_id, member=user_id)
    return member.user, password


@write
def end_second_factor(actor: Actor, workspace_id: UUID, user_id: int) -> None:
    """Switches off the second factor of a member who lost it; their sessions end. Safe to repeat.
    Only for people who belong to no workspace that the actor does not own. Raises NotFound,
    Forbidden."""
    end_for(actor, _ours_alone(actor, workspace_id, user_id).user, workspace_id)


def _ours_alone(actor: Actor, workspace_id: UUID, user_id: int) -> Membership:
    member = _member(actor, workspace_id, user_id)
    if member.user.memberships.exclude(workspace__in=_owned(actor)).exists():
        raise Forbidden("This person belongs to another workspace too, and does that alone.")
    return member


def _owned(actor: Actor) -> list[UUID]:
    return [each for each, role in actor.roles.items() if role == Role.OWNER]


def _member(actor: Actor, workspace_id: UUID, user_id: int) -> Membership:
    """Locks the workspace's members, so that two owners do not remove each other."""
    require(actor, "members.change", workspace_id)
    members = (
        Membership.objects.select_for_update()
        .filter(workspace_id=workspace_id)
        .select_related("user")
    )
    found = next((each for each in members if each.user_id == user_id), None)
    if found is None:
        raise NotFound
    return found


def _keep_an_owner(member: Membership) -> None:
    owners = Membership.objects.filter(workspace_id=member.workspace_id, role=Role.OWNER)
    if member.role == Role.OWNER and owners.count() == 1:
        raise Conflict("A workspace keeps at least one owner.", {})


@write
def change_password(request: HttpRequest, actor: Actor, old: str, new: str) -> None:
    """The person's own password; other sessions of theirs end. Raises InvalidInput, Forbidden for
    the demo."""
    user = User.objects.select_for_update().get(pk=actor.user.pk)
    if user.demo:
        raise Forbidden("The demo's password is this installation's, not its visitors'.")
    if not user.check_password(old):
        raise InvalidInput(
            [Fault(path="old", code="wrong", title="Old password", says="is not right.")]
        )
    try:
        validate_password(new, user)
    except ValidationError as error:
        says = " ".join(error.messages)
        raise InvalidInput(
            [Fault(path="new", code="weak", title="New password", says=f"is too weak. {says}")]
        ) from None
    user.set_password(new)
    user.save(update_fields=["password"])
    update_session_auth_hash(request, user)
    log_event(user, "password.change")
