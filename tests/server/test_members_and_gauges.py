"""The crew: members and their roles, passwords, gauges owned."""

import uuid
from datetime import timedelta
from typing import Any

import pytest
from django.core.management import CommandError, call_command
from django.utils import timezone

from accounts.models import Membership, Role, User, Workspace
from gauges.models import Gauge
from zerodip.units import PSI

from .conftest import Caller, World, caller
from .test_visits import opened


def signed_in(username: str, password: str) -> bool:
    body = {"username": username, "password": password}
    return bool(Caller().send("POST", "/api/session", body).status_code == 200)


def user(world: World, role: str) -> User:
    return User.objects.get(username=f"{role} of ours")


def members(world: World) -> str:
    return f"/api/workspaces/{world.workspace.pk}/members"


def test_an_owner_lets_somebody_in_with_a_password_shown_once(world: World) -> None:
    made = (
        world["owner"]
        .send("POST", members(world), {"username": " ada ", "name": "Ada", "role": "viewer"})
        .json()
    )
    joined = f"ada@{world.workspace.handle}"
    assert made["username"] == joined
    assert signed_in(joined, made["password"])
    (ours,) = world["viewer"].get("/api/workspaces").json()
    assert [(m["username"], m["role"]) for m in ours["members"]][-2:] == [
        (joined, "viewer"),
        ("viewer of ours", "viewer"),
    ]
    assert made["password"] not in str(ours)
    taken = world["owner"].send("POST", members(world), {"username": "ADA"})
    assert [(f["path"], f["code"]) for f in taken.json()["faults"]] == [("username", "taken")]
    for name in ("", "  ", "a\x00b", "x" * 61):
        refused = world["owner"].send("POST", members(world), {"username": name})
        assert [f["path"] for f in refused.json()["faults"]] == ["username"], name


def test_a_role_works_at_once_and_who_is_out_sees_nothing(world: World) -> None:
    technician = user(world, "technician")
    path = f"{members(world)}/{technician.pk}"
    assert world["owner"].send("PUT", path, {"role": "viewer"}).status_code == 204
    assert (
        world["technician"]
        .send("PUT", f"/api/systems/{world.system.pk}/retired", {"retired": True})
        .status_code
        == 403
    )
    assert world["owner"].send("DELETE", path).status_code == 204
    assert world["technician"].get(f"/api/systems/{world.system.pk}").status_code == 404
    assert world["owner"].send("DELETE", path).status_code == 404


def test_a_workspace_keeps_an_owner(world: World) -> None:
    path = f"{members(world)}/{user(world, 'owner').pk}"
    assert world["owner"].send("PUT", path, {"role": "technician"}).status_code == 409
    assert world["owner"].send("DELETE", path).status_code == 409
    second = caller(_second_owner(world))
    assert second.send("PUT", path, {"role": "technician"}).status_code == 204
    assert world["owner"].send("POST", members(world), {"username": "late"}).status_code == 403


def _second_owner(world: World) -> User:
    made = User.objects.create(username="second owner")
    Membership.objects.create(user=made, workspace=world.workspace, role=Role.OWNER)
    return made


def test_an_owner_renews_a_password_only_of_people_of_their_own(world: World) -> None:
    technician = user(world, "technician")
    path = f"{members(world)}/{technician.pk}/password"
    made = world["owner"].send("POST", path).json()
    assert signed_in(made["username"], made["password"])
    assert world["technician"].get("/api/rounds").status_code == 401  # the old session ended
    Membership.objects.create(
        user=technician, workspace=Workspace.objects.get(name="theirs"), role=Role.VIEWER
    )
    assert world["owner"].send("POST", path).status_code == 403


def test_one_s_own_password_is_changed_with_the_old_one(world: World) -> None:
    viewer = user(world, "viewer")
    viewer.set_password("the old password")
    viewer.save()
    session = caller(viewer)
    wrong = session.send("PUT", "/api/password", {"old": "guess", "new": "a new password"})
    assert [f["path"] for f in wrong.json()["faults"]] == ["old"]
    weak = session.send("PUT", "/api/password", {"old": "the old password", "new": "short"})
    assert [f["path"] for f in weak.json()["faults"]] == ["new"]
    assert (
        session.send(
            "PUT", "/api/password", {"old": "the old password", "new": "a new password"}
        ).status_code
        == 204
    )
    assert session.get("/api/rounds").status_code == 200
    assert signed_in(viewer.username, "a new password")


def test_a_workspace_begins_with_its_owner(db: None, capsys: pytest.CaptureFixture[str]) -> None:
    call_command("add_owner", "grete", "Pump crew")
    assert signed_in("grete", capsys.readouterr().out.rsplit(" ", 1)[1].strip())
    with pytest.raises(CommandError):
        call_command("add_owner", "Grete", "Another")


def put_gauge(world: World, id: uuid.UUID, who: str = "technician", **body: Any) -> Any:
    gauge = {"name": "No. 3", "scale_gauge_pa": 100 * PSI, "grade": "B", **body.pop("gauge", {})}
    return world[who].send(
        "PUT", f"/api/workspaces/{world.workspace.pk}/gauges/{id}", {"gauge": gauge, **body}
    )


def test_a_gauge_tells_what_it_may_be_off_by_at_the_set_points(world: World) -> None:
    id, today = uuid.uuid4(), timezone.now().date()
    made = put_gauge(world, id, checked_on=str(today - timedelta(days=400))).json()
    assert (made["version"], made["state"]) == (1, "overdue")
    assert put_gauge(world, id, checked_on=made["checked_on"]).json()["version"] == 1
    visit = opened(world)
    (told,) = world["viewer"].get(f"/api/visits/{visit}/gauges").json()
    assert told["error_pa"] == pytest.approx(2 * PSI)  # 40 to 60 psi lie within the middle half
    late = put_gauge(world, id, gauge={"grade": "A"}, version=0)
    assert late.status_code == 409
    assert late.json()["current"]["gauge"]["grade"] == "B"
    assert put_gauge(world, id, version=1, retired=True).json()["retired"] is True
    assert world["viewer"].get(f"/api/visits/{visit}/gauges").json() == []
    assert len(world["viewer"].get("/api/gauges").json()) == 1
    assert world["outsider"].get("/api/gauges").json() == []


def test_a_gauge_s_faults_are_named_and_nothing_is_kept(world: World) -> None:
    body = {"gauge": {"grade": "Z", "scale_gauge_pa": "much"}, "checked_on": "2999-01-01"}
    refused = put_gauge(world, uuid.uuid4(), **body)
    assert {f["path"] for f in refused.json()["faults"]} == {
        "gauge.grade",
        "gauge.scale_gauge_pa",
        "checked_on",
    }
    assert put_gauge(world, uuid.uuid4(), checked_on="yesterday").status_code == 422
    assert not Gauge.objects.exists()
