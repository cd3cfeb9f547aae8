"""Recordings through the API: sent in parts, guessed, read, drawn, taken out, taken away."""

import io
import uuid
from datetime import timedelta
from typing import Any

import numpy as np
import polars as pl
import pyarrow.parquet as pq
import pytest
from django.utils import timezone
from procrastinate.contrib.django import app
from procrastinate.testing import InMemoryConnector

from recordings import reading, services
from recordings.models import Chunk, Level, Part, Recorder, Recording
from recordings.reading import read_now
from recordings.tasks import clear_away
from tests.lines import GPM, Plant, line_of
from visits.models import Entry
from zerodip.units import PSI

from .conftest import Caller, World

EPOCH = 1772668800.0


@pytest.fixture(autouse=True)
def _no_jobs_of_their_own() -> Any:
    """What is to be done behind the page is noted; a test does it itself."""
    with app.replace_connector(InMemoryConnector()):
        yield


def csv(head: str = "epoch,Pressure (psi)", seconds: float = 3000.0) -> bytes:
    line = line_of(Plant(pre_charge=24), [(20, 0), (seconds, 3 * GPM), (600, 0.0)])
    rows = [
        f"{EPOCH + t:.0f},{g / PSI:.2f}" for t, g in zip(line.time_s, line.gauge_pa, strict=True)
    ]
    return (head + "\n" + "\n".join(rows) + "\n").encode()


def put_part(caller: Caller, at: str, number: int, data: bytes) -> Any:
    return caller.generic(
        "PUT", f"{at}/parts/{number}", data, content_type="application/octet-stream"
    )


