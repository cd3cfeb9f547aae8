"""Visits: kept entry by entry, safe to repeat, never overwriting unseen, corrected and never
erased."""

import io
import uuid
from datetime import datetime, timedelta
from typing import Any

import pytest
from django.core.management import call_command
from django.utils import timezone
from PIL import Image

from practice.selectors import stored_practice
from sites.models import System
from sites.services import create_system
from tests.core.systems import file
from visits.models import Entry, NextCheck, Visit
from visits.next_checks import trends_of
from zerodip.fileformat.document import read_document
from zerodip.units import PSI

from .conftest import World


def picture(
    kind: str = "PNG", shade: int = 20, size: tuple[int, int] = (40, 20), **noted: Any
) -> bytes:
    """A small picture, with what a camera notes."""
    into = io.BytesIO()
    Image.new("RGB", size, (shade, 110, 105)).save(into, kind, **noted)
    return into.getvalue()


PNG = picture()


def opened(world: World, who: str = "technician") -> str:
    answer = world[who].send("PUT", f"/api/systems/{world.system.pk}/visits/{uuid.uuid4()}")
    assert answer.status_code == 200, answer.content
    return str(answer.json()["id"])


def add(
    world: World, visit: str, slot: str, value: Any, who: str = "technician", **more: Any
) -> Any:
    id = more.pop("id", None) or str(uuid.uuid4())
    return world[who].send(
        "PUT", f"/api/visits/{visit}/entries/{id}", {"slot": slot, "value": value, **more}
    )


def seen(low: float, high: float, first: float = 0.0, second: float = 0.0) -> dict[str, float]:
    return {
        "first": first,
        "second": second,
        "cut_in_gauge_pa": low * PSI,
        "cut_out_gauge_pa": high * PSI,
    }


def test_a_visit_is_opened_once_and_found_where_it_stood(world: World) -> None:
    visit = opened(world)
    assert opened(world, "owner") == visit
    assert add(world, visit, "place", "set").status_code == 200
    found = world["viewer"].get(f"/api/visits/{visit}").json()
    assert found["view"]["place"] == "set"
    assert found["open"]
    assert not found["may_change"]
    rows = world["viewer"].get(f"/api/systems/{world.system.pk}/visits").json()
    assert [(row["id"], row["open"], row["place"]) for row in rows] == [(visit, True, "set")]


def test_the_same_entry_again_changes_nothing(world: World) -> None:
    visit, id = opened(world), str(uuid.uuid4())
    first = add(world, visit, "try", seen(33, 51), id=id)
    again = add(world, visit, "try", seen(33, 51), id=id)
    assert first.json()["entries"] == again.json()["entries"]
    assert Entry.objects.count() == 1


def test_the_visit_is_told_with_the_last_of_many_records_only(world: World) -> None:
    visit, id = opened(world), str(uuid.uuid4())
    path = f"/api/visits/{visit}/entries/{id}?more=true"
    body = {"slot": "found.corrosion", "value": False}
    for _ in range(2):
        answer = world["technician"].send("PUT", path, body)
        assert (answer.status_code, answer.content) == (204, b"")
    assert world["technician"].send("PUT", path, {**body, "value": 7}).status_code == 409
    told = add(world, visit, "found.leaks", True).json()["entries"]
    assert [entry["slot"] for entry in told] == ["found.corrosion", "found.leaks"]


def test_a_correction_supersedes_and_both_stay_on_record(world: World) -> None:
    visit = opened(world)
    wrong = add(world, visit, "found.cut_in", 53 * PSI).json()["entries"][0]["id"]
    right = add(world, visit, "found.cut_in", 33 * PSI, supersedes=wrong).json()
    field = next(f for f in right["view"]["watch"]["read"] if f["slot"] == "found.cut_in")
    assert field["value"] == pytest.approx(33 * PSI)
    assert [entry["value"] for entry in right["entries"]] == pytest.approx([53 * PSI, 33 * PSI])
    assert right["entries"][1]["supersedes"] == wrong


def test_the_second_of_two_people_gets_both_values(world: World) -> None:
    visit = opened(world)
    assert add(world, visit, "found.cut_in", 33 * PSI, who="owner").status_code == 200
    late = add(world, visit, "found.cut_in", 35 * PSI)
    assert late.status_code == 409
    current = late.json()["current"]
    assert current["value"] == pytest.approx(33 * PSI)
    assert current["yours"] == pytest.approx(35 * PSI)
    assert current["by"] == "owner of ours"
    assert (
        add(world, visit, "found.cut_in", 35 * PSI, supersedes=current["entry"]).status_code == 200
    )
    assert add(world, visit, "found.cut_in", 35 * PSI).status_code == 200


