"""Two workspaces that must never see each other, and people in each role."""

import json
import time
from dataclasses import dataclass
from typing import Any

import pytest
from django.test import Client

from accounts.models import Membership, Role, User, Workspace
from sites.models import Site, System
from sites.services import create_system
from tests.core.systems import file
from zerodip.fileformat.document import read_document


class Caller(Client):
    """A signed-in browser that speaks JSON."""

    def send(self, method: str, path: str, body: Any = None, raw: str | None = None) -> Any:
        """Sends `body` as JSON (or `raw` as it is) and gives the response."""
        data = raw if raw is not None else "" if body is None else json.dumps(body)
        return self.generic(method, path, data, content_type="application/json")


@dataclass(frozen=True)
class World:
    """A workspace with one site and system, and callers in every relation to it."""

    workspace: Workspace
    site: Site
    system: System
    callers: dict[str, Caller]

    def __getitem__(self, who: str) -> Caller:
        return self.callers[who]


def caller(user: User | None) -> Caller:
    client = Caller()
    if user:
        client.force_login(user)
        held = client.session
        held["seen"] = time.time()  # not its first request of this hour
        held.save()
    return client


def member(workspace: Workspace, role: str) -> User:
    user = User.objects.create(username=f"{role} of {workspace.name}")
    Membership.objects.create(user=user, workspace=workspace, role=role)
    return user


@pytest.fixture
def world(db: None) -> World:
    """Ours, with an outsider from theirs."""
    ours, theirs = (Workspace.objects.create(name=name) for name in ("ours", "theirs"))
    site = Site.objects.create(workspace=ours, name="North farm")
    system = create_system(site, read_document(file()))
    callers = {role: caller(member(ours, role)) for role in Role.values}
    callers |= {"outsider": caller(member(theirs, Role.OWNER)), "anonymous": caller(None)}
    return World(ours, site, system, callers)
