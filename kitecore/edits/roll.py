"""Moving a join, and what is seen between two joins."""

from __future__ import annotations

from typing import Literal

from kitecore.document import ClipBase, Document, Id, Paced, SequenceClip
from kitecore.edits._base import EditBase, count, edit_kinds, open_clips
from kitecore.edits._lanes import neighbours
from kitecore.errors import EditRefused
from kitecore.model import Tick


@edit_kinds.register("roll")
class Roll(EditBase):
    """Move the join at which ``clip`` begins by ``by``; nothing else moves.

    It stops where one of the two clips would end or has no more footage.
    """

    kind: Literal["roll"] = "roll"
    clip: Id
    by: Tick

    def label(self) -> str:
        return "Roll the join"

    def apply(self, document: Document) -> Document:
        [(track, clip)] = open_clips(document, (self.clip,))
        before, _ = neighbours(track.clips, clip.id)
        if before is None or before.end != clip.start:
            raise EditRefused("There is no join at the start of this clip.")
        step = document.rate.exact.frame_ticks
        by = document.rate.exact.nearest(abs(self.by)) * (1 if self.by > 0 else -1)
        earlier, later = clip.reach[0] // step * step, before.reach[1] // step * step
        low = -min(earlier, before.length - step)
        high = min(later, clip.length - step)
        to = clip.start + min(max(by, low), high)
        document = document.with_clip(before.trimmed(before.start, to))
        return document.with_clip(clip.trimmed(to, clip.end))


@edit_kinds.register("slip")
class Slip(EditBase):
    """Show an earlier (negative) or later part of the source; place and length stay."""

    kind: Literal["slip"] = "slip"
    clips: tuple[Id, ...]
    by: Tick

    def label(self) -> str:
        return f"Slip {count(self.clips)}"

    def apply(self, document: Document) -> Document:
        slipped = False
        for _, clip in open_clips(document, self.clips):
            if isinstance(clip, Paced):
                low, high = clip.used
                by = min(max(self.by, -low), max(0, clip.source_end - high))
                new: ClipBase = clip.slipped(by)
            elif isinstance(clip, SequenceClip):
                new = clip.model_copy(update={"first": clip.first + self.by})
            else:
                continue
            slipped = True
            document = document.with_clip(new)
        if not slipped:
            raise EditRefused("Only clips with a source that moves can slip.")
        return document
