"""Writes what the server tells in words, so that all texts of a language lie in one place.

Errors and the labels of steps are found where they are written, names and help of parameters in the
models that they describe. What is put in between, such as a name or a number, is ``{0}``, ``{1}``.
"""

from __future__ import annotations

import ast
import json
import re
from collections.abc import Iterable, Iterator
from pathlib import Path

ROOT = Path(__file__).parents[1]
FILE = ROOT / "web/src/texts/en/told.json"
_SAID = ("message", "safe", "todo")
_WRITTEN = frozenset({"title", "help", "label", "default_safe", "default_todo"})
"""What models, registries and errors call their words, as attributes or arguments."""
_WORDS_IN_A_KEY = 8


def templates() -> list[str]:
    """Every text that the server may tell, in order."""
    trees = [ast.parse(path.read_text()) for path in _sources()]
    errors = _error_names(trees)
    found = {text for tree in trees for text in _texts(tree, errors)}
    return sorted(text for text in found | set(_described()) if re.search(r"[A-Za-z]{2}", text))


def keyed(texts: Iterable[str]) -> dict[str, str]:
    """Each under a key made of its first words."""
    keys: dict[str, str] = {}
    for text in texts:
        words = re.findall(r"[A-Za-z0-9]+", re.sub(r"\{\d+\}", " ", text)) or ["text"]
        first, *rest = words[:_WORDS_IN_A_KEY]
        key = base = first.lower() + "".join(word.capitalize() for word in rest)
        number = 2
        while key in keys:
            key, number = f"{base}{number}", number + 1
        keys[key] = text
    return keys


def content() -> str:
    return json.dumps({"told": keyed(templates())}, ensure_ascii=False, indent=2) + "\n"


def _sources() -> Iterator[Path]:
    for folder in ("kitecore", "studio"):
        for path in sorted((ROOT / folder).rglob("*.py")):
            if not {"tests", "migrations", "management"} & set(path.parts):
                yield path


def _error_names(trees: list[ast.Module]) -> set[str]:
    """Names of all classes that come from `KiteError`, and of it."""
    bases = {
        node.name: {base.id for base in node.bases if isinstance(base, ast.Name)}
        for tree in trees
        for node in ast.walk(tree)
        if isinstance(node, ast.ClassDef)
    }
    names = {"KiteError"}
    while more := {name for name, known in bases.items() if known & names} - names:
        names |= more
    return names


def _texts(tree: ast.Module, errors: set[str]) -> Iterator[str]:
    for node in ast.walk(tree):
        if isinstance(node, ast.Call):
            yield from _of_call(node, errors)
        elif isinstance(node, ast.FunctionDef) and node.name == "label":
            for inner in ast.walk(node):
                if isinstance(inner, ast.Return):
                    yield from _written(inner.value)
        elif isinstance(node, ast.Assign | ast.AnnAssign):
            targets = node.targets if isinstance(node, ast.Assign) else [node.target]
            names = {one.id for one in targets if isinstance(one, ast.Name)}
            if names & _WRITTEN:
                yield from _written(node.value)


def _of_call(call: ast.Call, errors: set[str]) -> Iterator[str]:
    called = call.func.id if isinstance(call.func, ast.Name) else ""
    if called in errors and call.args:
        yield from _written(call.args[0])
    for given in call.keywords:
        if given.arg in _WRITTEN or (given.arg in _SAID and called in errors):
            yield from _written(given.value)


def _written(node: ast.expr | None) -> Iterator[str]:
    """The texts that an expression may be, with numbers in place of what is put in."""
    if isinstance(node, ast.Constant) and isinstance(node.value, str):
        yield node.value
    elif isinstance(node, ast.IfExp):
        yield from _written(node.body)
        yield from _written(node.orelse)
    elif isinstance(node, ast.JoinedStr):
        count, parts = 0, []
        for part in node.values:
            if isinstance(part, ast.Constant):
                parts.append(str(part.value))
            else:
                parts.append(f"{{{count}}}")
                count += 1
        yield "".join(parts)


def _described() -> Iterator[str]:
    """Names, units, choices and help of all parameters, and titles of what has them."""
    from studio.kit import api, layers, moves

    answers = (
        api.grade_controls(None),  # type: ignore[arg-type]
        layers.layer_controls(None),  # type: ignore[arg-type]
        moves.move_controls(None),  # type: ignore[arg-type]
    )
    for answer in answers:
        yield from _words_in(answer.model_dump())


def _words_in(data: object) -> Iterator[str]:
    if isinstance(data, dict):
        for key, value in data.items():
            if key in ("title", "help", "label") and isinstance(value, str):
                yield value
            elif key == "name" and "control" in data:
                yield str(value).replace("_", " ")
            elif key == "choices":
                yield from (str(one).replace("_", " ") for one in value)
            else:
                yield from _words_in(value)
    elif isinstance(data, list | tuple):
        for one in data:
            yield from _words_in(one)


if __name__ == "__main__":
    import os

    import django

    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "studio.settings")
    django.setup()
    FILE.write_text(content())
