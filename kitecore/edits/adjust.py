"""Setting properties of clips."""

from __future__ import annotations

from typing import Any, Final, Literal

from pydantic import ValidationError

from kitecore.document import ClipBase, Document, Id, Model
from kitecore.document.clips import clip_kinds
from kitecore.edits._base import EditBase, count, edit_kinds, open_clips
from kitecore.errors import EditRefused

ARRANGED: Final = {"kind", "id", "start", "length", "media", "source_in", "source_length"}
"""Fields that other edits take care of."""

_NAMES: Final = {"place/position": "position", "place/size": "size", "place/turn": "turn"}


@edit_kinds.register("adjust")
class Adjust(EditBase):
    """Set properties by path, e.g. ``{"place/position": [10, 0], "opacity": 0.5}``.

    A clip that does not have a property keeps as it is, as long as one of them has it.
    """

    kind: Literal["adjust"] = "adjust"
    clips: tuple[Id, ...]
    values: dict[str, Any]

    def label(self) -> str:
        what = ", ".join(_NAMES.get(path, path.rsplit("/", 1)[-1]) for path in self.values)
        what = what.replace("_", " ")
        return f"Set {what} of {count(self.clips)}" if len(self.clips) > 1 else f"Set {what}"

    def apply(self, document: Document) -> Document:
        used: set[str] = set()
        for _, clip in open_clips(document, self.clips):
            paths = {path: v for path, v in self.values.items() if _has(clip, path)}
            used |= set(paths)
            document = document.with_clip(_adjusted(clip, paths))
        if missing := set(self.values) - used:
            raise EditRefused(f"The clip in hand has no {', '.join(sorted(missing))}.")
        return document


def _has(model: Model, path: str) -> bool:
    head, _, rest = path.partition("/")
    if head in ARRANGED or head not in type(model).model_fields:
        return False
    inner = getattr(model, head)
    return _has(inner, rest) if rest and isinstance(inner, Model) else not rest


def _adjusted(clip: ClipBase, values: dict[str, Any]) -> ClipBase:
    data = clip.model_dump(mode="json")
    for path, value in values.items():
        *parents, last = path.split("/")
        inner = data
        for parent in parents:
            inner = inner[parent]
        inner[last] = value
    try:
        return clip_kinds[clip.kind].model_validate(data)
    except ValidationError as error:
        first = error.errors()[0]
        raise EditRefused(f"That value does not fit: {first['msg']}.") from error
