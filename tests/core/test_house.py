"""The core's own order: no framework, documented functions, small files, public names that exist."""

import ast
import importlib
import pkgutil
import re
from pathlib import Path

import pytest

import zerodip
from zerodip import errors

ROOT = Path(__file__).resolve().parents[2]
MODULES = [name for _, name, _ in pkgutil.walk_packages(zerodip.__path__, "zerodip.") if not name.endswith("__main__")]
SOURCES = sorted((ROOT / "core" / "zerodip").rglob("*.py"))
STANDARD = {
    "argparse", "bisect", "collections", "dataclasses", "datetime", "enum", "functools", "itertools", "json", "math",
    "pathlib", "statistics", "string", "sys", "types", "typing", "zerodip",
}  # fmt: skip


@pytest.mark.parametrize("source", SOURCES, ids=lambda path: path.name)
def test_only_the_standard_library_is_imported(source: Path) -> None:
    for node in ast.walk(ast.parse(source.read_text(encoding="utf-8"))):
        if isinstance(node, ast.Import):
            assert {alias.name.split(".")[0] for alias in node.names} <= STANDARD
        if isinstance(node, ast.ImportFrom) and node.level == 0:
            assert str(node.module).split(".")[0] in STANDARD


@pytest.mark.parametrize("name", MODULES)
def test_public_names_exist_and_are_documented(name: str) -> None:
    module = importlib.import_module(name)
    assert module.__doc__
    for public in getattr(module, "__all__", ()):
        thing = getattr(module, public)
        if callable(thing):
            assert thing.__doc__, f"{name}.{public}"


PHYSICS = [m for m in MODULES if re.search(r"\.(tanks|pumps|cycles|plant|atmosphere)", m)]


@pytest.mark.parametrize("name", PHYSICS)
def test_physics_says_its_source_and_its_units(name: str) -> None:
    module = importlib.import_module(name)
    functions = [f for f in (getattr(module, n) for n in getattr(module, "__all__", ())) if hasattr(f, "__code__")]
    text = " ".join([module.__doc__ or "", *(f.__doc__ or "" for f in functions)])
    if functions:
        assert re.search(r"Source:|standard|law|Fritsch", text), name
        assert re.search(r"Pa|m³|\bm\b|\bs\b", text), name


def test_the_error_tree_is_whole() -> None:
    tree = [e for e in vars(errors).values() if isinstance(e, type) and issubclass(e, errors.ZeroDipError)]
    assert {e.__name__ for e in tree} <= set(errors.__all__)
    assert all(e.code and e.__name__ in (errors.__doc__ or "") for e in tree)


def test_no_file_is_long_and_functions_are_short() -> None:
    lengths = []
    for source in SOURCES:
        text = source.read_text(encoding="utf-8")
        assert text.count("\n") <= 400, source
        for node in ast.walk(ast.parse(text)):
            if isinstance(node, ast.FunctionDef):
                lengths.append((node.end_lineno or 0) - node.body[0].lineno + 1)
    lengths.sort()
    assert lengths[len(lengths) * 9 // 10] <= 25
