"""What-ifs of a page: asked as JSON, answered as the server would."""

import json
from collections.abc import Callable, Mapping
from dataclasses import replace
from typing import Any

from zerodip.answers.as_json import as_answer
from zerodip.answers.refusals import refusal
from zerodip.answers.what_if import (
    answer_chart,
    answer_compare,
    answer_decide,
    answer_propose,
    answer_sizes,
)
from zerodip.errors import InvalidInput
from zerodip.fileformat.json_values import faults_of
from zerodip.visit.trouble_asked import asked_trouble

__all__ = ["WHAT_IFS", "answer_what_if"]

_MOST_VALUES = 60_000


def _trouble(asked: Mapping[str, Any], units: str) -> Any:
    met = asked.get("met", {})
    raw = {name: value for name, value in asked.items() if name != "met" and value is not None}
    return asked_trouble(raw, units, lambda kind: met.get(kind, {}))


WHAT_IFS: dict[str, Callable[[Mapping[str, Any], str], Any]] = {
    "decide": answer_decide,
    "chart": answer_chart,
    "propose": answer_propose,
    "compare": answer_compare,
    "sizes": answer_sizes,
    "trouble": _trouble,
}


def answer_what_if(name: str, asked: str, units: str) -> str:
    """A what-if, answered.

    Args:
        name: Which one: "decide", "chart", "propose", "compare", "sizes" or "trouble".
        asked: What is asked, as JSON: what the operation of the API takes; for "trouble" also
            `met`, the outcomes confirmed before, by kind and cause.
        units: Unit system of the texts: "us", "metric" or "kpa".

    Returns:
        The status and, on the next line, the body as JSON: 200 with the answer, or 422 with what
        is wrong.
    """
    values = json.loads(asked)
    faults = faults_of(values, _MOST_VALUES)
    if faults:
        said = [replace(each, path=each.path.removeprefix("document.")) for each in faults]
        return as_answer(422, refusal(said, units))
    try:
        return as_answer(200, WHAT_IFS[name](values, units))
    except InvalidInput as error:
        return as_answer(422, refusal(error.faults, units))
