"""How a mouth goes from pose to pose; the same laid out as clips."""

from __future__ import annotations

from typing import Literal

from kitecore.document import ClipBase, Document, GroupClip, Holding, Id, check
from kitecore.document.clips.mouth import may_move
from kitecore.document.mouthways import MouthWay
from kitecore.edits._base import EditBase, edit_kinds
from kitecore.edits._lanes import renamed
from kitecore.edits._turns import open_mouth
from kitecore.errors import BrokenDocument, EditRefused


@edit_kinds.register("lay_out_mouth")
class LayOutMouth(EditBase):
    """A mouth becomes a group of ordinary clips, with the keys by which it moves."""

    kind: Literal["lay_out_mouth"] = "lay_out_mouth"
    clip: Id

    def label(self) -> str:
        return "Lay a mouth out as clips"

    def apply(self, document: Document) -> Document:
        clip = open_mouth(document, self.clip)
        step = document.rate.exact.frame_ticks
        low, high = clip.used
        low, high = low // step * step, max(-(-high // step), low // step + 1) * step
        [seen] = clip.seen(low, high)
        parts = (one.trimmed(max(one.start, low), min(one.end, high)) for one in seen.clips)
        on_frames = tuple(_on_frames(one, step) for one in parts if one.end - one.start >= step)
        facts = {name: getattr(clip, name) for name in GroupClip.model_fields if name != "kind"}
        row = seen.model_copy(update={"kind": "main", "name": clip.name, "clips": on_frames})
        group = GroupClip(**{**facts, "tracks": (row,)})
        renewed = renamed(group, self.seed).model_copy(update={"id": clip.id})
        after = document.with_clip(renewed)
        try:
            check(after, before=document)
        except BrokenDocument as error:
            raise EditRefused(
                "Its poses do not lie on frames of this rate.",
                todo="Set the rate at which it was made, lay it out, then change the rate.",
            ) from error
        return after


def _on_frames(clip: ClipBase, step: int) -> ClipBase:
    """A clip, and what is in it, of whole frames."""
    update: dict[str, object] = {"length": max(clip.length // step, 1) * step}
    if isinstance(clip, Holding):
        update["tracks"] = tuple(
            track.with_clips(tuple(_on_frames(one, step) for one in track.clips))
            for track in clip.tracks
        )
    return clip.model_copy(update=update)


@edit_kinds.register("mouth_way")
class SetMouthWay(EditBase):
    """How a mouth goes from pose to pose."""

    kind: Literal["mouth_way"] = "mouth_way"
    clip: Id
    way: MouthWay

    def label(self) -> str:
        return f"Have poses {self.way.kind}"

    def apply(self, document: Document) -> Document:
        clip = open_mouth(document, self.clip)
        if self.way.kind == "moving" and not may_move(clip):
            raise EditRefused(
                "These poses cannot move from one to the next: they are not drawn with the same "
                "layers and points.",
                todo="Draw each from a copy of another, or have them swapped.",
            )
        return document.with_clip(clip.model_copy(update={"way": self.way}))
