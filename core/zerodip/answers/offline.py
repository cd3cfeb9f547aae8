"""A request of the page, answered from what its device holds and what waits there to be sent."""

import json
import re
from collections.abc import Callable
from dataclasses import dataclass
from datetime import datetime
from typing import Any

from zerodip.answers import systems, visits
from zerodip.answers.as_json import as_answer
from zerodip.answers.refusals import refusal
from zerodip.answers.writes import ID, Desk, Refused, Writing, carry_out, opened
from zerodip.errors import InvalidInput

__all__ = ["answer_offline"]


@dataclass(frozen=True)
class _Asked:
    """A request with all that goes with it."""

    desk: Desk
    path: str
    query: dict[str, str]
    now: str
    held: dict[str, Any]

    @property
    def units(self) -> str:
        return self.query.get("units", "us")

    @property
    def now_s(self) -> float:
        return datetime.fromisoformat(self.now).timestamp()

    def written(self) -> list[Any]:
        """The systems on which something waits to be sent."""
        before = {each["id"]: each for each in self.held["systems"]}
        return [each for id, each in self.desk.systems.items() if each != before.get(id)]


def answer_offline(asked: str) -> str:
    """A request, answered without the server.

    Args:
        asked: JSON: `method`, `path`, `query` and `body` of the request; `now` (ISO 8601);
            `writes`, those that wait to be sent, oldest first, the request itself last where it is
            one (`id`, `at`, `by`, `method`, `path`, `body`); `held`: the `systems` that the request
            and the writes are about, all `workspaces`, and the answers last had to `rounds`,
            `visits` and `next_checks`.

    Returns:
        The status and, on the next line, the body as JSON: as the API would answer, 404 for what is
        not held, 409 where the last write clashes.
    """
    values = json.loads(asked)
    units = values["query"].get("units", "us")
    try:
        return as_answer(200, _answer(values))
    except InvalidInput as error:
        return as_answer(422, refusal(error.faults, units))
    except Refused as error:
        return as_answer(error.problem["status"], error.problem)


def _answer(values: dict[str, Any]) -> Any:
    held, writes = values["held"], values["writes"]
    sites = [
        {name: site[name] for name in ("id", "name", "units", "workspace")}
        for site in held["rounds"]["sites"]
    ]
    desk = opened(held["systems"], held["workspaces"], sites)
    _carry_out_all(desk, writes, values["path"] if values["method"] != "GET" else "")
    asked = _Asked(desk, values["path"], values["query"], values["now"], held)
    for pattern, answer in _ANSWERS.items():
        found = re.fullmatch(pattern, asked.path)
        if found:
            return answer(asked, *found.groups())
    raise Refused(404, "Not without a connection")


def _carry_out_all(desk: Desk, writes: list[Writing], asked: str) -> None:
    """Does what waits over. What cannot be done any more is told when it is sent; only the request
    itself, the last, is refused here."""
    for write in writes:
        try:
            carry_out(desk, write)
        except (Refused, InvalidInput):
            if write is writes[-1] and write["path"] == asked:
                raise


def _visit(asked: _Asked, visit_id: str) -> Any:
    held, visit = asked.desk.of_visit(visit_id)
    workspace = asked.desk.workspaces[held["workspace"]]
    order, eager = asked.query.get("order", "together"), asked.query.get("eager") == "true"
    return visits.visit_answer(held, visit, workspace, asked.units, order, eager)


def _opened_visit(asked: _Asked, system_id: str, visit_id: str) -> Any:
    """The visit that was opened, or the one that was open already."""
    held = asked.desk.system(system_id)
    left = [each["id"] for each in held["visits"] if each["closed_at"] is None]
    known = visit_id if visits.visit_in(held, visit_id) else left[0]
    return _visit(asked, known)


def _photo(asked: _Asked, visit_id: str, photo_id: str) -> Any:
    _, visit = asked.desk.of_visit(visit_id)
    return next(each for each in visit["photos"] if each["id"] == photo_id)


