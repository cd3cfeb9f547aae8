"""A trouble asked about without a visit: a system's file, or only its kind, with a list of
evidence."""

from collections.abc import Callable, Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from zerodip.diagnosis.parts import Item, Needs, Observation, Troubles
from zerodip.errors import Fault, InvalidInput
from zerodip.fileformat.as_typed import as_typed
from zerodip.fileformat.document import Document, read_document
from zerodip.fileformat.fields import Spec, check
from zerodip.kinds.registry import KINDS, kind_of
from zerodip.units import SYSTEMS, unit_for
from zerodip.visit.rough_plates import ROUGH, rough_system
from zerodip.visit.trouble import TroubleView, trouble_view
from zerodip.visit.validation import figure_spec

__all__ = ["TroubleAsked", "asked_trouble", "read_trouble", "trouble_schema"]

_CONDITIONS: tuple[Needs, ...] = ("powered", "off", "drained")
_MOST = 100
_KEYS = ("kind", "plates", "system_file", "evidence", "condition", "impossible")
_SEEN_KEYS = ("item", "value", "context", "again")
_NOT_ASKED = "is nothing that is asked of this kind of system."
# What each plate may be typed in: a compressor's flow is one of air.
_PLATES = {
    "cut_in_gauge_pa": ("pressure",),
    "cut_out_gauge_pa": ("pressure",),
    "pre_charge_gauge_pa": ("pressure",),
    "dead_head_gauge_pa": ("pressure",),
    "volume_m3": ("volume", "air_volume"),
    "flow_m3_s": ("flow", "air_flow"),
}


@dataclass(frozen=True, kw_only=True)
class TroubleAsked:
    """What is asked: the system, what was observed, how it stands, and which items cannot be
    looked at."""

    document: Document
    observations: tuple[Observation, ...]
    condition: Needs
    impossible: frozenset[str]


def asked_trouble(
    raw: Any, units: str, met: Callable[[str], Mapping[str, int]] = lambda kind: {}
) -> TroubleView:
    """The diagnosis of a file of evidence.

    Args:
        raw: The file as plain values.
        units: Unit system of the texts: "us", "metric" or "kpa".
        met: Gives the outcomes confirmed before on a kind of system, by cause.

    Returns:
        The diagnosis.

    Raises:
        InvalidInput: With every fault of the file, by its path.
    """
    asked = read_trouble(raw)
    return trouble_view(
        asked.document.figures(),
        asked.observations,
        units,
        asked.condition,
        asked.impossible,
        met(asked.document.system.kind),
    )


def read_trouble(raw: Any) -> TroubleAsked:
    """Reads a file of evidence: `system_file` (a system's file) or `kind` and what was read of its
    `plates`; `evidence`, a list of `item`, `value` and, where it was taken between figures,
    `context`, or `again` where it was looked at once more; `condition`; `impossible`. A figure is a
    number in SI, or text with its unit (“38 psi”).

    Args:
        raw: The file as plain values.

    Returns:
        What is asked.

    Raises:
        InvalidInput: With every fault of the file, by its path.
    """
    if not isinstance(raw, Mapping):
        says = "must be an object with “kind” or “system_file”, and “evidence”."
        raise InvalidInput([_fault("", "not_an_object", "The file", says)])
    document = _document(raw)
    troubles = kind_of(document.system).troubles
    evidence = raw.get("evidence", [])
    faults = [
        *_unknown_keys(raw, _KEYS, "", "The file"),
        *_list_faults(evidence),
        *_condition_faults(raw),
        *_impossible_faults(raw, troubles),
    ]
    if isinstance(evidence, list):
        evidence = [_in_si(troubles, each) for each in evidence[: _MOST + 1]]
        for at, each in enumerate(evidence):
            faults += _evidence_faults(troubles, each, f"evidence.{at}")
    if faults:
        raise InvalidInput(faults)
    return TroubleAsked(
        document=document,
        observations=tuple(map(_observed, evidence)),
        condition=raw.get("condition", "powered"),
        impossible=frozenset(raw.get("impossible", ())),
    )


