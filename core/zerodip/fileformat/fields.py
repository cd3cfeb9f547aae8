"""What a field of the file format is: its title, dimension and allowed range, said once.

From these specifications come the reading of a file with every fault named, the checks of a
dataclass built in Python, the JSON Schema and the tables an interface needs. A class that derives
from `Checked` declares its fields with `quantity`, `choice`, `flag`, `words`, `marks`, `part` and
`parts`, and checks between fields in `cross`.
"""

import dataclasses
import math
from collections.abc import Callable, Iterable, Mapping, Sequence
from dataclasses import MISSING, dataclass, field
from typing import Any, ClassVar, TypeVar

from zerodip.errors import Fault, InvalidInput

__all__ = [
    "Checked",
    "Spec",
    "check",
    "choice",
    "classes_of",
    "flag",
    "marks",
    "part",
    "parts",
    "quantity",
    "read",
    "read_part",
    "specs",
    "title_at",
    "variants",
    "words",
]


@dataclass(frozen=True, kw_only=True)
class Spec:
    """One field's specification. `kind` is quantity, choice, flag, words, marks, part or parts. An
    optional field may be left out of a file, or null: it then has its default. Only a nullable one,
    whose default is None, is None in Python."""

    kind: str
    title: str
    dimension: str = "number"
    least: float | None = None
    most: float | None = None
    options: tuple[str, ...] = ()
    of: Callable[[Any], type["Checked"] | None] | None = None
    optional: bool = False
    nullable: bool = False


def _declared(spec: Spec, default: Any) -> Any:
    metadata = {
        "spec": dataclasses.replace(spec, optional=default is not MISSING, nullable=default is None)
    }
    return (
        field(metadata=metadata)
        if default is MISSING
        else field(default=default, metadata=metadata)
    )


def quantity(title: str, dimension: str, least: float, most: float, default: Any = MISSING) -> Any:
    """A number in SI between `least` and `most`, both allowed. A default of None makes it a reading
    that may be missing."""
    return _declared(
        Spec(kind="quantity", title=title, dimension=dimension, least=least, most=most), default
    )


def choice(title: str, options: Iterable[str], default: Any = MISSING) -> Any:
    """One of `options`."""
    return _declared(Spec(kind="choice", title=title, options=tuple(options)), default)


def flag(title: str) -> Any:
    """Yes, no, or not looked at yet (None, the default)."""
    return _declared(Spec(kind="flag", title=title), None)


def words(title: str, most: int, default: Any = "") -> Any:
    """A text of at most `most` characters, without control characters."""
    return _declared(Spec(kind="words", title=title, most=most), default)


def marks(title: str, most: int) -> Any:
    """At most `most` paths that are marked; in a file an object of paths, each true, so that two
    people may each take one away."""
    return _declared(Spec(kind="marks", title=title, most=most), ())


def part(
    title: str,
    of: type["Checked"] | Callable[[Any], type["Checked"] | None],
    default: Any = MISSING,
) -> Any:
    """Another checked object; `of` is its class, or a function from the raw value to its class (see
    `variants`)."""
    return _declared(Spec(kind="part", title=title, of=_class_finder(of)), default)


def parts(title: str, of: type["Checked"], least: int, most: int) -> Any:
    """A list of `least` to `most` checked objects."""
    return _declared(
        Spec(kind="parts", title=title, of=_class_finder(of), least=least, most=most), MISSING
    )


Variants = Callable[[], Mapping[str, type["Checked"]]]


@dataclass(frozen=True)
class ByTag:
    """Chooses a class by the value of the field `tag`; `classes` tells those that there are now."""

    tag: str
    classes: Variants

    def __call__(self, raw: Any) -> type["Checked"] | None:
        named = raw.get(self.tag) if isinstance(raw, Mapping) else None
        return self.classes().get(named) if isinstance(named, str) else None


def variants(tag: str, classes: Variants) -> ByTag:
    """Chooses a class by the value of the field `tag`."""
    return ByTag(tag, classes)


def classes_of(spec: Spec) -> list[type["Checked"]]:
    """The classes that a part may be, each once; none where the field is no part."""
    if spec.of is None:
        return []
    if isinstance(spec.of, ByTag):
        return list(dict.fromkeys(spec.of.classes().values()))
    return [cls] if (cls := spec.of(None)) else []


def _class_finder(of: Any) -> Callable[[Any], type["Checked"] | None]:
    return (lambda raw: of) if isinstance(of, type) else of


