"""Properties of clips by path: ``place/turn``, ``fill/stops/1/colour``, ``effects/ID/strength``.

Parts of lists are named by their id, or by their number; the numbers of a point are ``across`` and
``down``.
"""

from __future__ import annotations

from collections.abc import Callable
from typing import Any, Final, TypeVar

from pydantic import ValidationError

from kitecore.document import ClipBase, Model
from kitecore.document.properties import Axes
from kitecore.errors import EditRefused

M = TypeVar("M", bound=Model)

ARRANGED: Final = {"kind", "id", "start", "length", "media", "source_in", "source_length", "tracks"}
"""Fields that other edits take care of."""
AXES: Final = tuple(Axes.model_fields)


def has(model: Any, path: str) -> bool:
    """Whether a clip has a property that can be set."""
    head, _, rest = path.partition("/")
    if isinstance(model, Model):
        fixed = ARRANGED if isinstance(model, ClipBase) else {"id"}
        if head in fixed or head not in type(model).model_fields:
            return False
        inner = getattr(model, head)
    elif isinstance(model, tuple):
        found = _place(model, head)
        if found is None:
            return False
        inner = model[found]
    else:
        return False
    return has(inner, rest) if rest else True


def read(model: Any, path: str) -> Any:
    """The property at a path that is there."""
    for part in path.split("/"):
        model = model[_index(model, part)] if isinstance(model, tuple) else getattr(model, part)
    return model


def adjusted(clip: ClipBase, values: dict[str, Any]) -> ClipBase:
    """The clip with properties set, from plain data or models. Raises as `with_values`."""
    return with_values(clip, values)


def with_values(model: M, values: dict[str, Any]) -> M:
    """A model with values set by path: the one way in which that is done.

    A part that is not there (null) is made on the way; parts of lists are named by id or number.

    Raises
    ------
    EditRefused
        If there is no such place, or a value does not fit there.
    """
    if not values:
        return model

    def put(data: Any) -> None:
        for path, value in values.items():
            plain = _plain(value)
            if not isinstance(plain, int | float):
                _take_apart(data, path)
            inner, last = _parent(data, path)
            inner[_index(inner, last) if isinstance(inner, list) else last] = plain

    return _changed(model, put)


def whole_of(path: str) -> str:
    """The path of a point to which that of one of its numbers leads; any other path as it is."""
    whole, _, last = path.rpartition("/")
    return whole if last in AXES else path


def _take_apart(data: Any, path: str) -> None:
    """Make room for keys of one number of a point."""
    whole = whole_of(path)
    if whole == path:
        return
    inner, name = _parent(data, whole)
    place = _index(inner, name) if isinstance(inner, list) else name
    point = inner[place]
    if isinstance(point, list) and _is_pair(point):
        inner[place] = dict(zip(AXES, point, strict=True))


def _is_pair(parts: Any) -> bool:
    return len(parts) == 2 and all(isinstance(one, int | float) for one in parts)


def _plain(value: Any) -> Any:
    if isinstance(value, Model):
        return value.model_dump(mode="json")
    return [_plain(one) for one in value] if isinstance(value, tuple) else value


def with_item(model: M, path: str, item: Any, new_id: str, at: int | None = None) -> M:
    """With one more item in the list at a path, at its end or at an index. Raises as the others.

    An item of a kind that has an id gets ``new_id``.
    """
    place = 0

    def put(data: Any) -> None:
        nonlocal place
        items = _list(data, path)
        place = len(items) if at is None else min(at, len(items))
        items.insert(place, item)

    done = _changed(model, put)
    if hasattr(read(done, f"{path}/{place}"), "id"):
        return with_values(done, {f"{path}/{place}/id": new_id})
    return done


def without_item(model: M, path: str) -> M:
    """Without the item of a list that a path leads to. Raises as the others.

    Lists beside it that name its id, as the chain of a warp's pins, name it no longer.
    """

    def take(data: Any) -> None:
        items, last = _parent(data, path)
        if not isinstance(items, list):
            raise EditRefused("That is no part of a list.")
        gone = items.pop(_index(items, last))
        around, _ = _parent(data, path.rpartition("/")[0])
        if isinstance(around, dict) and isinstance(gone, dict) and "id" in gone:
            _forget(around, gone["id"])

    return _changed(model, take)


def _forget(around: dict[str, Any], id: str) -> None:
    for named in around.values():
        if isinstance(named, list) and id in named:
            named.remove(id)


def _changed(model: M, change: Callable[[Any], None]) -> M:
    data = model.model_dump(mode="json")
    change(data)
    try:
        return type(model).model_validate(data)
    except ValidationError as error:
        raise EditRefused(f"That value does not fit: {error.errors()[0]['msg']}.") from error


def _parent(data: Any, path: str) -> tuple[Any, str]:
    """What holds the place that a path leads to, and the name of that place in it."""
    *parents, last = path.split("/")
    for name in parents:
        data = _inner(data, name)
    return data, last


def _inner(data: Any, name: str) -> Any:
    if isinstance(data, list):
        return data[_index(data, name)]
    if not isinstance(data, dict) or name not in data:
        raise EditRefused(f"There is no “{name}” to be set.")
    if data[name] is None:
        data[name] = {}
    return data[name]


def _list(data: Any, path: str) -> list[Any]:
    inner, last = _parent(data, path)
    found = _inner(inner, last)
    if not isinstance(found, list):
        raise EditRefused(f"“{path}” is no list.")
    return found


def _index(parts: Any, name: str) -> int:
    found = _place(parts, name)
    if found is None:
        raise EditRefused("A part of this step is not there any more.")
    return found


def _place(parts: Any, name: str) -> int | None:
    if name in AXES and _is_pair(parts):
        return AXES.index(name)
    for number, part in enumerate(parts):
        own = part.get("id") if isinstance(part, dict) else getattr(part, "id", None)
        if own == name:
            return number
    return int(name) if name.isdecimal() and int(name) < len(parts) else None
