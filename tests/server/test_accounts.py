"""Accounts: what is tried too often, the second factor, sessions, names."""

import time
from datetime import timedelta
from typing import Any

import pytest
from django.test import RequestFactory
from django.utils import timezone
from django_otp.oath import TOTP
from django_otp.plugins.otp_totp.models import TOTPDevice

from accounts.models import Attempt, Membership, Role, User, Workspace
from common.addresses import network_of

from .conftest import Caller, World, caller
from .test_session import PASSWORD, give_password

OWNER = "owner of ours"


@pytest.fixture(autouse=True)
def quick(settings: Any) -> None:
    """Hundreds of wrong passwords are tried here; how dear each is, is not the question."""
    settings.PASSWORD_HASHERS = ["django.contrib.auth.hashers.MD5PasswordHasher"]


def sign_in(browser: Caller, name: str, password: str, address: str = "192.0.2.1") -> Any:
    browser.defaults["REMOTE_ADDR"] = address
    return browser.send("POST", "/api/session", {"username": name, "password": password})


def code_of(user: User, ahead: int = 0, used: bool = False) -> str:
    """The code that an app shows now (RFC 6238), or some steps ahead; or that it showed when one
    was taken last."""
    device = TOTPDevice.objects.get(user=user)
    app = TOTP(device.bin_key, device.step, device.t0, device.digits)
    now = device.t0 + device.last_t * device.step if used else time.time()
    app.time = now + ahead * device.step
    return f"{app.token():06d}"


def enrolled(world: World, who: str) -> tuple[User, list[str]]:
    """Somebody of ours with a second factor; their recovery codes."""
    give_password(f"{who} of ours")
    user = User.objects.get(username=f"{who} of ours")
    world[who].force_login(user)
    begun = world[who].send("POST", "/api/account/second-factor", {"password": PASSWORD})
    assert begun.status_code == 200, begun.content
    assert begun.json()["picture"].startswith("data:image/svg+xml")
    done = world[who].send("PUT", "/api/account/second-factor", {"code": code_of(user)})
    assert done.status_code == 200, done.content
    return user, done.json()["codes"]


def test_wrong_passwords_lock_a_name_at_an_address_for_a_quarter_of_an_hour(world: World) -> None:
    give_password(OWNER)
    answers = [sign_in(caller(None), OWNER, "no").status_code for _ in range(10)]
    assert answers == [401] * 8 + [429] * 2
    assert sign_in(caller(None), OWNER, PASSWORD).status_code == 429
    assert sign_in(caller(None), OWNER, PASSWORD, "192.0.2.2").status_code == 200
    Attempt.objects.update(at=timezone.now() - timedelta(minutes=16))
    assert sign_in(caller(None), OWNER, PASSWORD).status_code == 200


def test_an_address_that_tries_many_names_is_locked_and_others_are_not(world: World) -> None:
    answers = [sign_in(caller(None), f"name {k}", "no").status_code for k in range(70)]
    assert answers == [401] * 60 + [429] * 10
    give_password(OWNER)
    assert sign_in(caller(None), OWNER, PASSWORD).status_code == 429
    assert sign_in(caller(None), OWNER, PASSWORD, "192.0.2.2").status_code == 200


def test_many_addresses_lock_a_name_but_not_where_that_person_has_signed_in_before(
    world: World,
) -> None:
    give_password(OWNER)
    theirs = caller(None)
    assert sign_in(theirs, OWNER, PASSWORD, "198.51.100.1").status_code == 200
    theirs.send("DELETE", "/api/session")
    answers = [sign_in(caller(None), OWNER, "no", f"203.0.113.{k}").status_code for k in range(50)]
    assert answers == [401] * 40 + [429] * 10
    assert sign_in(caller(None), OWNER, PASSWORD, "203.0.113.99").status_code == 429
    assert sign_in(theirs, OWNER, PASSWORD, "203.0.113.7").status_code == 200
    # The cookie that tells so is no way round the limit, nor good for anybody else.
    theirs.send("DELETE", "/api/session")
    tries = [sign_in(theirs, OWNER, "no", f"192.0.2.{k}").status_code for k in range(12)]
    assert tries == [401] * 8 + [429] * 4
    give_password("viewer of ours")
    for k in range(41):
        sign_in(caller(None), "viewer of ours", "no", f"203.0.113.{k}")
    assert sign_in(theirs, "viewer of ours", PASSWORD, "192.0.2.50").status_code == 429
    # Nor for longer than the password that it was given with.
    for k in range(41):
        sign_in(caller(None), OWNER, "no", f"203.0.113.{k + 100}")
    user = User.objects.get(username=OWNER)
    user.set_password("another long one")
    user.save()
    assert sign_in(theirs, OWNER, "another long one", "192.0.2.60").status_code == 429


