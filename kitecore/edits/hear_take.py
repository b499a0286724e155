"""Several takes of the same words: which of them is heard, part by part."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from kitecore.document import ClipBase, Document, Id, SoundClip, Track
from kitecore.edits._base import EditBase, edit_kinds, open_clips
from kitecore.edits._lanes import split_at
from kitecore.errors import EditRefused, NothingChanges
from kitecore.model import Start


@edit_kinds.register("hear_take")
class HearTake(EditBase):
    """Of takes that lie over each other one is heard from ``at`` on, the ``others`` are silent there:
    up to where another was chosen, or it ends.
    """

    kind: Literal["hear_take"] = "hear_take"
    clip: Id
    others: tuple[Id, ...] = Field(min_length=1, max_length=50)
    at: Start

    def label(self) -> str:
        return "Hear another take"

    def apply(self, document: Document) -> Document:
        at = document.rate.exact.nearest(self.at)
        ids = dict.fromkeys((self.clip, *self.others))
        takes = [self._there(clip, at) for _, clip in open_clips(document, tuple(ids))]
        chosen = next(clip for clip in takes if clip.id == self.clip)
        if not chosen.muted and all(clip.muted for clip in takes if clip is not chosen):
            raise NothingChanges("It is that take which is heard there.")
        tracks = []
        for track in document.tracks:
            mine = {clip.id for clip in track.clips} & set(ids)
            tracks.append(self._told(track, mine, (at, chosen.end)) if mine else track)
        return document.model_copy(update={"tracks": tuple(tracks)})

    @staticmethod
    def _there(clip: ClipBase, at: int) -> SoundClip:
        if not isinstance(clip, SoundClip):
            raise EditRefused(f"“{clip.name}” is no sound.")
        if not clip.start <= at < clip.end:
            raise EditRefused(
                f"“{clip.name}” is not heard there.", todo="Move the playhead to where both are."
            )
        return clip

    def _told(self, track: Track, mine: set[str], span: tuple[int, int]) -> Track:
        begin, end = span
        out: list[ClipBase] = []
        for clip in track.clips:
            if clip.id not in mine:
                out.append(clip)
                continue
            seed = f"{self.seed}/{clip.id}"
            parts = split_at(split_at((clip,), begin, seed), end, seed + "-end")
            out += [
                part.model_copy(update={"muted": clip.id != self.clip})
                if begin <= part.start < end
                else part
                for part in parts
            ]
        return track.with_clips(tuple(out))
