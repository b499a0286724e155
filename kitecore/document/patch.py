"""The difference of two documents as a JSON Patch (RFC 6902).

Documents share what an edit left alone, so comparing by identity first finds the few changed
places in a project of thousands of clips at once.
"""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

from kitecore.document.changes import window
from kitecore.document.document import Document
from kitecore.model import Model

Operation = dict[str, Any]


def diff(old: Document, new: Document) -> list[Operation]:
    """Operations that turn ``old``'s JSON into ``new``'s."""
    operations: list[Operation] = []
    _diff(old, new, "", operations)
    return operations


def made_by(forward: list[Operation], back: list[Operation]) -> list[str]:
    """Ids of the clips, tracks and parts that a change brought, in order: added, and not moved.

    Parameters
    ----------
    forward, back
        The patches to and from the changed document.
    """
    gone = set(_added(back))
    return [made for made in _added(forward) if made not in gone]


def _added(operations: list[Operation]) -> list[str]:
    return [id for one in operations if one["op"] == "add" for id in _ids_in(one.get("value"))]


def _ids_in(value: Any) -> Iterator[str]:
    """The ids of plain data and of all that lies in it: a track comes with its clips."""
    if isinstance(value, dict):
        if isinstance(value.get("id"), str):
            yield value["id"]
        for inner in value.values():
            yield from _ids_in(inner)
    elif isinstance(value, list):
        for inner in value:
            yield from _ids_in(inner)


def _diff(old: Any, new: Any, path: str, out: list[Operation]) -> None:
    if old is new or (type(old) is type(new) and not isinstance(old, Model | tuple) and old == new):
        return
    if isinstance(old, Model) and type(old) is type(new):
        for name, field in type(old).model_fields.items():
            _diff(getattr(old, name), getattr(new, name), f"{path}/{field.alias or name}", out)
    elif isinstance(old, tuple) and isinstance(new, tuple):
        _diff_lists(old, new, path, out)
    elif old != new:
        out.append({"op": "replace", "path": path, "value": _plain(new)})


def _same_thing(a: Any, b: Any) -> bool:
    """Whether two items of lists stand for the same thing, so that their insides are compared."""
    if isinstance(a, Model) and type(a) is type(b):
        return getattr(a, "id", None) == getattr(b, "id", None)
    return bool(a == b)


def _diff_lists(
    old: tuple[Any, ...], new: tuple[Any, ...], path: str, out: list[Operation]
) -> None:
    same = window(old, new)
    shared, head, tail = min(len(old), len(new)), same.head, same.tail
    while head + tail < shared and _same_thing(old[head], new[head]):
        head += 1
    while head + tail < shared and _same_thing(old[-1 - tail], new[-1 - tail]):
        tail += 1
    gone = range(len(old) - tail - 1, head - 1, -1)
    come = range(head, len(new) - tail)
    out += [{"op": "remove", "path": f"{path}/{index}"} for index in gone]
    out += [{"op": "add", "path": f"{path}/{index}", "value": _plain(new[index])} for index in come]
    for index in range(same.head, head):
        _diff(old[index], new[index], f"{path}/{index}", out)
    for back in range(tail, same.tail, -1):
        _diff(old[-back], new[-back], f"{path}/{len(new) - back}", out)


def _plain(value: Any) -> Any:
    if isinstance(value, Model):
        return value.model_dump(mode="json", by_alias=True)
    if isinstance(value, tuple):
        return [_plain(item) for item in value]
    return value
