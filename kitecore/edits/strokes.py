"""Strokes that go along with their own surroundings."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from kitecore.document import Document, Id, VideoClip, derived_id
from kitecore.document.trackers import MOST_TRACKERS, Tracked, Tracker
from kitecore.edits._base import EditBase, edit_kinds, open_clips
from kitecore.errors import EditRefused, NotThere
from kitecore.model import Name, Start


@edit_kinds.register("strokes_along")
class StrokesAlong(EditBase):
    """Strokes of a clip go along with something new that is followed, from ``since`` on."""

    kind: Literal["strokes_along"] = "strokes_along"
    clip: Id
    strokes: tuple[Id, ...] = Field(min_length=1, max_length=100)
    tracked: Tracked
    since: Start
    name: Name = ""

    def label(self) -> str:
        return "Let strokes go along" if len(self.strokes) > 1 else "Let a stroke go along"

    def apply(self, document: Document) -> Document:
        [(_, clip)] = open_clips(document, (self.clip,))
        if not isinstance(clip, VideoClip):
            raise EditRefused("Only in a video does something go along.", todo="Take a video.")
        if len(clip.trackers) >= MOST_TRACKERS:
            raise EditRefused(
                f"At most {MOST_TRACKERS} things are followed in one clip.",
                todo="Let it go along with one of them, or remove one.",
            )
        if not set(self.strokes) <= {one.id for one in clip.strokes}:
            raise NotThere("That stroke is not there any more.")
        tracker = Tracker(id=derived_id(self.seed, 0), name=self.name, **dict(self.tracked))
        along = {"tracker": tracker.id, "since": self.since}
        strokes = tuple(
            one.model_copy(update=along) if one.id in self.strokes else one for one in clip.strokes
        )
        update = {"strokes": strokes, "trackers": (*clip.trackers, tracker)}
        return document.with_clip(clip.model_copy(update=update))
