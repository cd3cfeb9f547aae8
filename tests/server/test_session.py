"""Signing in and out, the demo, too many tries, the page's token, the headers."""

import os
import subprocess
import sys
from pathlib import Path
from typing import Any

import pytest
from django.core.management import CommandError, call_command
from django.test import Client

from accounts.models import User, Workspace

from .conftest import World, caller

PASSWORD = "a long enough one"


def give_password(name: str) -> None:
    user = User.objects.get(username=name)
    user.set_password(PASSWORD)
    user.save()


def test_sign_in_and_out(world: World, settings: Any) -> None:
    settings.DEMO = False
    browser = caller(None)
    name = "owner of ours"
    give_password(name)
    assert browser.get("/api/session").json() == {
        "signed_in": False,
        "name": "",
        "demo": False,
        "needs": "",
    }
    opened = browser.send("POST", "/api/session", {"username": name, "password": PASSWORD})
    assert opened.json() == {"signed_in": True, "name": name, "demo": False, "needs": ""}
    assert browser.get("/api/rounds").status_code == 200
    assert browser.send("DELETE", "/api/session").status_code == 204
    assert browser.get("/api/rounds").status_code == 401


@pytest.mark.parametrize(
    "body", [{}, {"username": 3, "password": "x"}, {"username": "", "password": ""}, [], None]
)
def test_an_odd_sign_in_is_refused_by_field(body: Any, db: None) -> None:
    response = caller(None).send("POST", "/api/session", body)
    assert response.status_code == 422
    assert response.json()["faults"]


def test_a_name_with_a_null_byte_is_no_500(db: None) -> None:
    response = caller(None).send("POST", "/api/session", {"username": "a\u0000", "password": "x"})
    assert response.status_code in (401, 422)


def test_the_demo_opens_in_one_click_while_it_is_on(db: None, settings: Any) -> None:
    settings.DEMO, settings.DEMO_PASSWORD = True, "only here"
    call_command("load_demo")
    browser = caller(None)
    assert browser.get("/api/session").json()["demo"] is True
    assert browser.send("POST", "/api/session/demo").json()["name"] == "Demo technician"
    assert len(browser.get("/api/rounds").json()["sites"]) == 5
    settings.DEMO = False
    assert caller(None).send("POST", "/api/session/demo").status_code == 404


def test_changes_need_the_pages_token(world: World) -> None:
    strict = Client(enforce_csrf_checks=True)
    strict.force_login(
        User.objects.get(username="owner of ours"),
        backend="django.contrib.auth.backends.ModelBackend",
    )
    refused = strict.patch(
        f"/api/sites/{world.site.pk}", {"units": "kpa"}, content_type="application/json"
    )
    assert refused.status_code == 403
    demo = strict.post("/api/session/demo", content_type="application/json")
    assert demo.status_code == 403
    token = strict.get("/").cookies["csrftoken"].value
    allowed = strict.patch(
        f"/api/sites/{world.site.pk}",
        {"units": "kpa"},
        content_type="application/json",
        headers={"X-CSRFToken": token},
    )
    assert allowed.status_code == 200


def test_the_page_is_closed_to_foreign_content_and_answers_every_address(db: None) -> None:
    response = Client().get("/systems/anything")
    assert response.status_code == 200
    assert "default-src 'self'" in response["Content-Security-Policy"]
    assert "unsafe" not in response["Content-Security-Policy"]
    assert response["X-Frame-Options"] == "DENY"
    assert Client().get("/api/none").status_code == 404


def test_with_https_the_framework_finds_nothing_to_warn_of() -> None:
    checked = subprocess.run(
        [sys.executable, "manage.py", "check", "--deploy", "--fail-level", "WARNING"],
        cwd=Path(__file__).parents[2] / "server",
        env={k: v for k, v in os.environ.items() if not k.startswith("DJANGO_")}
        | {"ZERODIP_HTTPS": "1"},
        capture_output=True,
        text=True,
        check=False,
    )
    assert checked.returncode == 0, checked.stderr


def test_the_demo_never_touches_a_person_and_its_name_is_nobody_else_s(
    world: World, settings: Any
) -> None:
    settings.DEMO, settings.DEMO_PASSWORD = True, "only here"
    person = User.objects.create_user(username="Demo", password="theirs alone")
    with pytest.raises(CommandError, match="is a person here"):
        call_command("load_demo")
    person.refresh_from_db()
    assert person.check_password("theirs alone")
    assert caller(None).send("POST", "/api/session/demo").status_code == 404
    path = f"/api/workspaces/{world.workspace.pk}/members"
    for name in ("demo", " Demo-2 "):
        body = {"username": name, "name": "", "role": "viewer"}
        joined = world["owner"].send("POST", path, body).json()["username"]
        assert joined == f"{name.strip()}@{world.workspace.handle}"
        with pytest.raises(CommandError, match="kept for the demo"):
            call_command("add_owner", name, "Mine")


def test_a_visitor_of_the_demo_has_neither_members_nor_a_password(db: None, settings: Any) -> None:
    settings.DEMO, settings.DEMO_PASSWORD = True, "only here"
    call_command("load_demo")
    browser = caller(None)
    browser.send("POST", "/api/session/demo")
    workspace = Workspace.objects.get().pk
    body = {"username": "mine", "name": "", "role": "owner"}
    assert browser.send("POST", f"/api/workspaces/{workspace}/members", body).status_code == 403
    change = {"old": "only here", "new": "something else entirely"}
    assert browser.send("PUT", "/api/password", change).status_code == 403
    assert User.objects.get(username="demo").check_password("only here")