def test_a_try_is_corrected_only_by_who_has_seen_how_it_stands(world: World) -> None:
    visit = opened(world)
    first = add(world, visit, "try", seen(30, 90)).json()["entries"][0]["id"]
    assert add(world, visit, "try", seen(33, 51), supersedes=first, who="owner").status_code == 200
    late = add(world, visit, "try", seen(34, 52), supersedes=first)
    assert late.status_code == 409
    current = late.json()["current"]
    assert current["value"]["cut_out_gauge_pa"] == pytest.approx(51 * PSI)
    assert current["yours"]["cut_out_gauge_pa"] == pytest.approx(52 * PSI)
    assert add(world, visit, "try", seen(34, 52), supersedes=current["entry"]).status_code == 200
    tries = world["viewer"].get(f"/api/visits/{visit}").json()["view"]["set"]["tries"]
    assert [t["cut_out_gauge_pa"] for t in tries] == pytest.approx([52 * PSI])
    stray = add(world, visit, "try", seen(34, 52), supersedes=str(uuid.uuid4()))
    assert [fault["path"] for fault in stray.json()["faults"]] == ["supersedes"]


def test_two_people_do_not_both_record_the_same_turns(world: World) -> None:
    visit = opened(world)
    assert add(world, visit, "try", {**seen(38, 58, 2), "after": 0}, who="owner").status_code == 200
    late = add(world, visit, "try", {**seen(38.5, 58, 2), "after": 0})
    assert late.status_code == 409
    assert late.json()["current"]["value"]["cut_in_gauge_pa"] == pytest.approx(38 * PSI)
    assert add(world, visit, "try", {**seen(40, 60, 0.5), "after": 1}).status_code == 200


def test_visits_left_open_are_listed_for_those_who_may_see_them(world: World) -> None:
    visit = opened(world)
    assert [row["id"] for row in world["viewer"].get("/api/visits").json()] == [visit]
    assert world["outsider"].get("/api/visits").json() == []
    world["owner"].send("PUT", f"/api/visits/{visit}/closed")
    assert world["viewer"].get("/api/visits").json() == []


def test_what_is_found_goes_into_the_system_s_file_for_decide(world: World) -> None:
    visit = opened(world)
    answer = add(world, visit, "found.pre_charge", 27 * PSI).json()
    assert answer["system"]["document"]["system"]["found"]["pre_charge_gauge_pa"] == pytest.approx(
        27 * PSI
    )
    assert System.objects.get(pk=world.system.pk).version == 2
    assert "Add 11 psi" in answer["view"]["air"]["says"]
    corrected = add(world, visit, "gauge.air_low", 1 * PSI).json()
    assert corrected["system"]["document"]["system"]["found"][
        "pre_charge_gauge_pa"
    ] == pytest.approx(28 * PSI)


def test_closing_locks_and_a_late_correction_stands_beside_with_its_date(world: World) -> None:
    visit = opened(world)
    add(world, visit, "found.cut_in", 53 * PSI)
    look = add(world, visit, "try", seen(33, 51)).json()["entries"][-1]
    closed = world["owner"].send("PUT", f"/api/visits/{visit}/closed").json()
    assert (closed["open"], closed["corrections"]["corrections"]) == (False, [])
    assert (
        world["owner"].send("PUT", f"/api/visits/{visit}/closed").json()["closed_at"]
        == closed["closed_at"]
    )
    for slot, value in (("safe.cover", True), ("try", seen(35, 52)), ("decided", True)):
        assert add(world, visit, slot, value).status_code == 409, slot
    photo = f"/api/visits/{visit}/photos/{uuid.uuid4()}"
    assert (
        world["technician"].generic("PUT", photo, PNG, content_type="image/png").status_code == 409
    )
    wrong = next(
        each["entry"]
        for each in closed["corrections"]["correctable"]
        if each["slot"] == "found.cut_in"
    )
    add(world, visit, "found.cut_in", 33 * PSI, supersedes=wrong)
    add(world, visit, "note", {"text": "read the wrong gauge"})
    late = add(world, visit, "try", seen(33, 50), supersedes=look["id"], who="owner").json()
    told = [(c["title"], c["was"], c["now"], c["by"]) for c in late["corrections"]["corrections"]]
    assert told == [
        ("Cut-in as found", "53 psi", "33 psi", "technician of ours"),
        ("Remark", "–", "read the wrong gauge", "technician of ours"),
        (
            "Switch as left",
            "cut-in 33 psi, cut-out 51 psi",
            "cut-in 33 psi, cut-out 50 psi",
            "owner of ours",
        ),
    ]
    rows = {row["title"]: row for row in late["view"]["handover"]["rows"]}
    assert rows["Cut-in"]["found"] == pytest.approx(33 * PSI)
    trends = world["viewer"].get(f"/api/systems/{world.system.pk}/trends").json()["series"]
    assert next(s for s in trends if s["id"] == "cut_out")["points"][-1]["value"] == pytest.approx(
        50 * PSI
    )


