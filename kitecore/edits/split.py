from __future__ import annotations

from typing import Literal

from kitecore.document import Document, Id
from kitecore.edits._base import EditBase, edit_kinds, open_clips
from kitecore.edits._lanes import split_at
from kitecore.errors import EditRefused
from kitecore.model import Start


@edit_kinds.register("split")
class Split(EditBase):
    """Cut clips in two at ``at``: the given ones, or with none given all open ones there."""

    kind: Literal["split"] = "split"
    clips: tuple[Id, ...] = ()
    at: Start

    def label(self) -> str:
        return "Split"

    def apply(self, document: Document) -> Document:
        at = document.rate.exact.nearest(self.at)
        wanted = {clip.id for _, clip in open_clips(document, self.clips)}
        tracks = []
        for track in document.tracks:
            under = next((c for c in track.clips if c.start < at < c.end), None)
            chosen = under and (under.id in wanted if wanted else not track.locked)
            seed = f"{self.seed}/{track.id}"
            tracks.append(track.with_clips(split_at(track.clips, at, seed)) if chosen else track)
        if all(a is b for a, b in zip(tracks, document.tracks, strict=True)):
            raise EditRefused(
                "There is nothing to split at the playhead.",
                todo="Move the playhead inside a clip.",
            )
        return document.model_copy(update={"tracks": tuple(tracks)})
