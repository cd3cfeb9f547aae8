"""Trouble over the API: asked without being kept, kept with a visit, told on its papers."""

import json
from typing import Any

import pytest

from accounts.models import Workspace
from tests.core.systems import file
from visits.experience import met_in
from visits.models import Outcome, Visit
from zerodip.units import PSI

from .conftest import World
from .test_documents import words
from .test_exchange import exported, imported, taken
from .test_visits import add, opened


def ask(world: World, who: str = "viewer", **body: Any) -> Any:
    return world[who].send("POST", "/api/trouble", body)


def trouble(world: World, visit: str) -> Any:
    return json.loads(world["viewer"].get(f"/api/visits/{visit}").content)["view"]["trouble"]


def test_a_system_s_file_or_its_kind_is_diagnosed_and_nothing_is_kept(world: World) -> None:
    seen = [{"item": "clicks", "value": True}, {"item": "run", "value": 2.5}]
    of_file = ask(world, system_file=file(), evidence=seen).json()
    assert of_file["suspects"][0]["id"] == "burst"
    assert of_file["check"]["items"][0]["asks"]
    of_kind = ask(world, kind="tankless", evidence=[{"item": "chatter", "value": True}]).json()
    assert of_kind["suspects"][0]["id"] == "outlet_small"
    assert "saw" not in {entry["slot"] for entry in _entries(world)}


def _entries(world: World) -> list[dict[str, Any]]:
    visit = opened(world)
    return list(json.loads(world["viewer"].get(f"/api/visits/{visit}").content)["entries"])


@pytest.mark.parametrize(
    ("body", "path"),
    [
        ({"kind": "boat", "evidence": []}, "kind"),
        ({"kind": "cistern", "evidence": [{"item": "run", "value": 1e9}]}, "evidence.0.value"),
        ({"kind": "cistern", "evidence": [{"item": "chatter", "value": True}]}, "evidence.0.item"),
        ({"kind": "cistern", "evidence": [{"item": "wet", "value": 1}]}, "evidence.0.value"),
        ({"kind": "cistern", "condition": "wet"}, "condition"),
        ({"kind": "cistern", "impossible": [3]}, "impossible"),
        ({"system_file": {"format": "other"}}, "format"),
    ],
)
def test_what_cannot_be_is_refused_by_field(world: World, body: Any, path: str) -> None:
    answer = ask(world, **body)
    assert answer.status_code == 422, answer.content
    assert path in [fault["path"] for fault in answer.json()["faults"]]


def test_answers_are_kept_with_the_visit_and_the_last_one_counts(world: World) -> None:
    visit = opened(world)
    assert trouble(world, visit) is None
    assert add(world, visit, "complaint", "clicks").status_code == 200
    for says in ("yes", "no"):
        assert add(world, visit, "saw", {"item": "water_at_valve", "says": says}).status_code == 200
    told = trouble(world, visit)
    assert "Water at the air valve: air or nothing" in [each["says"] for each in told["evidence"]]
    assert told["suspects"][0]["id"] != "burst"
    first = told["check"]["items"][0]["item"]
    assert add(world, visit, "saw", {"item": first, "says": "cannot"}).status_code == 200
    assert trouble(world, visit)["check"]["items"][0]["item"] != first
    for wrong in ({"item": "luck", "says": "yes"}, {"item": "run", "says": "figure", "value": -1}):
        assert add(world, visit, "saw", wrong).status_code == 422


def test_symptom_cause_and_remedy_stand_in_the_report_and_travel_with_the_archive(
    world: World,
) -> None:
    visit = opened(world)
    for slot, value in (
        ("complaint", "clicks"),
        ("found.pre_charge", 8 * PSI),
        ("saw", {"item": "bubbles", "says": "yes"}),
        ("was", "air_valve"),
    ):
        assert add(world, visit, slot, value).status_code == 200, slot
    told = words(world["viewer"].get(f"/api/visits/{visit}/report.pdf").content)
    assert "Symptom Clicks on and off at every tap" in told
    assert "Cause Air valve or cap leaks (confirmed)" in told
    assert "Remedy Drain, set the pre-charge" in told
    taken(world, imported(world, exported(world)))
    slots = [entry["slot"] for entry in _entries(world)]
    assert {"saw", "was"} <= set(slots)


