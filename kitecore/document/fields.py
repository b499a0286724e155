"""Which fields of a model can lead to what is looked for, so that the others are left aside."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from functools import cache
from typing import Any, get_args

from pydantic.fields import FieldInfo

from kitecore.model import Model

Wanted = Callable[[FieldInfo], bool]


@cache
def leading(model: type[Model], wanted: Wanted) -> tuple[str, ...]:
    """Fields that are ``wanted``, or in whose models, however deep, some field is."""
    return tuple(
        name
        for name, field in model.model_fields.items()
        if wanted(field) or _leads(field, wanted, set())
    )


def classes_in(annotation: Any) -> Iterator[type]:
    """The classes that a type is put together of."""
    if isinstance(annotation, type):
        yield annotation
    for part in get_args(annotation):
        yield from classes_in(part)


def _leads(field: FieldInfo, wanted: Wanted, passed: set[type[Model]]) -> bool:
    for one in classes_in(field.annotation):
        if issubclass(one, Model):
            for model in _with_kinds(one):
                if model in passed:
                    continue
                passed.add(model)
                inner = model.model_fields.values()
                if any(wanted(each) or _leads(each, wanted, passed) for each in inner):
                    return True
    return False


def _with_kinds(model: type[Model]) -> Iterator[type[Model]]:
    """A model and the kinds of it: where one is named, each of them may stand."""
    yield model
    for kind in model.__subclasses__():
        yield from _with_kinds(kind)
