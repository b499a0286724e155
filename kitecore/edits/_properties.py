"""Properties of clips by path: ``place/turn``, ``fill/stops/1/colour``, ``effects/ID/strength``.

Parts of lists are named by their id, or by their number.
"""

from __future__ import annotations

from typing import Any, Final

from pydantic import ValidationError

from kitecore.document import ClipBase, Model
from kitecore.document.clips import clip_kinds
from kitecore.errors import EditRefused

ARRANGED: Final = {"kind", "id", "start", "length", "media", "source_in", "source_length", "tracks"}
"""Fields that other edits take care of."""


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
    """The clip with properties set, from plain data or models.

    Raises
    ------
    EditRefused
        If a value does not fit.
    """
    if not values:
        return clip
    data = clip.model_dump(mode="json")
    for path, value in values.items():
        *parents, last = path.split("/")
        inner: Any = data
        for parent in parents:
            inner = inner[_index(inner, parent) if isinstance(inner, list) else parent]
        plain = value.model_dump(mode="json") if isinstance(value, Model) else value
        inner[_index(inner, last) if isinstance(inner, list) else last] = plain
    try:
        return clip_kinds[clip.kind].model_validate(data)
    except ValidationError as error:
        raise EditRefused(f"That value does not fit: {error.errors()[0]['msg']}.") from error


def _index(parts: Any, name: str) -> int:
    found = _place(parts, name)
    if found is None:
        raise EditRefused("A part of this step is not there any more.")
    return found


def _place(parts: Any, name: str) -> int | None:
    for number, part in enumerate(parts):
        own = part.get("id") if isinstance(part, dict) else getattr(part, "id", None)
        if own == name:
            return number
    return int(name) if name.isdecimal() and int(name) < len(parts) else None
