"""The JSON Schema of the file format and the field table for an interface, both made from the field
specifications."""

from collections.abc import Collection
from typing import Any

from zerodip.fileformat.document import FORMAT, ROOTS, VERSION
from zerodip.fileformat.fields import Checked, Spec, classes_of, specs
from zerodip.gauges import GaugeSpec
from zerodip.wire import WireSpec

__all__ = ["document_schema", "field_table", "part_schema", "practice_schema"]


def document_schema() -> dict[str, Any]:
    """JSON Schema (draft 2020-12) of a system file. Ranges are those that reading enforces; orders
    between fields (cut-in below cut-out, falling curves) are checked on reading only."""
    definitions: dict[str, Any] = {}
    properties: dict[str, Any] = {name: _one_of(spec, definitions) for name, spec in ROOTS.items()}
    return {
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        "title": "Zero Dip system file",
        "type": "object",
        "properties": {
            "format": {"const": FORMAT},
            "version": {"const": VERSION},
            **properties,
            "entered": {
                "type": ["object", "null"],
                "description": "What was typed, by field path, where it must be kept as typed.",
                "additionalProperties": {
                    "type": "object",
                    "properties": {"text": {"type": "string"}, "unit": {"type": "string"}},
                    "required": ["text", "unit"],
                    "additionalProperties": False,
                },
            },
        },
        "required": ["format", "version", "system", "settings"],
        "additionalProperties": False,
        "$defs": definitions,
    }


def practice_schema() -> dict[str, Any]:
    """JSON Schema of a practice by itself."""
    return _object(classes_of(ROOTS["practice"])[0], {})


def part_schema(cls: type[Checked], title: str, may_lack: Collection[str] = ()) -> dict[str, Any]:
    """JSON Schema (draft 2020-12) of a file of one checked object, of whose lists some may be left
    out. What is asked between fields is checked on reading only."""
    definitions: dict[str, Any] = {}
    made = _object(cls, definitions)
    return {
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        **made,
        "title": title,
        "required": [name for name in made["required"] if name not in may_lack],
        "$defs": definitions,
    }


def _reference(cls: type[Checked], definitions: dict[str, Any]) -> dict[str, Any]:
    if cls.__name__ not in definitions:
        definitions[cls.__name__] = {}
        definitions[cls.__name__].update(_object(cls, definitions))
    return {"$ref": f"#/$defs/{cls.__name__}"}


def _object(cls: type[Checked], definitions: dict[str, Any]) -> dict[str, Any]:
    properties = {name: _property(spec, definitions) for name, spec in specs(cls).items()}
    required = [name for name, spec in specs(cls).items() if not spec.optional]
    if cls.tag:
        properties = {cls.tag[0]: {"const": cls.tag[1]}, **properties}
        required = [cls.tag[0], *required]
    text = " ".join((cls.__doc__ or "").split())
    return {
        "type": "object",
        "description": text,
        "properties": properties,
        "required": required,
        "additionalProperties": False,
    }


def _property(spec: Spec, definitions: dict[str, Any]) -> dict[str, Any]:
    kinds: dict[str, Any] = {
        "quantity": lambda: {"type": "number", "minimum": spec.least, "maximum": spec.most},
        "choice": lambda: {"enum": list(spec.options)},
        "flag": lambda: {"type": "boolean"},
        "words": lambda: {"type": "string", "maxLength": spec.most},
        "marks": lambda: {
            "type": "object",
            "maxProperties": spec.most,
            "additionalProperties": {"const": True},
        },
        "part": lambda: _one_of(spec, definitions),
        "parts": lambda: {
            "type": "array",
            "minItems": spec.least,
            "maxItems": spec.most,
            "items": _one_of(spec, definitions),
        },
    }
    shape = kinds[spec.kind]()
    shape["title"] = spec.title
    return {"anyOf": [shape, {"type": "null"}], "title": spec.title} if spec.optional else shape


def _one_of(spec: Spec, definitions: dict[str, Any]) -> dict[str, Any]:
    classes = classes_of(spec)
    references = [_reference(cls, definitions) for cls in classes]
    return dict(references[0]) if len(references) == 1 else {"oneOf": references}


def field_table(*further: type[Checked]) -> dict[str, Any]:
    """The fields of every class, `further` ones too, as plain values, for forms: title, kind,
    dimension, options, whether it may be left open. Allowed ranges are not in it: what is refused
    is said by the reading itself."""
    found: dict[str, Any] = {}
    for root in ROOTS.values():
        for cls in classes_of(root):
            _tabulate(cls, found)
    for cls in (GaugeSpec, WireSpec, *further):
        _tabulate(cls, found)
    return found


def _tabulate(cls: type[Checked], found: dict[str, Any]) -> None:
    if cls.__name__ in found:
        return
    found[cls.__name__] = {name: _row(spec) for name, spec in specs(cls).items()}
    for spec in specs(cls).values():
        for child in classes_of(spec):
            _tabulate(child, found)


def _row(spec: Spec) -> dict[str, Any]:
    return {
        "kind": spec.kind,
        "title": spec.title,
        "dimension": spec.dimension,
        "options": list(spec.options),
        "optional": spec.optional,
    }
