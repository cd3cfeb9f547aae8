"""Backup and restore, by the commands themselves, into a server that is empty."""

import os
import shutil
import subprocess
from collections.abc import Iterator
from pathlib import Path

import pytest

ROOT = Path(__file__).parents[2]
OPEN = ". scripts/lib.sh; check_machine; make_secrets; start_postgres; trap stop_postgres EXIT; "
FILL = OPEN + "manage migrate --verbosity 0; manage load_demo"
WHO = "create materialized view who as select session_user::text as name"
ROWS = OPEN + (
    'as_postgres pg_dump -h "$PG_SOCKETS" -p "$(secret ZERODIP_DB_PORT)" -U postgres --data-only'
    " zerodip"
    " | grep -v restrict"  # a word of the day in every dump
)


def run(data: Path, *command: str) -> subprocess.CompletedProcess[str]:
    """A command with a data folder of its own, and no setting of the tests."""
    kept = {
        name: value
        for name, value in os.environ.items()
        if not name.startswith(("ZERODIP_", "PG", "DJANGO_"))
    }
    env = {**kept, "ZERODIP_DATA": str(data), "ROOT": str(ROOT), "PG_OPTIONS": "-c fsync=off"}
    return subprocess.run(
        command, cwd=ROOT, env=env, capture_output=True, text=True, timeout=300, check=False
    )


def shell(data: Path, script: str) -> str:
    done = run(data, "bash", "-euo", "pipefail", "-c", script)
    assert done.returncode == 0, done.stderr
    return done.stdout


@pytest.fixture
def servers(tmp_path: Path) -> Iterator[tuple[Path, Path]]:
    """Two data folders; where PostgreSQL had to keep its files elsewhere, they are cleared away."""
    folders = (tmp_path / "one", tmp_path / "two")
    yield folders
    for folder in folders:
        place = shell(folder, ". scripts/lib.sh; pg_folder; echo $PG_DATA").strip()
        shutil.rmtree(place, ignore_errors=True)
        Path(f"{place}.log").unlink(missing_ok=True)


def test_everything_comes_back_in_an_empty_server_and_nothing_is_put_over_unasked(
    servers: tuple[Path, Path],
) -> None:
    one, two = servers
    shell(one, FILL)
    shell(one, OPEN + f"ask zerodip -c '{WHO}'")
    backup = one / "kept.dump"
    made = run(one, "./backup", str(backup))
    assert made.returncode == 0, made.stderr
    assert backup.stat().st_mode & 0o077 == 0
    assert run(one, "./backup", str(backup)).returncode != 0  # never over another backup

    damaged = two.parent / "damaged.dump"
    damaged.write_bytes(backup.read_bytes()[:2000])
    assert run(two, "./restore", str(damaged)).returncode != 0
    restored = run(two, "./restore", str(backup))
    assert restored.returncode == 0, restored.stderr
    rows = shell(two, ROWS)
    assert rows == shell(one, ROWS)
    # Whatever a backup says is said by the application, not by the database's superuser.
    assert shell(two, OPEN + 'ask zerodip -c "select name from who"').strip() == "zerodip"
    assert rows.count("\n") > 500

    unasked = run(two, "./restore", str(backup))
    assert unasked.returncode != 0
    assert "not empty" in unasked.stderr
    assert run(two, "./restore", "--over", str(backup)).returncode == 0
    assert len(list((two / "backups").glob("before-restore-*.dump"))) == 1
    assert shell(two, ROWS) == rows
