"""With the database away: said plainly and soon, and over by itself."""

from typing import Any

import pytest
from django.db import OperationalError
from django.db.backends.base.base import BaseDatabaseWrapper
from django.test import Client

from .conftest import World


def _gone(*args: Any, **kwargs: Any) -> Any:
    raise OperationalError("connection refused")


def test_a_database_that_is_away_is_a_503_until_it_is_back(
    world: World, monkeypatch: pytest.MonkeyPatch
) -> None:
    client = Client(raise_request_exception=False)
    client.cookies = world["owner"].cookies
    with monkeypatch.context() as away:
        away.setattr(BaseDatabaseWrapper, "cursor", _gone)
        asked, ready = client.get("/api/rounds"), client.get("/health/ready")
        paper = client.get("/papers/due/x.ics")
        assert (asked.status_code, ready.status_code, paper.status_code) == (503, 503, 404)
        assert asked["Content-Type"] == "application/problem+json"
        assert asked["Retry-After"] == "5"
        assert ready.content.startswith(b"Zero Dip: the database does not answer.")
        assert client.get("/health/live").content == b"live\n"
    assert client.get("/health/ready").content == b"ready\n"
    assert client.get("/api/rounds").status_code == 200