def test_a_new_password_from_an_owner_ends_the_counting_of_a_name(world: World) -> None:
    for k in range(41):
        sign_in(caller(None), "viewer of ours", "no", f"203.0.113.{k}")
    user = User.objects.get(username="viewer of ours")
    path = f"/api/workspaces/{world.workspace.pk}/members/{user.pk}/password"
    password = world["owner"].send("POST", path).json()["password"]
    assert sign_in(caller(None), user.username, password, "192.0.2.9").status_code == 200


def test_changing_the_password_is_limited_and_ends_other_sessions(world: World) -> None:
    give_password(OWNER)
    here, elsewhere = caller(None), caller(None)
    for each in (here, elsewhere):
        assert sign_in(each, OWNER, PASSWORD).status_code == 200
    right = {"old": PASSWORD, "new": "quite another long one"}
    assert here.send("PUT", "/api/password", right).status_code == 204
    assert here.get("/api/rounds").status_code == 200
    assert elsewhere.get("/api/rounds").status_code == 401
    wrong = {"old": "no", "new": "quite another long one"}
    assert [here.send("PUT", "/api/password", wrong).status_code for _ in range(9)] == [
        *[422] * 8,
        429,
    ]


@pytest.mark.parametrize(
    ("meta", "expected"),
    [
        ({"REMOTE_ADDR": "192.0.2.7", "HTTP_X_REAL_IP": "10.0.0.1"}, "192.0.2.7"),
        ({"REMOTE_ADDR": "", "HTTP_X_REAL_IP": "192.0.2.8"}, "192.0.2.8"),
        ({"REMOTE_ADDR": "2001:db8:1:2:3:4:5:6"}, "2001:db8:1:2::"),
        ({"REMOTE_ADDR": "::ffff:192.0.2.9"}, "192.0.2.9"),
        ({"REMOTE_ADDR": "", "HTTP_X_REAL_IP": "nonsense"}, ""),
    ],
)
def test_whose_address_counts(meta: dict[str, str], expected: str) -> None:
    assert network_of(RequestFactory().get("/", **meta)) == expected


def test_a_second_factor_is_asked_for_and_each_code_serves_once(world: World) -> None:
    user, recovery = enrolled(world, "technician")
    browser = caller(None)
    half = sign_in(browser, user.username, PASSWORD).json()
    assert (half["signed_in"], half["name"], half["needs"]) == (False, "", "code")
    assert browser.get("/api/rounds").status_code == 401
    assert browser.get("/api/session").json()["needs"] == "code"
    used = browser.send("POST", "/api/session/code", {"code": code_of(user, used=True)})
    assert used.status_code == 401  # it was shown when it was switched on
    assert browser.send("POST", "/api/session/code", {"code": code_of(user, 1)}).status_code == 200
    assert browser.get("/api/rounds").status_code == 200
    for status in (200, 401):  # a recovery code, as it is printed; then once more
        again = caller(None)
        sign_in(again, user.username, PASSWORD)
        got = again.send("POST", "/api/session/code", {"code": recovery[0].upper()})
        assert got.status_code == status
    account = browser.send("GET", "/api/account").json()
    assert (account["second_factor"], account["recovery_left"]) == (True, 9)


def test_codes_are_not_guessed_nor_asked_for_without_the_password(world: World) -> None:
    user, recovery = enrolled(world, "technician")
    assert caller(None).send("POST", "/api/session/code", {"code": recovery[0]}).status_code == 401
    browser = caller(None)
    sign_in(browser, user.username, PASSWORD)
    tries = [
        browser.send("POST", "/api/session/code", {"code": f"{k:06d}"}).status_code
        for k in range(10)
    ]
    assert tries == [401] * 8 + [429] * 2
    assert browser.send("POST", "/api/session/code", {"code": recovery[0]}).status_code == 429
    Attempt.objects.all().delete()
    half = dict(browser.session["half"])
    held = browser.session
    held["half"] = {**half, "at": half["at"] - 301}
    held.save()
    assert browser.send("POST", "/api/session/code", {"code": recovery[0]}).status_code == 401


