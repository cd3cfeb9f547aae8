"""What nobody sends by mistake: refused by field, in problem+json, and never a fault of ours."""

import json
import random
import uuid
from typing import Any

import pytest

from sites.models import Decision
from tests.core.systems import file

from .conftest import World
from .test_exchange import exported

DEEP: Any = "x"
for _ in range(60):
    DEEP = {"a": [DEEP]}
ODD: dict[str, Any] = {
    "surrogate": "a\ud800b",
    "nul": "a\x00b",
    "deep": DEEP,
    "wide": list(range(30_000)),
    "huge": 10**400,
    "large": 1e300,
    "keys": {f"k{n}": 1 for n in range(25_000)},
    "odd key": {"\ud800": 1, "a\x00": 2},
}


def _targets(world: World) -> list[tuple[str, str, dict[str, Any]]]:
    workspace, system = world.workspace.pk, world.system.pk
    return [
        ("POST", "/api/decide", {"document": file(), "draw_m3_s": 1e-4}),
        ("POST", "/api/propose", {"document": file()}),
        ("PUT", f"/api/systems/{system}", {"version": 1, "document": file()}),
        ("PUT", f"/api/workspaces/{workspace}/sites/{uuid.uuid4()}", {"name": "South"}),
        (
            "PUT",
            f"/api/workspaces/{workspace}/gauges/{uuid.uuid4()}",
            {"version": 0, "gauge": {"name": "A"}, "checked_on": None, "retired": False},
        ),
        ("POST", f"/api/workspaces/{workspace}/members", {"username": "a", "role": "viewer"}),
        ("PUT", f"/api/practices/{workspace}", {"version": 1, "practice": {}, "sizes_m3": None}),
    ]


def _somewhere(body: dict[str, Any], odd: Any, rng: random.Random) -> dict[str, Any]:
    """The body with an odd value in place of one of its own."""
    made = json.loads(json.dumps(body))
    at, name = made, rng.choice(list(made))
    while isinstance(at[name], dict) and at[name] and rng.random() < 0.7:
        at = at[name]
        name = rng.choice(list(at))
    at[name] = odd
    return made


@pytest.mark.parametrize("kind", ODD)
def test_odd_values_anywhere_in_a_body_are_refused_by_field(kind: str, world: World) -> None:
    rng = random.Random(kind)
    for method, path, body in _targets(world):
        for _ in range(6):
            raw = json.dumps(_somewhere(body, ODD[kind], rng))
            kind_said = rng.choice(("application/json", "text/plain", ""))
            answer = world["owner"].generic(method, path, raw, content_type=kind_said)
            assert answer.status_code == 422, (path, raw[:200], answer.content[:200])
            assert answer["Content-Type"] == "application/problem+json"
            assert answer.json()["faults"]
            answer.content.decode()


@pytest.mark.parametrize(
    "raw", ["[" * 100_000, '{"a":' * 50_000, "\ud800".encode("utf-8", "surrogatepass"), b"{"]
)
def test_text_that_is_no_json_says_where(raw: Any, world: World) -> None:
    answer = world["owner"].generic("POST", "/api/decide", raw, content_type="application/json")
    assert answer.status_code == 422, answer.content
    assert answer.json()["faults"][0]["message"]


@pytest.mark.parametrize("path", ["/api/rounds?units=%00", "/api/rounds/%00", "/nul%00", "/?a=%00"])
def test_odd_letters_in_an_address_are_refused(path: str, world: World) -> None:
    assert world["owner"].get(path).status_code == 422


def test_a_form_is_refused(world: World) -> None:
    for kind in ("multipart/form-data; boundary=x", "application/x-www-form-urlencoded"):
        answer = world["owner"].generic("POST", "/api/decide", "a=1", content_type=kind)
        assert answer.status_code == 415


def test_private_answers_are_nobody_s_to_keep(world: World) -> None:
    assert world["owner"].get("/api/rounds")["Cache-Control"] == "no-store"
    assert "no-store" in world["anonymous"].get("/papers/x")["Cache-Control"]


def test_another_host_s_name_and_too_large_a_body_are_problems_too(world: World) -> None:
    other = world["owner"].get("/api/rounds", headers={"host": "elsewhere.example"})
    large = world["owner"].send("POST", "/api/decide", raw='"' + "x" * 1_100_000 + '"')
    assert (other.status_code, large.status_code) == (400, 413)
    assert {each["Content-Type"] for each in (other, large)} == {"application/problem+json"}


def test_numbers_of_any_size_on_record_never_break_an_archive(world: World) -> None:
    """What older versions let in goes out whole, or is refused; half a body is never sent."""
    Decision.objects.create(
        id=uuid.uuid4(),
        system=world.system,
        document=file(),
        figures={"run": 10**30},
        verdict="pass",
    )
    answer = world["owner"].get(f"/api/archive/workspaces/{world.workspace.pk}.json")
    assert answer.status_code == 200
    json.loads(b"".join(answer.streaming_content))


@pytest.mark.parametrize("number", [10**400, 1e200, 10**16])
def test_numbers_without_bounds_are_refused_in_an_archive(number: Any, world: World) -> None:
    archive = exported(world)
    archive["sites"][0]["systems"][0]["decisions"] = [{"figures": {"run": number}}]
    path = f"/api/workspaces/{world.workspace.pk}/imports/{uuid.uuid4()}?name=a.json"
    answer = world["owner"].generic(
        "PUT", path, json.dumps(archive), content_type="application/json"
    )
    assert answer.status_code == 422
    assert "number" in answer.json()["faults"][0]["message"]


@pytest.mark.parametrize("body", [ODD["odd key"], {"\ud800": 1}, "\ud800", {"format": "\ud800"}])
def test_halves_of_letters_in_an_archive_are_refused_in_words(body: Any, world: World) -> None:
    path = f"/api/workspaces/{world.workspace.pk}/imports/{uuid.uuid4()}?name=a.json"
    for raw in (body, {**exported(world), "sites": [body]}):
        answer = world["owner"].generic(
            "PUT", path, json.dumps(raw), content_type="application/json"
        )
        assert answer.status_code == 422
        assert answer.json()["faults"]