def _fault(path: str, code: str, title: str, says: str) -> Fault:
    return Fault(path=path, code=code, title=title, says=says)


def _document(raw: Mapping[str, Any]) -> Document:
    if raw.get("system_file") is not None:
        return read_document(raw["system_file"])
    kind = raw.get("kind")
    if not isinstance(kind, str) or kind not in KINDS:
        says = f"must be one of {', '.join(KINDS)}, or give a system_file."
        raise InvalidInput([_fault("kind", "not_a_choice", "Kind", says)])
    plates = raw.get("plates", {})
    if not isinstance(plates, Mapping):
        raise InvalidInput([_fault("plates", "not_an_object", "Plates", "must be an object.")])
    return rough_system(kind, {name: _plate(name, value) for name, value in plates.items()})


def _plate(name: str, value: Any) -> Any:
    """A plate's figure, in SI or as typed with its unit."""
    dimensions = _PLATES.get(name, ())
    typed = (as_typed(value, dimension) for dimension in dimensions)
    return next((each for each in typed if not isinstance(each, str)), value)


def _in_si(troubles: Troubles[Any], each: Any) -> Any:
    """An observation with its figures in SI; anything that is none as it is."""
    item = troubles.item(str(each.get("item"))) if isinstance(each, Mapping) else None
    if item is None or not item.is_figure:
        return each
    return {**each, "value": as_typed(each.get("value"), item.dimension)}


def _unknown_keys(
    given: Mapping[str, Any], known: Sequence[str], path: str, title: str
) -> list[Fault]:
    says = f"has nothing like “{{}}”. It may have {', '.join(known)}."
    return [
        _fault(f"{path}{key}", "unknown_field", title, says.format(str(key)[:40]))
        for key in given
        if key not in known
    ]


def _list_faults(evidence: Any) -> Iterator[Fault]:
    if not isinstance(evidence, list) or len(evidence) > _MOST:
        says = f"must be a list of at most {_MOST}."
        yield _fault("evidence", "not_a_list", "Evidence", says)


def _condition_faults(raw: Mapping[str, Any]) -> Iterator[Fault]:
    if raw.get("condition", "powered") not in _CONDITIONS:
        says = f"must be one of {', '.join(_CONDITIONS)}."
        yield _fault("condition", "not_a_choice", "Condition", says)


def _impossible_faults(raw: Mapping[str, Any], troubles: Troubles[Any]) -> Iterator[Fault]:
    given = raw.get("impossible", [])
    if not isinstance(given, list) or not all(isinstance(each, str) for each in given):
        says = "must be a list of ids."
        yield _fault("impossible", "not_a_list", "Impossible", says)
        return
    for at, id in enumerate(given):
        if troubles.item(id) is None:
            yield _fault(f"impossible.{at}", "not_a_choice", f"“{id[:40]}”", _NOT_ASKED)


def _evidence_faults(troubles: Troubles[Any], each: Any, path: str) -> Iterable[Fault]:
    if not isinstance(each, Mapping):
        return [_fault(path, "not_an_object", "Evidence", "must be an object.")]
    item = troubles.item(str(each.get("item")))
    if item is None:
        title = f"“{str(each.get('item'))[:40]}”"
        return [_fault(f"{path}.item", "not_a_choice", title, _NOT_ASKED)]
    return [
        *_unknown_keys(each, _SEEN_KEYS, f"{path}.", item.title),
        *_value_faults(item, each.get("value"), f"{path}.value"),
        *_context_faults(item, each.get("context", []), f"{path}.context"),
        *_again_faults(item, each.get("again", False), f"{path}.again"),
    ]


