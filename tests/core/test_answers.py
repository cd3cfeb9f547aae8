"""What is answered to a page: JSON as the API gives it, refusals by field."""

import json
from collections.abc import Mapping
from dataclasses import dataclass
from types import MappingProxyType
from typing import Any

import pytest

from tests.core.systems import file
from zerodip.answers.as_json import as_json
from zerodip.answers.what_if_json import answer_what_if
from zerodip.fileformat.templates import template_file
from zerodip.kinds.registry import KINDS
from zerodip.rules.engine import Verdict


@dataclass(frozen=True)
class Part:
    verdict: Verdict
    many: tuple[float, ...]
    by: Mapping[str, Any]


def test_records_choices_and_lists_become_json() -> None:
    part = Part(Verdict.STOP, (1.5, 2.0), MappingProxyType({"a": Part(Verdict.PASS, (), {})}))
    inner = {"verdict": "pass", "many": [], "by": {}}
    assert json.loads(as_json(part)) == {"verdict": "stop", "many": [1.5, 2.0], "by": {"a": inner}}


@pytest.mark.parametrize("value", [float("nan"), float("inf")])
def test_a_number_that_is_none_is_no_json(value: float) -> None:
    with pytest.raises(ValueError, match="JSON"):
        as_json([value])


def asked(name: str, units: str = "us", **body: Any) -> tuple[int, Any]:
    status, _, said = answer_what_if(name, json.dumps(body), units).partition("\n")
    return int(status), json.loads(said)


def test_all_faults_come_at_once_by_field() -> None:
    raw = file()
    raw["settings"]["cut_in_gauge_pa"] = -5e6
    status, said = asked("decide", "metric", document=raw, draw_m3_s=-1)
    assert status == 422
    paths = [each["path"] for each in said["faults"]]
    assert "settings.cut_in_gauge_pa" in paths
    assert "draw_m3_s" in paths
    assert "bar" in said["faults"][0]["message"]


def test_what_no_operation_could_read_is_refused_before() -> None:
    raw = file()
    raw["system"]["name"] = "half \ud800"
    status, said = asked("propose", document=raw)
    assert (status, said["faults"][0]["path"]) == (422, "system.name")


def test_a_target_is_read_and_a_tankless_kind_has_no_size_to_be_wrong() -> None:
    status, said = asked("sizes", document=file(), target={"kind": "run", "value": 0})
    assert (status, said["faults"][0]["path"]) == (422, "target.value")
    assert asked("sizes", document=file(), target={"kind": "run", "value": 90})[0] == 200


def test_a_trouble_goes_by_what_was_met() -> None:
    seen = [{"item": "clicks", "value": True}]
    evidence = {"kind": "well_bladder", "evidence": seen}
    _, plain = asked("trouble", **evidence)
    cause = plain["suspects"][1]["id"]
    _, met = asked("trouble", **evidence, met={"well_bladder": {cause: 200}})
    assert met["suspects"][0]["id"] == cause


@pytest.mark.parametrize("kind", KINDS)
def test_the_picture_alone_is_that_of_the_whole_judgement(kind: str) -> None:
    raw = template_file(kind, "A plant")
    _, whole = asked("decide", "kpa", document=raw)
    assert asked("chart", "kpa", document=raw) == (200, whole["decision"]["chart"])
