"""The file format: one system with its settings and practice, as `zerodip decide` reads it and the
app exports it.

Everything is SI with unit-bearing names. `entered` keeps what a person typed, so that 44 gal stays
44 gal; it must agree with the SI value beside it. The JSON Schema in docs/ is made by
`zerodip.fileformat.schema`.
"""

import json
import math
from collections.abc import Mapping
from dataclasses import asdict, dataclass, replace
from pathlib import Path
from typing import Any

from zerodip.errors import Fault, InvalidInput, UnreadableFile
from zerodip.fileformat.fields import Checked, Spec, read_part, specs, variants
from zerodip.kinds.figures import Figures
from zerodip.kinds.parts import System
from zerodip.kinds.registry import KINDS, figures_for, kind_of
from zerodip.kinds.settings import Practice, Settings
from zerodip.units import measures, to_si

__all__ = [
    "FOLLOWS",
    "FORMAT",
    "ROOTS",
    "VERSION",
    "Document",
    "plain",
    "read_document",
    "read_file",
    "read_json",
    "value_at",
]

FORMAT, VERSION = "zerodip-system", 1
FOLLOWS = "workspace"  # a practice that is its workspace's
ROOTS = {
    "system": Spec(
        kind="part",
        title="The system",
        of=variants("kind", lambda: {id: kind.model for id, kind in KINDS.items()}),
    ),
    "settings": Spec(kind="part", title="The settings", of=lambda raw: Settings),
    "practice": Spec(kind="part", title="The practice", of=lambda raw: Practice, optional=True),
}
_HEAD = ("format", "version", "entered")
_MOST_ENTERED = 200


@dataclass(frozen=True)
class Document:
    """A file's contents. `entered` maps a field's path to {"text", "unit"} as typed."""

    system: System
    settings: Settings
    practice: Practice
    entered: Mapping[str, Mapping[str, str]]

    def figures(self) -> Figures:
        """The figures of the system under its settings. Raises InvalidInput when the settings lack
        what this kind needs."""
        return figures_for(self.system, self.settings, self.practice)

    def decided(self) -> "Document":
        """The same with its settings decided on: none of them is a usual value any more."""
        kept = tuple(at for at in self.system.assumed if not at.startswith("settings."))
        return replace(self, system=replace(self.system, assumed=kept))

    def following(self, practice: Practice) -> "Document":
        """The same with `practice` in it, where it follows its workspace's; what was typed of its
        own goes with it."""
        if self.practice.follows != FOLLOWS:
            return self
        entered = {
            path: typed for path, typed in self.entered.items() if not path.startswith("practice.")
        }
        return replace(self, practice=practice, entered=entered)

    def as_json(self) -> dict[str, Any]:
        """Plain JSON values, every field written out; `read_document` reads them back to an equal
        document."""
        return {
            "format": FORMAT,
            "version": VERSION,
            "system": plain(self.system),
            "settings": plain(self.settings),
            "practice": plain(self.practice),
            "entered": {path: dict(typed) for path, typed in self.entered.items()},
        }


def plain(part: Checked) -> dict[str, Any]:
    """A checked object as plain JSON values, with the tags that tell variants apart."""
    values = json.loads(json.dumps(asdict(part)))
    for name, spec in specs(type(part)).items():
        child = getattr(part, name)
        if spec.kind == "part" and child is not None:
            values[name] = plain(child)
        elif spec.kind == "marks":
            values[name] = dict.fromkeys(child, True)
    return {**({part.tag[0]: part.tag[1]} if part.tag else {}), **values}


def read_document(raw: Any) -> Document:
    """Reads plain JSON values. Raises InvalidInput with every fault, by path."""
    if not isinstance(raw, Mapping):
        raise InvalidInput(
            [Fault(path="", code="not_an_object", title="The file", says="must be a JSON object.")]
        )
    faults = _head_faults(raw)
    built: dict[str, Any] = {}
    for name, spec in ROOTS.items():
        if spec.optional and raw.get(name) is None:
            built[name] = Practice()
            continue
        built[name], found = read_part(spec, raw.get(name), name)
        faults += found
    if built["system"] and built["settings"]:
        faults += kind_of(built["system"]).settings_faults(built["system"], built["settings"])
    faults += _entered_faults(raw) + _assumed_faults(raw, built["system"])
    if faults:
        raise InvalidInput(faults)
    return Document(**built, entered=dict(raw.get("entered") or {}))


