"""What documents, edits and kept settings lead to that lies outside of them: takes, looks, fonts.

A field that names such a thing says so in its type; whoever asks finds it however deep it lies.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass
from functools import cache
from typing import Annotated, Literal, TypeVar

from pydantic import Field, GetJsonSchemaHandler
from pydantic.fields import FieldInfo
from pydantic.json_schema import JsonSchemaValue
from pydantic_core import CoreSchema

from kitecore.document.fields import leading
from kitecore.model import Id, Model, Name

Kind = Literal["take", "look", "font"]
Reference = tuple[Kind, str]
Renaming = Callable[[Kind, str], str]
"""What a thing of a kind, named so, is called instead."""
M = TypeVar("M")


@dataclass(frozen=True)
class Refers:
    """Marks a field that holds the id or name, or several, of things outside of the document."""

    to: Kind

    def __get_pydantic_json_schema__(
        self, schema: CoreSchema, handler: GetJsonSchemaHandler
    ) -> JsonSchemaValue:
        return handler(schema) | {"refers": self.to}


TakeId = Annotated[Id, Refers("take")]
TakeIds = Annotated[tuple[Id, ...], Refers("take")]
LookName = Annotated[Name, Refers("look")]
FontName = Annotated[
    str, Field(min_length=1, max_length=80, pattern=r"^[a-z0-9-]+$"), Refers("font")
]
"""Of a shipped font, or the id of one that was brought in."""


def references(*things: object) -> frozenset[Reference]:
    """All that models, or tuples of them, name that lies outside; empty names are none."""
    return frozenset(found for thing in things for found in _found(thing))


def _found(thing: object) -> Iterator[Reference]:
    if isinstance(thing, tuple):
        for one in thing:
            yield from _found(one)
    elif isinstance(thing, Model):
        for name, kind in _fields(type(thing)):
            value = getattr(thing, name)
            if kind is None:
                yield from _found(value)
            else:
                named = value if isinstance(value, tuple) else (value,)
                yield from ((kind, one) for one in named if one)


def renamed(thing: M, name: Renaming) -> M:
    """A copy of a model in which everything that lies outside is called as ``name`` says."""
    if isinstance(thing, tuple):
        return tuple(renamed(one, name) for one in thing)  # type: ignore[return-value]
    if not isinstance(thing, Model):
        return thing
    changed: dict[str, object] = {}
    for field, kind in _fields(type(thing)):
        old = getattr(thing, field)
        new = renamed(old, name) if kind is None else _called(old, kind, name)
        if new != old:
            changed[field] = new
    return thing.model_copy(update=changed) if changed else thing  # type: ignore[return-value]


def _called(value: object, kind: Kind, name: Renaming) -> object:
    if isinstance(value, tuple):
        return tuple(name(kind, one) for one in value)
    return name(kind, value) if isinstance(value, str) and value else value


@cache
def _fields(model: type[Model]) -> tuple[tuple[str, Kind | None], ...]:
    """Fields that name something, with what, and those that hold what does."""
    fields = model.model_fields
    return tuple((name, _kind(fields[name])) for name in leading(model, _names))


def _names(field: FieldInfo) -> bool:
    return _kind(field) is not None


def _kind(field: FieldInfo) -> Kind | None:
    return next((one.to for one in field.metadata if isinstance(one, Refers)), None)
