"""Writes that have not reached the server yet, done over on what a device holds. Each carries its
own id, so that one which the server has taken already changes nothing; the server does it by its
own rights when it arrives, and has the last word."""

import re
from collections.abc import Callable, Mapping
from copy import deepcopy
from dataclasses import dataclass, field
from datetime import UTC, datetime
from typing import Any, TypedDict

from zerodip.answers.held import (
    HeldSystem,
    HeldVisit,
    HeldWorkspace,
    document_of,
    followed,
    learned_before,
    log_in,
    past_before,
    seconds,
)
from zerodip.decide.judge import decision
from zerodip.errors import Fault, InvalidInput
from zerodip.fileformat.document import read_document
from zerodip.fileformat.templates import template_file
from zerodip.visit.additions import CHANGES_FOUND, TEACHES, learned_after, remembered, unseen_by
from zerodip.visit.corrections import may_be_corrected
from zerodip.visit.found import found_values, with_found
from zerodip.visit.validation import check_record

__all__ = ["ID", "MAY_WAIT", "Desk", "Refused", "Writing", "carry_out", "opened"]


class Writing(TypedDict):
    """One write as the API takes it: a request, when it was made (ISO 8601), and by whom."""

    id: str
    at: str
    by: str
    method: str
    path: str
    body: Any


class Refused(Exception):
    """A write that cannot be done here. `problem` is what the API would say."""

    def __init__(self, status: int, title: str, detail: str = "", current: Any = None) -> None:
        super().__init__(title)
        told = {"title": title, "status": status, "detail": detail}
        self.problem: dict[str, Any] = {**told, "faults": [], "current": current}


@dataclass
class Desk:
    """What a device holds, open to be written on: systems and sites by id, and the workspaces."""

    systems: dict[str, HeldSystem]
    workspaces: Mapping[str, HeldWorkspace]
    sites: dict[str, dict[str, Any]] = field(default_factory=dict)

    def system(self, id: str) -> HeldSystem:
        """A system. Raises Refused where it is not held."""
        if id not in self.systems:
            raise _missing()
        return self.systems[id]

    def of_visit(self, id: str) -> tuple[HeldSystem, HeldVisit]:
        """A visit and its system. Raises Refused where it is not held."""
        for held in self.systems.values():
            for visit in held["visits"]:
                if visit["id"] == id:
                    return held, visit
        raise _missing()


def _missing() -> Refused:
    return Refused(404, "Not on this device", "It is there again as soon as there is a connection.")


def _require(may: bool) -> None:
    if not may:
        raise Refused(403, "Your role does not allow this", "You may look, but not change this.")


def carry_out(desk: Desk, write: Writing) -> None:
    """Does a write on what is held; one that is there already changes nothing.

    Args:
        desk: What is held.
        write: The write.

    Raises:
        InvalidInput: For values that cannot be right, by field.
        Refused: Where it clashes with what is there, or names what is not held.
    """
    at = datetime.fromisoformat(write["at"]).astimezone(UTC)
    write = {**write, "at": at.isoformat(timespec="microseconds")}  # as the server writes times
    for (method, pattern), do in _WRITES.items():
        found = re.fullmatch(pattern, write["path"])
        if found and method == write["method"]:
            return do(desk, write, *found.groups())
    raise Refused(404, "Not without a connection")


def _open_visit(desk: Desk, write: Writing, system_id: str, visit_id: str) -> None:
    held = desk.system(system_id)
    _require(held["may_visit"])
    running = (each for each in held["visits"] if each["closed_at"] is None)
    if any(each["id"] == visit_id for each in held["visits"]) or next(running, None):
        return
    visit = HeldVisit(
        id=visit_id,
        opened_at=write["at"],
        opened_by=write["by"],
        closed_at=None,
        document=None,
        learned=[],
        met=None,
        entries=[],
        photos=[],
    )
    at_s = seconds(write["at"])
    past = past_before(held, at_s)
    held["visits"].insert(0, visit)
    if past:
        _put_found(held, remembered(past[-1][0], at_s))


def _put_found(held: HeldSystem, values: Mapping[str, float | None]) -> None:
    before = read_document(held["document"])
    document = with_found(before, values)
    if document != before:
        held["document"] = document.as_json()
        held["version"] += 1