def sent(world: World, data: bytes, who: str = "technician") -> str:
    """Sends a file in parts; gives the recording's address."""
    id = uuid.uuid4()
    body = {"name": "week.csv", "size": len(data)}
    made = world[who].send("PUT", f"/api/systems/{world.system.pk}/recordings/{id}", body)
    assert made.status_code == 200, made.content
    size = made.json()["part_size"]
    for number in reversed(range(-(-len(data) // size))):  # in any order
        part = put_part(
            world[who], f"/api/recordings/{id}", number, data[number * size : (number + 1) * size]
        )
        assert part.status_code == 200, part.content
    return f"/api/recordings/{id}"


def read(world: World, data: bytes) -> str:
    at = sent(world, data)
    guess = world["technician"].send("GET", f"{at}/guess").json()
    begun = world["technician"].send("POST", f"{at}/read", {"layout": guess["layout"]})
    assert begun.json()["state"] == "reading"
    read_now(uuid.UUID(at.split("/")[-1]), 1)
    return at


def test_from_parts_to_what_it_says(world: World, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(services, "PART_SIZE", 20_000)
    data = csv()
    at = read(world, data)
    told = world["viewer"].send("GET", f"{at}?units=metric").json()
    assert told["state"] == "read"
    assert told["samples"] == data.count(b"\n") - 1
    assert told["told"]["points"]["cut_in"]["usual"] == pytest.approx(40 * PSI, abs=0.2 * PSI)
    assert any(each["id"] in ("line.short", "line.brief") for each in told["told"]["says"])
    assert told["told"]["plates"]["pre_charge_gauge_pa"] is not None  # by the system's own file
    assert not Part.objects.exists()
    window = f"from_s={told['first_s']}&until_s={told['last_s']}"
    cycles = world["viewer"].send("GET", f"{at}/cycles?{window}").json()
    assert cycles["count"] == told["told"]["points"]["cut_in"]["cycles"]
    line = world["viewer"].send("GET", f"{at}/line?{window}&points=100").json()
    assert 50 <= len(line["time_s"]) <= 200
    assert min(line["least_pa"]) < 40 * PSI < 60 * PSI < max(line["most_pa"])
    near = (
        world["viewer"]
        .send("GET", f"{at}/line?from_s={EPOCH + 100}&until_s={EPOCH + 160}&points=500")
        .json()
    )
    assert near["time_s"] == pytest.approx(list(EPOCH + np.arange(100.0, 161.0)))


def test_taken_out_it_is_what_was_sent(world: World) -> None:
    data = csv()
    at = read(world, data)
    wanted = pl.read_csv(io.BytesIO(data))
    answer = world["viewer"].send("GET", f"{at}/samples.csv")
    got = pl.read_csv(io.BytesIO(b"".join(answer.streaming_content)))
    assert (got["gauge_pa"] / PSI).round(2).to_list() == wanted["Pressure (psi)"].to_list()
    answer = world["viewer"].send("GET", f"{at}/samples.parquet")
    table = pq.read_table(io.BytesIO(b"".join(answer.streaming_content)))
    assert table["time_s"].to_pylist() == got["time_s"].to_list()
    assert table["gauge_pa"].to_pylist() == pytest.approx(got["gauge_pa"].to_list())


def test_what_is_no_recording_leaves_nothing(world: World) -> None:
    at = sent(world, b"\x89PNG" + b"\0" * 400)
    answer = world["technician"].send("GET", f"{at}/guess")
    assert answer.status_code == 422
    assert "picture" in answer.json()["faults"][0]["message"]
    assert not Recording.objects.exists()
    assert not Part.objects.exists()


def test_what_breaks_off_within_is_refused_and_leaves_no_sample(world: World) -> None:
    """The head looks well; the rest is another table."""
    data = csv() + b"x" * (17 << 20)
    at = sent(world, data)
    guess = world["technician"].send("GET", f"{at}/guess").json()
    world["technician"].send("POST", f"{at}/read", {"layout": guess["layout"]})
    read_now(uuid.UUID(at.split("/")[-1]), 1)
    told = world["technician"].send("GET", at).json()
    assert told["state"] in ("refused", "read")
    if told["state"] == "refused":
        assert told["problem"]
        assert not Chunk.objects.exists()
    assert not Part.objects.exists()


def test_what_breaks_the_reading_is_told_and_leaves_no_sample(
    world: World, monkeypatch: pytest.MonkeyPatch
) -> None:
    """A recording never stays "being read"; the fault itself goes on to the worker's log."""

    def broken(*_: Any) -> None:
        raise ZeroDivisionError("made up")

    monkeypatch.setattr(reading, "as_read", broken)
    with pytest.raises(ZeroDivisionError):
        read(world, csv())
    told = world["technician"].send("GET", f"/api/recordings/{Recording.objects.get().pk}").json()
    assert told["state"] == "refused"
    assert "broke on the server" in told["problem"]
    assert not Chunk.objects.exists()


def test_a_layout_corrected_is_kept_for_the_recorder(world: World) -> None:
    data = csv("epoch,Value")
    at = sent(world, data)
    guess = world["technician"].send("GET", f"{at}/guess").json()
    assert any("No unit" in each for each in guess["doubts"])
    guess["layout"]["columns"][0]["unit"] = "kPa"
    world["technician"].send("POST", f"{at}/read", {"layout": guess["layout"]})
    again = world["technician"].send("GET", f"{sent(world, data)}/guess").json()
    assert again["layout"]["columns"][0]["unit"] == "kPa"
    assert "before" in again["doubts"][0]
    assert Recorder.objects.count() == 1


def test_a_wrong_layout_is_refused_by_field(world: World) -> None:
    at = sent(world, csv())
    layout = world["technician"].send("GET", f"{at}/guess").json()["layout"]
    layout["columns"][0]["unit"] = "gpm"
    layout["zone"] = "Nowhere/At all"
    answer = world["technician"].send("POST", f"{at}/read", {"layout": layout})
    assert answer.status_code == 422
    paths = {each["path"] for each in answer.json()["faults"]}
    assert {"layout.columns.0.unit", "layout.zone"} & paths


def test_the_same_part_twice_is_one_and_another_is_a_conflict(world: World) -> None:
    data = csv(seconds=300)
    at = sent(world, data)
    assert put_part(world["technician"], at, 0, data).status_code == 200
    other = data.replace(b"4", b"5")
    assert put_part(world["technician"], at, 0, other).status_code == 409
    assert put_part(world["technician"], at, 0, data[:-1]).status_code == 422
    assert put_part(world["technician"], at, 7, data).status_code == 422
    assert put_part(world["outsider"], at, 0, data).status_code == 404
    assert put_part(world["viewer"], at, 0, data).status_code == 403


def test_taken_away_while_it_is_read_it_leaves_nothing(world: World) -> None:
    at = sent(world, csv())
    guess = world["technician"].send("GET", f"{at}/guess").json()
    world["technician"].send("POST", f"{at}/read", {"layout": guess["layout"]})
    id = uuid.UUID(at.split("/")[-1])
    Recording.objects.filter(pk=id).update(run=2)  # begun anew by somebody: this one gives way
    read_now(id, 1)
    assert not Chunk.objects.exists()
    assert world["technician"].send("DELETE", at).status_code == 204
    assert not Recording.objects.exists()
    assert not Level.objects.exists()


def test_begun_again_after_it_was_cut_short_it_is_read_once(world: World) -> None:
    at = sent(world, csv())
    guess = world["technician"].send("GET", f"{at}/guess").json()
    world["technician"].send("POST", f"{at}/read", {"layout": guess["layout"]})
    id = uuid.UUID(at.split("/")[-1])
    Chunk.objects.create(
        of_id=id, number=0, count=1, first_s=0, last_s=0, time=b"", gauge=b""
    )  # of a worker that was stopped
    read_now(id, 1)
    assert sum(Chunk.objects.values_list("count", flat=True)) == Recording.objects.get().samples
    read_now(id, 1)  # the same job once more
    assert Chunk.objects.count() == 1


def test_taken_into_a_visit_they_are_its_readings(world: World) -> None:
    at = read(world, csv())
    visit = uuid.uuid4()
    world["technician"].send("PUT", f"/api/systems/{world.system.pk}/visits/{visit}")
    mine = {"slot": "found.cut_in", "value": 41 * PSI}
    world["technician"].send("PUT", f"/api/visits/{visit}/entries/{uuid.uuid4()}", mine)
    told = world["technician"].send("GET", at).json()
    assert {"found.cut_in", "found.cut_out", "found.run"} <= {o["slot"] for o in told["offers"]}
    for _ in range(2):  # the same again is the same
        answer = world["technician"].send("PUT", f"{at}/readings/{visit}").json()
        assert answer["left"] == ["Cut-in"]  # somebody read it already
        assert "Cut-out" in answer["taken"]
    entries = {e.slot: e.value for e in Entry.objects.filter(visit=visit)}
    assert entries["found.cut_in"] == 41 * PSI
    assert entries["found.cut_out"] == pytest.approx(60 * PSI, abs=0.2 * PSI)
    assert "week.csv" in entries["note"]["text"]
    assert Entry.objects.filter(visit=visit, slot="found.run").count() == 1
    other = uuid.uuid4()
    assert world["technician"].send("PUT", f"{at}/readings/{other}").status_code == 404


def test_what_nobody_sent_on_is_taken_away_after_two_weeks(world: World) -> None:
    at = sent(world, csv())
    clear_away()
    assert Recording.objects.exists()
    Recording.objects.update(made_at=timezone.now() - timedelta(days=15))
    clear_away()
    assert world["technician"].send("GET", at).status_code == 404
    assert not Part.objects.exists()


def test_a_parquet_file_of_many_parts_is_guessed_by_its_end(
    world: World, monkeypatch: pytest.MonkeyPatch
) -> None:
    """What a Parquet file holds stands at its end."""
    monkeypatch.setattr(services, "PART_SIZE", 2_000)
    line = line_of(Plant(pre_charge=24), [(20, 0), (3000, 3 * GPM), (600, 0.0)])
    made = io.BytesIO()
    pl.DataFrame({"epoch": EPOCH + line.time_s, "bar": line.gauge_pa / 1e5}).write_parquet(made)
    assert len(made.getvalue()) > 12 * services.PART_SIZE
    at = read(world, made.getvalue())
    told = world["viewer"].send("GET", at).json()
    assert told["state"] == "read"
    assert told["samples"] == len(line.time_s)


def test_half_a_file_is_neither_guessed_nor_read(
    world: World, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(services, "PART_SIZE", 2_000)
    data, id = csv(seconds=600), uuid.uuid4()
    body = {"name": "week.csv", "size": len(data)}
    world["technician"].send("PUT", f"/api/systems/{world.system.pk}/recordings/{id}", body)
    at = f"/api/recordings/{id}"
    put_part(world["technician"], at, 0, data[:2_000])
    assert world["technician"].send("GET", at).json()["parts"] == [0]
    assert world["technician"].send("GET", f"{at}/guess").status_code == 409
