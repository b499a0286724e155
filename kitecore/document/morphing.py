"""Several states of one thing as one thing whose values have keys."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any, Final, TypeVar

from pydantic.fields import FieldInfo

from kitecore.document.ease import Ease
from kitecore.document.fields import classes_in
from kitecore.document.paths import Contour, PathKeys
from kitecore.document.properties import Keys, has_keys
from kitecore.model import Model

M = TypeVar("M", bound=Model)

_OWN: Final = frozenset({"id", "name", "tag", "markers", "rides", "start", "length"})
"""What states do not share: who and when they are."""

Stops = Sequence[int]


class Unlike(Exception):
    """States differ in what cannot move from one to another."""


def morphed(states: Sequence[M], at: Stops, ease: Ease) -> M:
    """The first state, with keys where the others differ.

    Parameters
    ----------
    states
        Of one kind, without keys where they differ.
    at
        Ticks of the keys, one for each state, rising.
    ease
        From key to key.

    Raises
    ------
    Unlike
        If they differ in what takes no keys, or in how many points or parts they have.
    """
    first = states[0]
    update = {
        name: _between([getattr(one, name) for one in states], field, at, ease)
        for name, field in type(first).model_fields.items()
        if name not in _OWN
    }
    changed = {name: new for name, new in update.items() if new is not getattr(first, name)}
    return first.model_copy(update=changed) if changed else first


def _between(values: list[Any], field: FieldInfo | None, at: Stops, ease: Ease) -> Any:
    first = values[0]
    if all(one is first or one == first for one in values):
        return first
    kinds = {type(one) for one in values}
    if len(kinds) == 1 and isinstance(first, Model) and not isinstance(first, Keys):
        return morphed(values, at, ease)
    keyed = _keys_of(field)
    if keyed is not None and not any(has_keys(one) for one in values) and _alike(keyed, values):
        steps = zip(at, values, strict=True)
        plain = [{"at": tick, "value": value, "ease": ease} for tick, value in steps]
        return keyed.model_validate({"keys": plain})
    if isinstance(first, tuple) and len({len(one) for one in values}) == 1:
        parts = zip(*values, strict=True)
        return tuple(_between(list(part), None, at, ease) for part in parts)
    raise Unlike


def _keys_of(field: FieldInfo | None) -> type[Keys[Any]] | None:
    """The first kind of keys that a field takes."""
    if field is None:
        return None
    found = (one for one in classes_in(field.annotation) if issubclass(one, Keys))
    return next(found, None)


def _alike(keyed: type[Keys[Any]], values: list[Any]) -> bool:
    """Paths move only if they have as many contours, points, and are as open."""
    return keyed is not PathKeys or len({_form(one) for one in values}) == 1


def _form(contours: tuple[Contour, ...]) -> tuple[tuple[int, bool], ...]:
    return tuple((len(one.nodes), one.closed) for one in contours)