def _value_faults(item: Item, value: Any, path: str) -> list[Fault]:
    if item.never and value is True:
        return []
    if not item.is_figure:
        if isinstance(value, bool):
            return []
        return [_fault(path, "not_a_flag", item.title, "must be true or false.")]
    if value is None:
        return [_fault(path, "missing", item.title, "is missing.")]
    if isinstance(value, str):
        unit = unit_for(item.dimension, SYSTEMS[0]).symbol
        says = f"must be a number in SI, or typed with its unit, as “38 {unit}”."
        return [_fault(path, "not_a_number", item.title, says)]
    return check(figure_spec([item]), value, path)


def _context_faults(item: Item, given: Any, path: str) -> list[Fault]:
    says = "must be left out, or two numbers that it was taken between."
    fault = [_fault(path, "not_a_list", item.title, says)]
    if not isinstance(given, list) or len(given) not in (0, 2):
        return fault
    spec = Spec(kind="quantity", title=item.title, dimension="number", least=0, most=1e8)
    return fault if any(check(spec, each, path) for each in given) else []


def _again_faults(item: Item, given: Any, path: str) -> list[Fault]:
    says = "once more must be true or false."
    return [] if isinstance(given, bool) else [_fault(path, "not_a_flag", item.title, says)]


def _observed(each: Mapping[str, Any]) -> Observation:
    context, again = tuple(each.get("context", ())), each.get("again", False)
    return Observation(each["item"], each["value"], context, again)


def trouble_schema() -> dict[str, Any]:
    """JSON Schema of a file of evidence, with the ids and words of every item of every kind.

    Returns:
        The schema as plain values.
    """
    return {
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        "title": "Zero Dip evidence of a trouble",
        "type": "object",
        "required": ["evidence"],
        "properties": {
            "kind": {"enum": list(KINDS), "description": "The kind; or give a system_file."},
            "plates": {
                "type": "object",
                "description": "Of a kind: what was read of its plates, SI.",
                "properties": {name: {"type": ["number", "string"]} for name in ROUGH},
            },
            "system_file": {"type": "object", "description": "See system.schema.json."},
            "condition": {"enum": list(_CONDITIONS)},
            "impossible": {"type": "array", "items": {"type": "string"}},
            "evidence": {"type": "array", "maxItems": _MOST, "items": {"oneOf": _item_schemas()}},
        },
    }


def _item_schemas() -> list[dict[str, Any]]:
    kinds: dict[str, list[str]] = {}
    items: dict[str, Item] = {}
    for kind in KINDS.values():
        for item in kind.troubles.items:
            kinds.setdefault(f"{item.id} {item.asks}", []).append(kind.id)
            items[f"{item.id} {item.asks}"] = item
    return [_item_schema(item, kinds[key]) for key, item in items.items()]


_FALLS = "Of a fall: where the gauge stood at first (Pa), and how long it was watched (s)."
_CONTEXTS = {
    "caught": "Of a catch: the gauge where it began and where it ended (Pa).",
    **dict.fromkeys(("fall_open", "fall_shut", "fall_pump_shut"), _FALLS),
}


def _item_schema(item: Item, kinds: list[str]) -> dict[str, Any]:
    value: dict[str, Any] = {"type": "boolean"}
    if item.is_figure:
        number = {"type": "number", "minimum": item.least, "maximum": item.most}
        value = {"oneOf": [number, {"type": "string", "description": "With its unit: “38 psi”."}]}
    if item.never:
        value["oneOf"].append({"const": True, "description": item.never})
    return {
        "type": "object",
        "title": item.title,
        "description": f"{item.asks} {f'SI, {item.dimension}. ' if item.dimension else ''}"
        f"Asked of: {', '.join(kinds)}.",
        "required": ["item", "value"],
        "properties": {
            "item": {"const": item.id},
            "value": value,
            "context": {
                "type": "array",
                "items": {"type": "number"},
                "maxItems": 2,
                "description": _CONTEXTS.get(item.id, "Left out: it is taken by itself."),
            },
            "again": {"type": "boolean", "description": "Looked at once more."},
        },
    }
