"""Tracks as a whole."""

from __future__ import annotations

from typing import Literal

from kitecore.document import Document, Id
from kitecore.edits._base import EditBase, edit_kinds
from kitecore.edits._lanes import without_gaps
from kitecore.edits._tracks import FreeKind, with_new_track
from kitecore.errors import EditRefused
from kitecore.model import Name


@edit_kinds.register("add_track")
class AddTrack(EditBase):
    """An empty track on top of those of its kind."""

    kind: Literal["add_track"] = "add_track"
    track: FreeKind

    def label(self) -> str:
        return f"Add a {self.track} track"

    def apply(self, document: Document) -> Document:
        return with_new_track(document, self.track, (), self.seed)


@edit_kinds.register("remove_track")
class RemoveTrack(EditBase):
    """A track with all its clips; the main track stays."""

    kind: Literal["remove_track"] = "remove_track"
    track: Id

    def label(self) -> str:
        return "Delete a track"

    def apply(self, document: Document) -> Document:
        track = document.find_track(self.track)
        if track.kind == "main":
            raise EditRefused("The main track cannot be deleted.")
        tracks = tuple(t for t in document.tracks if t.id != track.id)
        return document.model_copy(update={"tracks": tracks})


@edit_kinds.register("set_track")
class SetTrack(EditBase):
    """Name and switches of a track; what is not given stays."""

    kind: Literal["set_track"] = "set_track"
    track: Id
    name: Name | None = None
    hidden: bool | None = None
    muted: bool | None = None
    solo: bool | None = None
    locked: bool | None = None
    closes_gaps: bool | None = None

    def _given(self) -> dict[str, str | bool]:
        names = ("name", "hidden", "muted", "solo", "locked", "closes_gaps")
        values = {name: getattr(self, name) for name in names}
        return {name: value for name, value in values.items() if value is not None}

    def label(self) -> str:
        words = [
            f"{'' if value else 'not '}{name}" if name != "name" else f"name “{value}”"
            for name, value in self._given().items()
        ]
        return f"Set track: {', '.join(words).replace('_', ' ')}"

    def apply(self, document: Document) -> Document:
        track = document.find_track(self.track)
        if self.closes_gaps and track.kind != "main":
            raise EditRefused("Only the main track closes its gaps.")
        track = track.model_copy(update=self._given())
        if track.closes_gaps:
            track = track.with_clips(without_gaps(track.clips))
        return document.with_track(track)


@edit_kinds.register("order_track")
class OrderTrack(EditBase):
    """Move a track up (later in the list, in front) or down among those of its sort."""

    kind: Literal["order_track"] = "order_track"
    track: Id
    to: int

    def label(self) -> str:
        return "Order tracks"

    def apply(self, document: Document) -> Document:
        track = document.find_track(self.track)
        is_sound = track.kind == "sound"
        sort = [t for t in document.tracks if (t.kind == "sound") == is_sound]
        rest = [t for t in document.tracks if (t.kind == "sound") != is_sound]
        sort.remove(track)
        sort.insert(min(max(self.to, 0), len(sort)), track)
        tracks = (*rest, *sort) if is_sound else (*sort, *rest)
        return document.model_copy(update={"tracks": tracks})
