"""Putting a clip on the timeline."""

from __future__ import annotations

from typing import Literal

from kitecore.document import Clip, ClipBase, Document, Id, Track, derived_id
from kitecore.edits._base import EditBase, edit_kinds, open_track, require_accepts
from kitecore.edits._lanes import cleared, pushed_in, renamed, settled, split_at
from kitecore.edits._tracks import FreeKind, on_free_track
from kitecore.errors import EditRefused
from kitecore.model import Start

Mode = Literal["end", "push", "over", "above"]
HOW = {"end": "at the end", "push": "pushed in", "over": "over what was there", "above": "above"}


@edit_kinds.register("place")
class PlaceClip(EditBase):
    """Put a clip at the end, push it in at ``at`` (later clips move), over what is there, or above.

    Without ``track``: pictures go to the main track, sounds to the first sound track with room.
    """

    kind: Literal["place"] = "place"
    clip: Clip
    mode: Mode = "end"
    at: Start = 0
    track: Id | None = None

    def label(self) -> str:
        return f"Place “{self.clip.name}” {HOW[self.mode]}"

    def apply(self, document: Document) -> Document:
        step = document.rate.exact.frame_ticks
        length = self.clip.length // step * step
        if not length:
            raise EditRefused("The clip is shorter than one frame of the project.")
        at = document.rate.exact.nearest(self.at)
        clip = renamed(self.clip, self.seed).model_copy(update={"length": length})
        if self.mode == "above" or (self.track is None and self._is_sound(document)):
            at = document.length if self.mode == "end" and not self._is_sound(document) else at
            kind: FreeKind = "sound" if self._is_sound(document) else "picture"
            clip = clip.at(self._sound_start(document, at))
            return on_free_track(document, kind, (clip,), derived_id(self.seed, 1))
        track = open_track(document, self.track) if self.track else document.main
        track = open_track(document, track.id)
        require_accepts(track, clip)
        return document.with_track(_placed(track, clip, self.mode, at, self.seed))

    def _is_sound(self, document: Document) -> bool:
        return not document.main.accepts(self.clip)

    def _sound_start(self, document: Document, at: int) -> int:
        if self.mode != "end" or not self._is_sound(document):
            return at
        return max((t.end for t in document.tracks if t.kind == "sound"), default=0)


def _placed(track: Track, clip: ClipBase, mode: Mode, at: int, seed: str) -> Track:
    if mode == "end":
        return settled(track, (*track.clips, clip.at(track.end)))
    at = min(at, track.end) if track.closes_gaps else at
    if mode == "push":
        around = split_at(track.clips, at, seed)
        return settled(track, pushed_in(around, (clip.at(at),), at))
    placed = clip.at(at)
    return settled(track, (*cleared(track.clips, placed.span, seed), placed))