def test_a_call_that_was_nothing_is_told_as_confirmed(world: World) -> None:
    visit = opened(world)
    assert add(world, visit, "complaint", "clicks").status_code == 200
    assert add(world, visit, "was", "healthy").status_code == 200
    told = words(world["viewer"].get(f"/api/visits/{visit}/report.pdf").content)
    assert "Nothing is wrong: it is sized or used like this (confirmed)" in told
    assert "Cause Not confirmed" not in told


def _closed(world: World, was: str) -> str:
    visit = opened(world)
    assert add(world, visit, "complaint", "clicks").status_code == 200
    assert add(world, visit, "was", was).status_code == 200
    assert world["owner"].send("PUT", f"/api/visits/{visit}/closed").status_code == 200
    return visit


def test_a_closed_visit_shows_what_was_expected_when_it_was_closed(world: World) -> None:
    first = _closed(world, "nipple")
    before = trouble(world, first)
    for _ in range(4):
        _closed(world, "nipple")
    assert trouble(world, first) == before
    last = trouble(world, _closed(world, "nipple"))

    def nipple(of: Any) -> float:
        return sum(each["probability"] for each in of["suspects"] if each["id"] == "nipple")

    assert nipple(last) > nipple(before)


def test_what_was_met_is_counted_in_one_query_by_kind_and_workspace(
    world: World, django_assert_num_queries: Any
) -> None:
    _closed(world, "nipple")
    workspace, kind = world.workspace.pk, world.system.document["system"]["kind"]
    with django_assert_num_queries(1):
        assert met_in(workspace, kind) == {"nipple": 1}
    assert met_in(workspace, "compressor") == {}
    other = Workspace.objects.exclude(pk=workspace).get()
    assert met_in(other.pk, kind) == {}
    assert met_in(workspace, kind, before=Outcome.objects.get().at) == {}


def test_outcomes_out_of_an_archive_are_counted_without_a_place(world: World) -> None:
    _closed(world, "nipple")
    archive = exported(world)
    Visit.objects.all().delete()
    assert not Outcome.objects.exists()
    taken(world, imported(world, archive))
    (kept,) = Outcome.objects.all()
    assert (kept.cause, kept.place, kept.workspace) == ("nipple", None, world.workspace)
    (kind,) = met(world)["kinds"]
    assert (kind["confirmed"], kind["judged"]) == (1, 0)


def met(world: World, who: str = "viewer") -> Any:
    answer = world[who].get(f"/api/workspaces/{world.workspace.pk}/experience")
    return json.loads(answer.content)


def nipple(world: World, who: str, **body: Any) -> float:
    told = ask(world, who, evidence=[{"item": "wander", "value": True}], **body).json()
    return sum(each["probability"] for each in told["suspects"] if each["id"] == "nipple")


def test_confirmed_outcomes_are_counted_shift_what_is_expected_and_can_be_set_back(
    world: World,
) -> None:
    of = {"system": str(world.system.pk), "system_file": file()}
    before = nipple(world, "viewer", **of)
    assert met(world)["kinds"] == []
    for _ in range(3):
        _closed(world, "nipple")
    _closed(world, "air_low")
    (kind,) = met(world)["kinds"]
    assert (kind["confirmed"], kind["counted"], kind["judged"]) == (4, 4, 4)
    assert kind["first"] <= kind["among_three"] <= 4
    assert kind["causes"][0]["id"] == "nipple"
    assert kind["causes"][0]["now"] > kind["causes"][0]["usual"]
    after = nipple(world, "viewer", **of)
    assert after > before
    # Another workspace neither sees nor feels it.
    assert nipple(world, "outsider", system_file=file()) == pytest.approx(before)
    assert ask(world, "outsider", **of).status_code == 404
    url = f"/api/workspaces/{world.workspace.pk}/experience"
    assert world["technician"].send("DELETE", url).status_code == 200
    (kind,) = met(world)["kinds"]
    assert (kind["confirmed"], kind["counted"], kind["causes"]) == (4, 0, [])
    assert nipple(world, "viewer", **of) == pytest.approx(before)
    _closed(world, "nipple")
    assert met(world)["kinds"][0]["counted"] == 1