def _add_entry(desk: Desk, write: Writing, visit_id: str, entry_id: str) -> None:
    held, visit = desk.of_visit(visit_id)
    _require(held["may_visit"])
    slot, value, supersedes = (write["body"].get(name) for name in ("slot", "value", "supersedes"))
    if any(each["id"] == entry_id for each in visit["entries"]):
        return
    faults = check_record(slot, value)
    if faults:
        raise InvalidInput(faults)
    if visit["closed_at"] is not None and not may_be_corrected(slot, supersedes is not None):
        says = "The visit is closed. Its readings can be corrected; nothing else."
        raise Refused(409, "Somebody else was first", says, {"closed": True})
    _refuse_unseen(visit, slot, value, supersedes)
    visit["entries"].append(
        {
            "id": entry_id,
            "slot": slot,
            "value": value,
            "supersedes": supersedes,
            "at": write["at"],
            "by": write["by"],
            "by_gauge": "",
        }
    )
    if slot in TEACHES:
        before = learned_before(held, seconds(visit["opened_at"]))
        visit["learned"] = learned_after(document_of(held, visit), log_in(visit), before)
    if visit["closed_at"] is None and slot in CHANGES_FOUND:
        _put_found(held, found_values(log_in(visit)))


def _refuse_unseen(visit: HeldVisit, slot: str, value: Any, supersedes: str | None) -> None:
    current = unseen_by(log_in(visit), slot, value, supersedes)
    if current is not None:
        stored = {"slot": slot, "entry": current.id, "value": current.value, "by": current.by}
        says = "Somebody recorded another value meanwhile."
        raise Refused(409, "Somebody else was first", says, {**stored, "yours": value})


def _close_visit(desk: Desk, write: Writing, visit_id: str) -> None:
    held, visit = desk.of_visit(visit_id)
    _require(held["may_visit"])
    if visit["closed_at"] is None:
        visit["closed_at"], visit["document"] = write["at"], held["document"]
        kind = held["document"]["system"]["kind"]
        visit["met"] = desk.workspaces[held["workspace"]]["met"].get(kind, {})


def _add_photo(desk: Desk, write: Writing, visit_id: str, photo_id: str) -> None:
    held, visit = desk.of_visit(visit_id)
    _require(held["may_visit"])
    if any(each["id"] == photo_id for each in visit["photos"]):
        return
    if visit["closed_at"] is not None:
        says = "The visit is closed: no photo can be added."
        raise Refused(409, "Somebody else was first", says, {"closed": True})
    visit["photos"].append({"id": photo_id, "plate": write["body"]["plate"]})


def _store(held: HeldSystem, write: Writing, raw: Any) -> None:
    if write["body"]["version"] != held["version"]:
        current = {name: held[name] for name in ("version", "changed_at", "document")}
        raise Refused(
            409,
            "Somebody else was first",
            "The system was changed while you worked on it.",
            current,
        )
    held["document"], held["changed_at"] = raw, write["at"]
    held["name"] = raw["system"]["name"] or held["name"]
    held["version"] += 1


def _save_system(desk: Desk, write: Writing, system_id: str) -> None:
    held = desk.system(system_id)
    _require(held["may_change"])
    document = read_document(write["body"]["document"])
    raw = followed(document, desk.workspaces[held["workspace"]]).as_json()
    if raw != held["document"]:
        _store(held, write, raw)


def _save_decision(desk: Desk, write: Writing, system_id: str, decision_id: str) -> None:
    held = desk.system(system_id)
    _require(held["may_change"])
    if any(each["id"] == decision_id for each in held["decisions"]):
        return
    document = read_document(write["body"]["document"]).decided()
    document = followed(document, desk.workspaces[held["workspace"]])
    decided = decision(document.figures(), "us")
    _store(held, write, document.as_json())
    made = {
        "id": decision_id,
        "document": held["document"],
        "figures": {result.id: result.value for result in decided.results},
        "verdict": decided.verdict,
        "made_by": write["by"],
        "made_at": write["at"],
    }
    held["decisions"].insert(0, made)


def _retire_system(desk: Desk, write: Writing, system_id: str) -> None:
    held, retired = desk.system(system_id), bool(write["body"]["retired"])
    _require(held["may_change"])
    if retired == held["retired"]:
        return
    held["retired"] = retired
    kind = "retired" if retired else "restored"
    held["moments"].append({"at": write["at"], "kind": kind, "says": "", "by": write["by"]})


