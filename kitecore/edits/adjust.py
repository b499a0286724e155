"""Setting properties of clips."""

from __future__ import annotations

from typing import Any, Final, Literal

from kitecore.document import Document, Id
from kitecore.edits._base import EditBase, count, edit_kinds, open_clips
from kitecore.edits._properties import adjusted, has
from kitecore.errors import EditRefused

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
            paths = {path: v for path, v in self.values.items() if has(clip, path)}
            used |= set(paths)
            document = document.with_clip(adjusted(clip, paths))
        if missing := set(self.values) - used:
            raise EditRefused(f"The clip in hand has no {', '.join(sorted(missing))}.")
        return document
