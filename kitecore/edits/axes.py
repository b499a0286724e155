"""What goes across and what goes down, with keys of their own or in common."""

from __future__ import annotations

from typing import Any, Literal

from kitecore.document import Document, Id
from kitecore.document.properties import Axes, PointKeys
from kitecore.edits._base import EditBase, edit_kinds, open_clips
from kitecore.edits._properties import adjusted, has, read
from kitecore.edits.keys import PropertyPath
from kitecore.errors import EditRefused
from kitecore.motion.axes import apart, together


def _property(document: Document, clip_id: str, path: str) -> Any:
    _, clip = open_clips(document, (clip_id,))[0]
    return read(clip, path) if has(clip, path) else None


@edit_kinds.register("part_axes")
class PartAxes(EditBase):
    """A point with keys moves as before, with keys across and keys down."""

    kind: Literal["part_axes"] = "part_axes"
    clip: Id
    path: PropertyPath

    def label(self) -> str:
        return "Across and down apart"

    def apply(self, document: Document) -> Document:
        point = _property(document, self.clip, self.path)
        if not isinstance(point, PointKeys):
            raise EditRefused("There are no keys to be taken apart.", todo="Set a key first.")
        axes = apart(point, document.rate.exact.frame_ticks)
        _, clip = document.find_clip(self.clip)
        return document.with_clip(adjusted(clip, {self.path: axes}))


@edit_kinds.register("join_axes")
class JoinAxes(EditBase):
    """A point whose numbers move apart moves as before, with keys of both at once."""

    kind: Literal["join_axes"] = "join_axes"
    clip: Id
    path: PropertyPath

    def label(self) -> str:
        return "Across and down together"

    def apply(self, document: Document) -> Document:
        point = _property(document, self.clip, self.path)
        if not isinstance(point, Axes):
            raise EditRefused("Across and down are together already.")
        keys = together(point, document.rate.exact.frame_ticks)
        _, clip = document.find_clip(self.clip)
        return document.with_clip(adjusted(clip, {self.path: keys}))