_SPECS: dict[type, dict[str, Spec]] = {}


def specs(cls: type["Checked"]) -> dict[str, Spec]:
    """The specifications of `cls`'s fields by name, in order."""
    if cls not in _SPECS:
        _SPECS[cls] = {
            f.name: f.metadata["spec"] for f in dataclasses.fields(cls) if "spec" in f.metadata
        }
    return _SPECS[cls]


@dataclass(frozen=True)
class Checked:
    """A frozen dataclass that refuses impossible values when it is built. Raises InvalidInput with
    all its faults."""

    tag: ClassVar[tuple[str, str] | None] = None

    def __post_init__(self) -> None:
        values = {name: getattr(self, name) for name in specs(type(self))}
        faults = [
            f for name, spec in specs(type(self)).items() for f in check(spec, values[name], name)
        ]
        faults += [] if faults else list(self.cross(values))
        if faults:
            raise InvalidInput(faults)

    @classmethod
    def cross(cls, values: Mapping[str, Any]) -> Iterable[Fault]:
        """Faults between fields. `values` holds the fields that are right by themselves; others are
        absent."""
        return ()


def check(spec: Spec, value: Any, path: str) -> list[Fault]:
    """The faults of one value by itself, whatever it is; parts are checked by reading them."""
    if spec.kind == "parts" and isinstance(value, tuple):
        return _count_faults(spec, value, path)
    if spec.kind in ("part", "parts") or (value is None and spec.nullable):
        return []
    if value is None:
        return [_fault(spec, path, "missing", "is missing.")]
    return _CHECKS[spec.kind](spec, value, path)


def _count_faults(spec: Spec, value: Sequence[Any], path: str) -> list[Fault]:
    least, most = spec.least or 0, spec.most or math.inf
    if least <= len(value) <= most:
        return []
    says = f"must be a list of {least:.0f} to {most:.0f}."
    return [Fault(path=path, code="not_a_list", title=spec.title, says=says)]


def _quantity_faults(spec: Spec, value: Any, path: str) -> list[Fault]:
    if isinstance(value, bool) or not isinstance(value, int | float):
        return [_fault(spec, path, "not_a_number", "is not a number.")]
    if isinstance(value, int) and abs(value) > 10**300:
        return [_fault(spec, path, "too_large", "is far too large.")]
    if not math.isfinite(value):
        return [_fault(spec, path, "not_finite", "must be a finite number.")]
    if spec.least is not None and value < spec.least:
        return [_out_of_range(spec, path, "too_small", value)]
    if spec.most is not None and value > spec.most:
        return [_out_of_range(spec, path, "too_large", value)]
    return []


def _choice_faults(spec: Spec, value: Any, path: str) -> list[Fault]:
    if isinstance(value, str) and value in spec.options:
        return []
    return [_fault(spec, path, "not_a_choice", f"must be one of: {', '.join(spec.options)}.")]


def _flag_faults(spec: Spec, value: Any, path: str) -> list[Fault]:
    return (
        []
        if isinstance(value, bool)
        else [_fault(spec, path, "not_yes_or_no", "must be true, false or null.")]
    )


def _words_faults(spec: Spec, value: Any, path: str) -> list[Fault]:
    if not isinstance(value, str):
        return [_fault(spec, path, "not_text", "must be text.")]
    if len(value) > (spec.most or 0):
        return [_fault(spec, path, "too_long", f"is longer than {spec.most:.0f} characters.")]
    if not value.isprintable():
        return [_fault(spec, path, "not_printable", "holds characters that cannot be printed.")]
    return []


def _marks_faults(spec: Spec, value: Any, path: str) -> list[Fault]:
    most = spec.most or 0
    if len(value) > most or not all(isinstance(at, str) and len(at) <= 120 for at in value):
        says = f"must be an object of at most {most:.0f} paths, each true."
        return [_fault(spec, path, "not_an_object", says)]
    return []


_CHECKS = {
    "marks": _marks_faults,
    "quantity": _quantity_faults,
    "choice": _choice_faults,
    "flag": _flag_faults,
    "words": _words_faults,
}


def _fault(spec: Spec, path: str, code: str, says: str) -> Fault:
    return Fault(
        path=path,
        code=code,
        title=spec.title,
        says=says,
        least=spec.least,
        most=spec.most,
        dimension=spec.dimension,
    )