def test_a_closed_visit_goes_by_the_file_as_it_was(world: World) -> None:
    visit = opened(world)
    add(world, visit, "found.cut_in", 33 * PSI)
    was = world["owner"].send("PUT", f"/api/visits/{visit}/closed").json()
    world.system.refresh_from_db()
    other = file()
    other["settings"]["cut_in_gauge_pa"] += 20e3
    body = {"version": world.system.version, "document": other}
    assert world["owner"].send("PUT", f"/api/systems/{world.system.pk}", body).status_code == 200
    assert world["owner"].get(f"/api/visits/{visit}").json()["view"] == was["view"]


def _past(world: World, days: int, found: float, left: float) -> str:
    """A closed visit so many days ago."""
    visit = opened(world)
    add(world, visit, "found.pre_charge", found * PSI)
    add(world, visit, "air.left", left * PSI)
    Visit.objects.filter(pk=visit).update(opened_at=timezone.now() - timedelta(days=days))
    world["technician"].send("PUT", f"/api/visits/{visit}/closed")
    return visit


def test_past_visits_tell_the_loss_and_when_to_come_again(world: World) -> None:
    past = [_past(world, 1096, 36, 38), _past(world, 731, 36.5, 38), _past(world, 365, 36.5, 38)]
    told = world["viewer"].get(f"/api/systems/{world.system.pk}/trends?units=metric").json()
    charge = told["series"][0]
    assert charge["per_year"][0] / PSI == pytest.approx(-1.5, abs=0.02)
    assert "bar lost a year" in charge["says"]
    assert [point["visit"] for point in charge["points"]] == [
        past[0],
        past[0],
        past[1],
        past[1],
        past[2],
        past[2],
    ]
    (outlook,) = world["viewer"].get("/api/next-checks").json()
    # A year would be today; its air leaves the band before that, and has done so already.
    assert outlook["due_at"] == outlook["leaves_at"]
    leaves_s = datetime.fromisoformat(outlook["leaves_at"]).timestamp()
    assert leaves_s == pytest.approx(told["leaves"]["likely_s"], abs=1)
    assert leaves_s < timezone.now().timestamp()
    assert (outlook["state"], outlook["may_be_out"], told["may_be_out"]) == ("overdue", True, True)
    assert world["outsider"].get("/api/next-checks").json() == []


def test_a_new_visit_knows_what_the_last_one_left_and_forgets_what_it_found(world: World) -> None:
    _past(world, 365, 30, 38)
    document = world["viewer"].get(f"/api/visits/{opened(world)}").json()["system"]["document"]
    found = document["system"]["found"]
    assert found["pre_charge_gauge_pa"] is None
    assert found["last_pre_charge_gauge_pa"] == pytest.approx(38 * PSI)
    assert found["last_years_ago"] == pytest.approx(1.0, abs=0.01)


def test_the_outlook_follows_the_practice(
    world: World, django_capture_on_commit_callbacks: Any
) -> None:
    world.system.document["practice"]["follows"] = "workspace"
    world.system.save()
    _past(world, 365, 36.5, 38)
    yearly = NextCheck.objects.get().due_at
    body = {
        "version": stored_practice(world.workspace.pk).version,
        "practice": {"check_school": "half_year"},
    }
    with django_capture_on_commit_callbacks(execute=True):
        assert (
            world["owner"].send("PUT", f"/api/practices/{world.workspace.pk}", body).status_code
            == 200
        )
    world.system.refresh_from_db()
    half = NextCheck.objects.get().due_at
    assert yearly - half == pytest.approx(timedelta(days=182.6), abs=timedelta(days=1))


