from __future__ import annotations

from typing import Literal

from kitecore.document import Document, Id, derived_id
from kitecore.edits._base import EditBase, count, edit_kinds, open_clips
from kitecore.edits._lanes import is_free, pushed_in, renamed, settled
from kitecore.edits._tracks import free_kind, with_new_track


@edit_kinds.register("duplicate")
class Duplicate(EditBase):
    """A copy right after each clip; on free tracks where there is no room, on a new track."""

    kind: Literal["duplicate"] = "duplicate"
    clips: tuple[Id, ...]

    def label(self) -> str:
        return f"Duplicate {count(self.clips)}"

    def apply(self, document: Document) -> Document:
        for number, (_, clip) in enumerate(open_clips(document, self.clips)):
            track, clip = document.find_clip(clip.id)
            copy = renamed(clip.at(clip.end), f"{self.seed}/{number}")
            copy = copy.model_copy(update={"transition": None})
            if track.closes_gaps:
                pushed = pushed_in(track.clips, (copy,), clip.end)
                document = document.with_track(settled(track, pushed))
            elif is_free(track.clips, copy.span):
                document = document.with_track(settled(track, (*track.clips, copy)))
            else:
                new = derived_id(self.seed + "-track", number)
                document = with_new_track(document, free_kind(track), (copy,), new)
        return document