def _decision(asked: _Asked, system_id: str, decision_id: str) -> Any:
    decisions = asked.desk.system(system_id)["decisions"]
    return next(each for each in decisions if each["id"] == decision_id)


def _site(asked: _Asked, site_id: str) -> Any:
    site = asked.desk.sites[site_id]
    return {name: site[name] for name in ("id", "name", "units")}


def _next_checks(asked: _Asked) -> Any:
    rows = {row["system"]: row for row in asked.held["next_checks"]}
    for held in asked.written():
        row = systems.next_check_row(held, asked.now_s)
        rows |= {held["id"]: row} if row else {}
    return list(rows.values())


def _rounds(asked: _Asked) -> Any:
    return systems.rounds_with(asked.held["rounds"], asked.desk.sites.values(), asked.written())


def _lists(asked: _Asked) -> Any:
    """All lists at once, for a device that keeps them."""
    left = systems.open_visits(asked.held["visits"], asked.written())
    return {"rounds": _rounds(asked), "visits": left, "next_checks": _next_checks(asked)}


def _of_visit(answer: Callable[[_Asked, Any, Any], Any]) -> Callable[..., Any]:
    return lambda asked, visit_id: answer(asked, *asked.desk.of_visit(visit_id))


def _of_system(answer: Callable[[_Asked, Any], Any]) -> Callable[..., Any]:
    return lambda asked, system_id: answer(asked, asked.desk.system(system_id))


_SYSTEM, _VISIT = rf"/api/systems/{ID}", rf"/api/visits/{ID}"
_system = _of_system(lambda asked, held: systems.system_answer(held))
_ANSWERS: dict[str, Callable[..., Any]] = {
    "/lists": _lists,
    "/api/rounds": _rounds,
    "/api/visits": lambda asked: systems.open_visits(asked.held["visits"], asked.written()),
    "/api/next-checks": _next_checks,
    "/api/gauges": lambda asked: [
        each for of in asked.desk.workspaces.values() for each in of["gauges"]
    ],
    "/api/practices": lambda asked: [of["practice"] for of in asked.desk.workspaces.values()],
    _SYSTEM: _system,
    rf"{_SYSTEM}/retired": _system,
    rf"{_SYSTEM}/visits": _of_system(lambda asked, held: systems.visit_rows(held)),
    rf"{_SYSTEM}/timeline": _of_system(lambda asked, held: systems.timeline(held, asked.units)),
    rf"{_SYSTEM}/trends": _of_system(
        lambda asked, held: systems.trends_of(held, asked.units, asked.now_s)
    ),
    rf"{_SYSTEM}/decisions/{ID}": _decision,
    rf"{_SYSTEM}/visits/{ID}": _opened_visit,
    _VISIT: _visit,
    rf"{_VISIT}/closed": _visit,
    rf"{_VISIT}/entries/{ID}": lambda asked, visit_id, entry_id: _visit(asked, visit_id),
    rf"{_VISIT}/photos/{ID}": _photo,
    rf"{_VISIT}/report": _of_visit(
        lambda asked, held, visit: visits.report_answer(held, visit, asked.units)
    ),
    rf"{_VISIT}/trends": _of_visit(
        lambda asked, held, visit: systems.visit_trends(held, visit, asked.units, asked.now_s)
    ),
    rf"{_VISIT}/gauges": _of_visit(
        lambda asked, held, visit: visits.gauges_at(
            held, asked.desk.workspaces[held["workspace"]], asked.now_s
        )
    ),
    rf"/api/sites/{ID}": _site,
    rf"/api/workspaces/{ID}/sites/{ID}": lambda asked, _, site_id: _site(asked, site_id),
    rf"/api/sites/{ID}/systems/{ID}": lambda asked, _, system_id: _system(asked, system_id),
}
