"""Signing in and out, the demo, too many tries, the page's token, the headers."""

from typing import Any

import pytest
from django.core.management import call_command
from django.test import Client

from accounts.models import User

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
    assert browser.get("/api/session").json() == {"signed_in": False, "name": "", "demo": False}
    opened = browser.send("POST", "/api/session", {"username": name, "password": PASSWORD})
    assert opened.json() == {"signed_in": True, "name": name, "demo": False}
    assert browser.get("/api/rounds").status_code == 200
    assert browser.send("DELETE", "/api/session").status_code == 204
    assert browser.get("/api/rounds").status_code == 401


def test_a_wrong_password_is_refused_and_too_many_are_locked_out(
    world: World, settings: Any
) -> None:
    settings.AXES_FAILURE_LIMIT = 3
    give_password("owner of ours")
    browser = caller(None)
    tries = [
        browser.send("POST", "/api/session", {"username": "owner of ours", "password": "no"})
        for _ in range(4)
    ]
    assert [r.status_code for r in tries] == [401, 401, 429, 429]
    right = browser.send(
        "POST", "/api/session", {"username": "owner of ours", "password": PASSWORD}
    )
    assert right.status_code == 429


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
    assert strict.post("/api/session/demo").status_code == 403
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