def read_file(path: str | Path) -> Document:
    """Reads a system file. Raises UnreadableFile when it is not there or not JSON, InvalidInput for
    its contents."""
    return read_document(read_json(path))


def read_json(path: str | Path) -> Any:
    """Reads a JSON file as plain values. Raises UnreadableFile when it is not there or not JSON."""
    try:
        return json.loads(Path(path).read_text(encoding="utf-8-sig"))
    except OSError as error:
        raise UnreadableFile(
            f"{path}: cannot be read ({error.strerror})", path=str(path)
        ) from error
    except (ValueError, RecursionError) as error:
        raise UnreadableFile(f"{path}: is not JSON ({error})", path=str(path)) from error


def _head_faults(raw: Mapping[str, Any]) -> list[Fault]:
    faults = []
    if raw.get("format") != FORMAT:
        faults.append(
            Fault(path="format", code="not_a_choice", title="Format", says=f"must be “{FORMAT}”.")
        )
    if raw.get("version") != VERSION or isinstance(raw.get("version"), bool):
        faults.append(
            Fault(path="version", code="not_a_choice", title="Version", says=f"must be {VERSION}.")
        )
    unknown = [str(name)[:60] for name in raw if name not in {*_HEAD, *ROOTS}]
    return faults + [
        Fault(path=name, code="unknown_field", title=f"“{name}”", says="is not a field here.")
        for name in unknown
    ]


def _entered_faults(raw: Mapping[str, Any]) -> list[Fault]:
    entered = raw.get("entered")
    if entered is None:
        return []
    if not isinstance(entered, Mapping) or len(entered) > _MOST_ENTERED:
        says = f"must be an object of at most {_MOST_ENTERED} fields."
        return [Fault(path="entered", code="not_an_object", title="As typed", says=says)]
    return [
        fault for path, typed in entered.items() for fault in _typed_faults(raw, str(path), typed)
    ]


def _typed_faults(raw: Mapping[str, Any], path: str, typed: Any) -> list[Fault]:
    where = f"entered.{path[:80]}"
    if not _is_typed(typed):
        says = "must be an object of “text” and “unit”."
        return [Fault(path=where, code="not_text", title="As typed", says=says)]
    value, spec = value_at(raw, path), _spec_at(raw, path)
    if not spec or spec.kind != "quantity" or not measures(typed["unit"], spec.dimension):
        says = f"has no quantity in “{typed['unit'][:20]}” at this place."
        return [Fault(path=where, code="unknown_unit", title="As typed", says=says)]
    if isinstance(value, int | float) and not _agrees(typed, float(value)):
        return [
            Fault(
                path=where,
                code="disagrees",
                title="As typed",
                says="does not agree with the SI value.",
            )
        ]
    return []


def _is_typed(typed: Any) -> bool:
    return (
        isinstance(typed, Mapping)
        and set(typed) == {"text", "unit"}
        and all(
            isinstance(part, str) and len(part) <= 24 and part.isprintable()
            for part in typed.values()
        )
    )


def _agrees(typed: Mapping[str, str], value: float) -> bool:
    try:
        said = to_si(float(typed["text"].replace(",", ".")), typed["unit"])
    except ValueError:
        return False
    return math.isclose(said, value, rel_tol=1e-6, abs_tol=1e-9)


def value_at(raw: Any, path: str) -> Any:
    """The plain value at a dotted path, None where there is none."""
    for step in path.split("."):
        if isinstance(raw, Mapping):
            raw = raw.get(step)
        elif isinstance(raw, list) and step.isdigit() and int(step) < len(raw):
            raw = raw[int(step)]
        else:
            return None
    return raw


def _spec_at(raw: Mapping[str, Any], path: str) -> Spec | None:
    """The specification of the field at a dotted path, in the variants that the file has; None
    where there is no field."""
    root, *steps = path.split(".")
    spec, value = ROOTS.get(root), raw.get(root)
    for step in steps:
        if step.isdigit():
            value = value_at(value, step)
            continue
        cls = spec.of(value) if spec and spec.of else None
        if cls is None or step not in specs(cls):
            return None
        spec, value = specs(cls)[step], value_at(value, step)
    return spec


def _assumed_faults(raw: Mapping[str, Any], system: System | None) -> list[Fault]:
    return [
        Fault(
            path=f"system.assumed.{path[:80]}",
            code="unknown_field",
            title="Usual value",
            says="names no field of this file.",
        )
        for path in (system.assumed if system else ())
        if _spec_at(raw, path) is None
    ]
