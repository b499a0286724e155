from __future__ import annotations

from typing import Literal

from kitecore.document import Document, Id, Transition
from kitecore.edits._base import EditBase, edit_kinds, open_clips, seconds_label
from kitecore.edits._lanes import neighbours
from kitecore.edits._tidy import longest
from kitecore.errors import EditRefused, NoFootage, TooLittleFootage


@edit_kinds.register("set_transition")
class SetTransition(EditBase):
    """How a clip comes after the one before it; null for a plain cut.

    With too little footage: ``short`` says whether to refuse (and tell what there is), to take what
    there is, or to hold the last picture. Other clips never move.
    """

    kind: Literal["set_transition"] = "set_transition"
    clip: Id
    transition: Transition | None
    short: Literal["refuse", "shorten", "hold"] = "refuse"

    def label(self) -> str:
        if self.transition is None:
            return "Plain cut"
        return f"Transition: {self.transition.kind.replace('_', ' ')}"

    def apply(self, document: Document) -> Document:
        [(track, clip)] = open_clips(document, (self.clip,))
        wanted = self.transition
        if wanted is not None:
            step = document.rate.exact.frame_ticks
            half = max(step, document.rate.exact.nearest(wanted.half))
            hold = wanted.hold or self.short == "hold"
            wanted = wanted.model_copy(update={"length": 2 * half, "hold": hold})
        new = clip.model_copy(update={"transition": wanted})
        if wanted is not None:
            before, after = neighbours(track.clips, clip.id)
            if before is None or before.end != clip.start:
                raise EditRefused(
                    "No clip ends where this one begins.", todo="Move them together first."
                )
            most = longest(before, new, after, document.rate.exact.frame_ticks)
            if most < wanted.half and self.short == "refuse":
                raise _too_little(2 * most, wanted.hold)
        return document.with_clip(new)


def _too_little(most: int, hold: bool) -> EditRefused:
    seconds = seconds_label(most)
    if hold:
        return EditRefused(f"The clips are too short: {seconds} is the most there is room for.")
    if most <= 0:
        return NoFootage(
            "There is no footage beyond this cut for a transition.",
            todo="Hold the picture where footage ends, or trim one of the clips first.",
        )
    return TooLittleFootage(
        f"There is footage for a transition of {seconds} only.",
        todo="Shorten it to what there is, or hold the picture where footage ends.",
    )