def _create_site(desk: Desk, write: Writing, workspace_id: str, site_id: str) -> None:
    name = str(write["body"]["name"]).strip()
    _require(workspace_id in desk.workspaces and desk.workspaces[workspace_id]["may_add"])
    if site_id in desk.sites:
        return
    theirs = [each for each in desk.sites.values() if each["workspace"] == workspace_id]
    _refuse_name(name, [each["name"] for each in theirs], "name")
    units = write["body"].get("units", "us")
    desk.sites[site_id] = {"id": site_id, "name": name, "units": units, "workspace": workspace_id}


def _refuse_name(name: str, others: list[str], path: str) -> None:
    if name and name not in others and len(name) <= 80:
        return
    says = "is missing." if not name else "is taken already, or too long; choose another."
    raise InvalidInput(
        [Fault(path=path, code="taken" if name else "missing", title="Name", says=says)]
    )


def _change_site(desk: Desk, write: Writing, site_id: str) -> None:
    if site_id not in desk.sites:
        raise _missing()
    site, body = desk.sites[site_id], write["body"]
    _require(desk.workspaces[site["workspace"]]["may_change"])
    site["units"], site["name"] = (body.get(name) or site[name] for name in ("units", "name"))
    for held in desk.systems.values():
        if held["site"]["id"] == site_id:
            held["site"] |= {"units": site["units"], "name": site["name"]}


def _add_system(desk: Desk, write: Writing, site_id: str, system_id: str) -> None:
    if site_id not in desk.sites:
        raise _missing()
    if system_id in desk.systems:
        return
    site, body = desk.sites[site_id], write["body"]
    workspace = desk.workspaces[site["workspace"]]
    _require(workspace["may_add"])
    raw = body.get("document")
    name = str(body.get("name") or "").strip()
    document = read_document(template_file(body["kind"], name) if raw is None else raw)
    theirs = [each for each in desk.systems.values() if each["site"]["id"] == site_id]
    path = "name" if raw is None else "system.name"
    _refuse_name(document.system.name, [each["name"] for each in theirs], path)
    desk.systems[system_id] = HeldSystem(
        id=system_id,
        stamp="",
        name=document.system.name,
        site={each: site[each] for each in ("id", "name", "units")},
        workspace=site["workspace"],
        version=1,
        changed_at=write["at"],
        retired=False,
        may_change=workspace["may_change"],
        may_visit=workspace["may_change"],
        document=followed(document, workspace).as_json(),
        decisions=[],
        moments=[{"at": write["at"], "kind": "added", "says": "", "by": write["by"]}],
        earlier=[],
        learned=[],
        left={},
        visits=[],
    )


ID = r"([0-9a-f-]{36})"
"""An id in the pattern of a path."""
_WRITES: dict[tuple[str, str], Callable[..., None]] = {
    ("PUT", rf"/api/systems/{ID}/visits/{ID}"): _open_visit,
    ("PUT", rf"/api/visits/{ID}/entries/{ID}"): _add_entry,
    ("PUT", rf"/api/visits/{ID}/photos/{ID}"): _add_photo,
    ("PUT", rf"/api/visits/{ID}/closed"): _close_visit,
    ("PUT", rf"/api/systems/{ID}"): _save_system,
    ("PUT", rf"/api/systems/{ID}/decisions/{ID}"): _save_decision,
    ("PUT", rf"/api/systems/{ID}/retired"): _retire_system,
    ("PUT", rf"/api/workspaces/{ID}/sites/{ID}"): _create_site,
    ("PATCH", rf"/api/sites/{ID}"): _change_site,
    ("PUT", rf"/api/sites/{ID}/systems/{ID}"): _add_system,
}
MAY_WAIT: tuple[tuple[str, str], ...] = tuple(_WRITES)
"""The writes that a device keeps until there is a connection: method, and a pattern of the path."""


def opened(held: list[HeldSystem], workspaces: list[HeldWorkspace], sites: list[Any]) -> Desk:
    """A desk on copies of what is held, to be written on.

    Args:
        held: The systems.
        workspaces: The workspaces.
        sites: The sites (`id`, `name`, `units`, `workspace`).

    Returns:
        The desk.
    """
    return Desk(
        systems={each["id"]: deepcopy(each) for each in held},
        workspaces={each["id"]: each for each in workspaces},
        sites={each["id"]: dict(each) for each in sites},
    )
