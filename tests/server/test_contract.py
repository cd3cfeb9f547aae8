"""What is generated is what the code says; and the API, tried at random, keeps to its own
description."""

import json
import subprocess
from pathlib import Path
from typing import Any

import pytest
import schemathesis
from django.test import Client
from hypothesis import HealthCheck, Phase, given, settings

from config.api import api
from config.management.commands.export_contract import contract

from .conftest import World

ROOT = Path(__file__).resolve().parents[2]
AGAIN = "run scripts/contract and commit what it writes"


@pytest.mark.parametrize(("name", "text"), contract().items())
def test_generated_files_have_not_drifted(name: str, text: str) -> None:
    assert (ROOT / name).read_text(encoding="utf-8") == text, AGAIN


def test_the_typed_client_has_not_drifted(tmp_path: Path) -> None:
    made = tmp_path / "schema.d.ts"
    command = ["npx", "--no-install", "openapi-typescript", "../docs/openapi.json", "-o", str(made)]
    subprocess.run(command, cwd=ROOT / "web", check=True, capture_output=True)
    assert made.read_text() == (ROOT / "web/src/api/generated/schema.d.ts").read_text(), AGAIN


SCHEMA = schemathesis.openapi.from_dict(api.get_openapi_schema(path_prefix="/api/"))
OPERATIONS = [operation.ok() for operation in SCHEMA.get_all_operations()]


@pytest.mark.parametrize("operation", OPERATIONS, ids=lambda o: f"{o.method} {o.path}")
def test_nothing_sent_at_random_is_a_500_and_answers_are_as_described(
    operation: Any, world: World
) -> None:
    described = {int(status) for status in operation.definition.raw["responses"]}

    @settings(
        max_examples=25,
        deadline=None,
        phases=[Phase.generate],
        derandomize=True,
        suppress_health_check=list(HealthCheck),
    )
    def send(case: Any) -> None:
        browser: Client = world["owner"]
        response = browser.generic(
            operation.method.upper(),
            case.formatted_path,
            data=(
                json.dumps(case.body)
                if isinstance(case.body, dict | list | str | int | float)
                else ""
            ),
            content_type="application/json",
            query_params=case.query or None,
        )
        assert response.status_code in described, (response.status_code, response.content[:300])

    given(case=operation.as_strategy())(send)()