def test_switching_it_off_needs_the_password(world: World) -> None:
    user, _ = enrolled(world, "technician")
    path = "/api/account/second-factor/end"
    assert world["technician"].send("POST", path, {"password": "no"}).status_code == 403
    assert world["technician"].send("POST", path, {"password": PASSWORD}).status_code == 204
    assert sign_in(caller(None), user.username, PASSWORD).json()["signed_in"] is True


def test_a_workspace_that_asks_for_it_is_closed_until_it_is_shown(world: World) -> None:
    path = f"/api/workspaces/{world.workspace.pk}/second-factor"
    alone = world["owner"].send("PUT", path, {"required": True})
    assert alone.status_code == 409  # would lock themselves out
    enrolled(world, "owner")
    assert world["owner"].send("PUT", path, {"required": True}).status_code == 204
    assert world["owner"].get(f"/api/systems/{world.system.pk}").status_code == 200
    for who in ("technician", "viewer"):
        assert world[who].get(f"/api/systems/{world.system.pk}").status_code == 404
        assert world[who].get("/api/rounds").json()["sites"] == []
        assert world[who].get("/api/session").json()["needs"] == "enrol"
    user, _ = enrolled(world, "technician")
    assert world["technician"].get("/api/session").json()["needs"] == ""
    assert world["technician"].get(f"/api/systems/{world.system.pk}").status_code == 200
    members = world["owner"].get("/api/workspaces").json()[0]["members"]
    assert {m["role"]: m["second_factor"] for m in members} == {
        "owner": True,
        "technician": True,
        "viewer": False,
    }
    seen = world["technician"].get("/api/workspaces").json()[0]["members"]
    assert not any(each["second_factor"] for each in seen)
    of = f"/api/workspaces/{world.workspace.pk}/members/{user.pk}/second-factor"
    assert world["technician"].send("DELETE", of).status_code == 403
    assert world["owner"].send("DELETE", of).status_code == 204
    assert world["technician"].get("/api/rounds").status_code == 401  # signed out by it
    assert sign_in(caller(None), user.username, PASSWORD).json()["needs"] == "enrol"


def test_sessions_are_listed_and_ended(world: World) -> None:
    give_password(OWNER)
    here, there, third = caller(None), caller(None), caller(None)
    there.defaults["HTTP_USER_AGENT"] = "Mozilla/5.0 (Linux; Android 15) Chrome/150 Mobile Safari/1"
    for each in (here, there, third):
        sign_in(each, OWNER, PASSWORD)
    listed = here.get("/api/account").json()["sessions"]
    assert [each["here"] for each in listed] == [True, False, False]
    assert {each["on"] for each in listed} == {"Unknown device", "Chrome on Android"}
    phone = next(each["id"] for each in listed if "Android" in each["on"])
    give_password("viewer of ours")
    stranger = caller(None)
    sign_in(stranger, "viewer of ours", PASSWORD)
    assert stranger.send("DELETE", f"/api/account/sessions/{phone}").status_code == 204
    assert there.get("/api/rounds").status_code == 200  # not theirs to end
    assert here.send("DELETE", f"/api/account/sessions/{phone}").status_code == 204
    assert there.get("/api/rounds").status_code == 401
    assert third.get("/api/rounds").status_code == 200
    assert here.send("DELETE", "/api/account/sessions").status_code == 204
    assert third.get("/api/rounds").status_code == 401
    assert len(here.get("/api/account").json()["sessions"]) == 1


def test_a_name_says_nothing_of_other_workspaces(world: World) -> None:
    theirs = Workspace.objects.create(name="theirs too")
    boss = User.objects.create(username="boss")
    Membership.objects.create(user=boss, workspace=theirs, role=Role.OWNER)
    body = {"username": "ida", "name": "Ida", "role": "viewer"}
    names = [
        owner.send("POST", f"/api/workspaces/{workspace.pk}/members", body).json()["username"]
        for owner, workspace in ((world["owner"], world.workspace), (caller(boss), theirs))
    ]
    assert names == [f"ida@{world.workspace.handle}", f"ida@{theirs.handle}"]
    path = f"/api/workspaces/{world.workspace.pk}/members"
    twice = world["owner"].send("POST", path, {**body, "username": "IDA"})
    assert [fault["code"] for fault in twice.json()["faults"]] == ["taken"]
    odd = world["owner"].send("POST", path, {**body, "username": f"ida@{theirs.handle}"})
    assert [fault["code"] for fault in odd.json()["faults"]] == ["letters"]
