"""A database and an archive that were written before the apps and what is learned of nuts had their
names of today."""

import gzip
import json
import os
import subprocess
import sys
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import psycopg
import pytest
from django.db import connection

from visits.models import Visit
from zerodip.units import PSI

from .conftest import World
from .test_exchange import imported, taken

DATA = Path(__file__).parent / "data"
SERVER = Path(__file__).parents[2] / "server"
FORMER = "zerodip_former"
COLUMNS = """select table_name, column_name, data_type, is_nullable from information_schema.columns
             where table_schema = 'public' order by 1, 2"""


def connected(name: str) -> psycopg.Connection[Any]:
    """A connection of our own to a database on the tests' server."""
    at = connection.settings_dict
    return psycopg.connect(
        host=at["HOST"],
        port=at["PORT"],
        user=at["USER"],
        password=at["PASSWORD"],
        dbname=name,
        autocommit=True,
    )


@pytest.fixture
def former() -> Iterator[psycopg.Connection[Any]]:
    """The demo as the last version with the former names had dumped it."""
    script = gzip.decompress((DATA / "former_names.sql.gz").read_bytes()).decode()
    statements = "\n".join(line for line in script.splitlines() if not line.startswith("\\"))
    with connected("postgres") as server:
        server.execute(f"drop database if exists {FORMER}")
        server.execute(f"create database {FORMER}")
        with connected(FORMER) as made:
            made.execute(statements)
            made.execute("reset search_path")
            yield made
        server.execute(f"drop database {FORMER} with (force)")


def manage(*words: str) -> str:
    environment = {**os.environ, "ZERODIP_DB_NAME": FORMER}
    done = subprocess.run(
        [sys.executable, "manage.py", *words],
        cwd=SERVER,
        env=environment,
        capture_output=True,
        text=True,
        check=False,
    )
    assert done.returncode == 0, done.stderr
    return done.stderr


def count(of: psycopg.Connection[Any], table: str) -> int:
    return int(of.execute(f"select count(*) from {table}").fetchone()[0])


def test_a_database_of_former_names_keeps_all_its_data(
    former: psycopg.Connection[Any], db: None
) -> None:
    pairs = {
        "people_user": "accounts_user",
        "plants_system": "sites_system",
        "plants_gauge": "gauges_gauge",
        "plants_decision": "sites_decision",
        "visits_entry": "visits_entry",
        "journal_entry": "audit_auditevent",
        "visits_outlook": "visits_nextcheck",
    }
    before = {new: count(former, old) for old, new in pairs.items()}
    for _ in range(2):  # the second time there is nothing to do
        manage("migrate", "--verbosity", "0")
    assert {new: count(former, new) for new in pairs.values()} == before
    with connection.cursor() as cursor:
        cursor.execute(COLUMNS)
        assert former.execute(COLUMNS).fetchall() == cursor.fetchall()
    (learned,) = former.execute(
        "select learned from visits_visit where learned <> '[]' limit 1"
    ).fetchone()
    assert {(each["switch"], each["nut"], each["point"]) for each in learned} == {
        ("two", nut, point) for nut in ("range", "differential") for point in ("cut_in", "cut_out")
    }
    assert manage("summarize_again") == manage("refresh_next_checks") == ""


def test_an_archive_of_former_names_still_comes_in(world: World) -> None:
    of = imported(world, json.loads((DATA / "former_archive.json").read_text(encoding="utf-8")))
    assert of["counts"]["refused"] == 0
    taken(world, of)
    (visit,) = Visit.objects.exclude(learned=[])
    slopes = {(each["nut"], each["point"]): each["mean_pa"] / PSI for each in visit.learned}
    assert slopes["range", "cut_in"] == pytest.approx(2.43, abs=0.01)
    assert slopes["differential", "cut_in"] == pytest.approx(0.0, abs=0.1)