@pytest.mark.parametrize(
    ("slot", "value", "path"),
    [
        ("try", seen(60, 40), "value.cut_in_gauge_pa"),
        ("found.cut_in", "4o", "value"),
        ("lap", {"run_s": -1}, "value.run_s"),
        ("x" * 200, 1, "slot"),
        ("drain", [[0, 1]], "value"),
        ("note", {"text": "\u0000"}, "value.text"),
    ],
)
def test_bad_records_are_refused_by_field_and_nothing_is_kept(
    world: World, slot: str, value: Any, path: str
) -> None:
    visit = opened(world)
    refused = add(world, visit, slot, value)
    assert refused.status_code == 422
    assert [fault["path"] for fault in refused.json()["faults"]] == [path]
    assert not Entry.objects.exists()


def test_an_entry_of_one_visit_is_not_found_through_another(world: World) -> None:
    visit, id = opened(world), str(uuid.uuid4())
    add(world, visit, "note", {"text": "ours"}, id=id)
    world["owner"].send("PUT", f"/api/visits/{visit}/closed")
    assert add(world, opened(world), "note", {"text": "theirs"}, id=id).status_code == 404


def test_the_demo_s_past_is_made_once_and_only_in_its_own_workspace(
    world: World, settings: Any
) -> None:
    settings.DEMO_PASSWORD = "for tests only"
    ours = create_system(world.site, read_document(file(system__name="Potting-shed well")))
    for _ in range(2):
        call_command("load_demo")
    demo = System.objects.get(name="Potting-shed well", site__workspace__name="Demo rounds")
    assert demo.visits.count() == 3
    assert demo.next_check.due_at > demo.next_check.last_at
    assert not ours.visits.exists()
    told = trends_of(demo, "us")
    assert told.learned.startswith("This switch moves about")
    assert told.series[0].per_year[0] / PSI == pytest.approx(-1.4, abs=0.1)  # type: ignore[index]


ANYTHING = [None, "x", 1e400, -1, [], [[]], {}, {"first": {}}, {"text": ["a"]}, True, 10**400]


@pytest.mark.parametrize(
    "slot", ["try", "set.turned", "lap", "drain", "found.cut_in", "safe.power_off", "place", "note"]
)
def test_whatever_is_sent_is_kept_or_refused_and_the_visit_still_opens(
    world: World, slot: str
) -> None:
    visit = opened(world)
    for value in ANYTHING:
        before = Entry.objects.count()
        answer = add(world, visit, slot, value)
        assert answer.status_code in (200, 400, 409, 422), (value, answer.content)
        if answer.status_code == 422:
            assert all(fault["message"] for fault in answer.json()["faults"])
            assert Entry.objects.count() == before
    assert world["viewer"].get(f"/api/visits/{visit}").status_code == 200


def test_a_loss_of_almost_nothing_gives_no_date_that_a_calendar_cannot_hold(world: World) -> None:
    _past(world, 731, 38, 38)
    _past(world, 365, 37.9999, 38)
    assert NextCheck.objects.get().leaves_at is None
    assert world["viewer"].get("/api/next-checks").status_code == 200


def test_a_reading_that_was_misread_may_be_emptied_again(world: World) -> None:
    visit = opened(world)
    wrong = add(world, visit, "found.pre_charge", 12 * PSI).json()["entries"][0]["id"]
    answer = add(world, visit, "found.pre_charge", None, supersedes=wrong).json()
    assert answer["system"]["document"]["system"]["found"]["pre_charge_gauge_pa"] is None
    assert (
        next(f for f in answer["view"]["read"] if f["slot"] == "found.pre_charge")["value"] is None
    )


def test_a_visit_says_when_to_come_again_by_its_school_and_the_loss_so_far(world: World) -> None:
    world.system.document["practice"]["check_school"] = "measured"
    world.system.save()
    _past(world, 731, 36, 38)
    visit = opened(world)
    add(
        world, visit, "found.pre_charge", 32 * PSI
    )  # 6 psi in two years: 2 psi are lost in eight months
    add(world, visit, "air.left", 38 * PSI)
    told = world["viewer"].get(f"/api/visits/{visit}/trends").json()
    at = Visit.objects.get(pk=visit).opened_at.timestamp()
    assert (told["leaves"]["likely_s"] - at) / 86400 < 2 / 3 * 365.25
    assert told["due_by"] == "Before its air leaves the band"
    assert told["due_s"] == told["leaves"]["likely_s"]