def _out_of_range(spec: Spec, path: str, code: str, value: float) -> Fault:
    return Fault(
        path=path,
        code=code,
        title=spec.title,
        value=float(value),
        least=spec.least,
        most=spec.most,
        dimension=spec.dimension,
    )


def title_at(part: Checked, steps: Sequence[str]) -> str:
    """The title of the field that steps lead to from a checked object; the last that has one where
    they lead out of it."""
    value: Any = part
    title = ""
    for step in steps:
        if step.isdigit() and isinstance(value, tuple):
            value = value[int(step)] if int(step) < len(value) else None
        elif isinstance(value, Checked) and step in specs(type(value)):
            title, value = specs(type(value))[step].title, getattr(value, step)
    return title


C = TypeVar("C", bound=Checked)


def read(cls: type[C], raw: Any, path: str = "") -> tuple[C | None, list[Fault]]:
    """Reads `raw` as a `cls`: the object and no faults, or None and every fault."""
    if not isinstance(raw, Mapping):
        return None, [
            Fault(
                path=path,
                code="not_an_object",
                title=path or "The file",
                says="must be a JSON object.",
            )
        ]
    values, faults = {}, _unknown_faults(cls, raw, path)
    for name, spec in specs(cls).items():
        value, found = _read_field(spec, raw, name, _join(path, name))
        faults += found
        if not found and raw.get(name) is not None:
            values[name] = value
    faults += [dataclasses.replace(f, path=_join(path, f.path)) for f in cls.cross(values)]
    return (None, faults) if faults else (cls(**values), [])


def _join(path: str, name: str) -> str:
    return f"{path}.{name}" if path else name


def _unknown_faults(cls: type[Checked], raw: Mapping[str, Any], path: str) -> list[Fault]:
    known = {*specs(cls), cls.tag[0] if cls.tag else ""}
    unknown = [str(name)[:60] for name in raw if name not in known]
    return [
        Fault(
            path=_join(path, name),
            code="unknown_field",
            title=f"“{name}”",
            says="is not a field here.",
        )
        for name in unknown
    ]


def _read_field(
    spec: Spec, raw: Mapping[str, Any], name: str, path: str
) -> tuple[Any, list[Fault]]:
    if name not in raw:
        return None, [] if spec.optional else [_fault(spec, path, "missing", "is missing.")]
    value = raw[name]
    if value is None and spec.optional:
        return None, []
    if spec.kind == "part":
        return read_part(spec, value, path)
    if spec.kind == "parts":
        return _read_parts(spec, value, path)
    if spec.kind == "marks":
        return _read_marks(spec, value, path)
    faults = check(spec, value, path)
    return (None, faults) if faults else (float(value) if spec.kind == "quantity" else value, [])


def _read_marks(spec: Spec, value: Any, path: str) -> tuple[Any, list[Fault]]:
    if not isinstance(value, Mapping) or any(mark is not True for mark in value.values()):
        return None, [_fault(spec, path, "not_an_object", "must be an object of paths, each true.")]
    marked = tuple(sorted(value))
    faults = check(spec, marked, path)
    return (None, faults) if faults else (marked, [])


def read_part(spec: Spec, value: Any, path: str) -> tuple[Any, list[Fault]]:
    """Reads `value` as one of the classes of a part's specification: the object and no faults, or
    None and every fault."""
    if not isinstance(value, Mapping):
        return None, [_fault(spec, path, "not_an_object", "must be a JSON object.")]
    cls = spec.of(value) if spec.of else None
    if cls is None:
        return None, [_no_variant(spec, path)]
    return read(cls, value, path)


def _no_variant(spec: Spec, path: str) -> Fault:
    if not isinstance(spec.of, ByTag):
        raise TypeError(f"{spec.title} has no class")
    says = f"must be one of: {', '.join(spec.of.classes())}."
    title = f"{spec.title} {spec.of.tag}"
    return Fault(path=_join(path, spec.of.tag), code="not_a_choice", title=title, says=says)


def _read_parts(spec: Spec, value: Any, path: str) -> tuple[Any, list[Fault]]:
    faults = _count_faults(spec, value if isinstance(value, list) else [], path)
    if faults:
        return None, faults
    (cls,) = classes_of(spec)
    outcomes = [read(cls, item, _join(path, str(at))) for at, item in enumerate(value)]
    faults = [fault for _, found in outcomes for fault in found]
    return (None, faults) if faults else (tuple(item for item, _ in outcomes), [])
