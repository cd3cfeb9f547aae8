"""The core's own order: no framework, documented functions, small files, public names that
exist."""

import ast
import importlib
import inspect
import pkgutil
import re
from collections.abc import Iterator
from pathlib import Path
from types import FunctionType

import pytest

import zerodip
from zerodip import errors

ROOT = Path(__file__).resolve().parents[2]
DOCUMENTED = ("physics", "kinds", "decide", "switch", "visit", "trends", "recording")
MODULES = [
    name
    for _, name, _ in pkgutil.walk_packages(zerodip.__path__, "zerodip.")
    if not name.endswith("__main__")
]
RECORDING = ROOT / "core" / "zerodip" / "recording"  # the server's alone
SOURCES = sorted((ROOT / "core" / "zerodip").rglob("*.py"))
STANDARD = {
    "abc",
    "argparse",
    "bisect",
    "calendar",
    "collections",
    "contextlib",
    "copy",
    "dataclasses",
    "datetime",
    "enum",
    "fractions",
    "functools",
    "itertools",
    "json",
    "math",
    "operator",
    "os",
    "pathlib",
    "re",
    "statistics",
    "string",
    "sys",
    "types",
    "typing",
    "zerodip",
}


@pytest.mark.parametrize(
    "source",
    [each for each in SOURCES if RECORDING not in each.parents],
    ids=lambda path: path.name,
)
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


FUNCTIONS = [
    pytest.param(function, id=f"{name}.{public}")
    for name in MODULES
    if name.split(".")[1:2] and name.split(".")[1] in DOCUMENTED
    for public in getattr(importlib.import_module(name), "__all__", ())
    if inspect.isfunction(function := getattr(importlib.import_module(name), public))
]


@pytest.mark.parametrize("function", FUNCTIONS)
def test_a_public_function_tells_what_it_takes_and_gives(function: FunctionType) -> None:
    """Each by itself; that the names are those of the signature is the linter's."""
    told = function.__doc__ or ""
    assert "\nReturns:\n" in inspect.cleandoc(told) or "\nYields:\n" in inspect.cleandoc(told)
    if inspect.signature(function).parameters:
        assert "\nArgs:\n" in inspect.cleandoc(told)
    if ".physics." in function.__module__:
        assert "Source: " in told
        assert re.search(r"Pa\b|m³|\bm\b|\bs\b|1/s|whole|index|times the", told)


def test_functions_are_found() -> None:
    assert len(FUNCTIONS) > 150


def test_the_error_tree_is_whole() -> None:
    tree = [
        e
        for e in vars(errors).values()
        if isinstance(e, type) and issubclass(e, errors.ZeroDipError)
    ]
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


def _said(tree: ast.Module) -> Iterator[str]:
    """The texts of a module that are not documentation; what is filled in counts as one word."""
    quiet = {id(node.value) for node in ast.walk(tree) if isinstance(node, ast.Expr)}
    for node in ast.walk(tree):
        if isinstance(node, ast.JoinedStr):
            quiet |= {id(each) for each in node.values}
            yield "".join(
                str(each.value) if isinstance(each, ast.Constant) else "X" for each in node.values
            )
    for node in ast.walk(tree):
        if isinstance(node, ast.Constant) and isinstance(node.value, str) and id(node) not in quiet:
            yield node.value


@pytest.mark.parametrize("source", SOURCES, ids=lambda path: path.name)
def test_what_is_said_is_said_in_short_sentences(source: Path) -> None:
    """To be read on a phone at arm's length; formulas are longer."""
    for text in _said(ast.parse(source.read_text(encoding="utf-8"))):
        for sentence in re.split(r"(?<=[.!?:;])\s+", text):
            assert "=" in sentence or len(sentence.split()) <= 20 or "−" in sentence, sentence
