from __future__ import annotations

from typing import Literal

from kitecore.document import Document, Id, Paced
from kitecore.edits._base import EditBase, edit_kinds, open_clips
from kitecore.edits._lanes import settled, swapped
from kitecore.edits._sources import shown_as, within_source
from kitecore.edits.takes import STILL_LENGTH, TakePart
from kitecore.errors import EditRefused


@edit_kinds.register("replace")
class Replace(EditBase):
    """Another source for a clip; place, effects, speed, sound and transition stay.

    The length stays too; a source that is too short makes the clip shorter.
    """

    kind: Literal["replace"] = "replace"
    clip: Id
    take: TakePart

    def label(self) -> str:
        return f"Replace by “{self.take.title}”"

    def apply(self, document: Document) -> Document:
        [(track, clip)] = open_clips(document, (self.clip,))
        source = self.take.clip(STILL_LENGTH)
        if not track.accepts(source):
            raise EditRefused(f"The track “{track.name}” does not hold clips of that kind.")
        new = shown_as(source, clip)
        if isinstance(new, Paced):
            new = within_source(new, document.rate.exact.frame_ticks)
        return document.with_track(settled(track, swapped(track.clips, new)))
