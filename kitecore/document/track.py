"""Tracks: clips in order of time that do not overlap."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from kitecore.document.clips import Clip, ClipBase, Pictured, Sounding
from kitecore.document.clips.group import GroupClip
from kitecore.document.model import Id, Model, Name, new_id

TrackKind = Literal["main", "picture", "sound"]


class Track(Model):
    """``main`` closes its gaps (unless told not to); ``picture`` lies free; ``sound`` is heard."""

    id: Id = Field(default_factory=new_id)
    kind: TrackKind
    name: Name = ""
    clips: tuple[Clip, ...] = ()
    closes_gaps: bool = False
    hidden: bool = False
    muted: bool = False
    solo: bool = False
    locked: bool = False

    @property
    def end(self) -> int:
        return self.clips[-1].end if self.clips else 0

    def accepts(self, clip: ClipBase) -> bool:
        """Whether such a clip may lie here."""
        return isinstance(clip, Sounding if self.kind == "sound" else Pictured)

    def with_clips(self, clips: tuple[ClipBase, ...]) -> Track:
        return self.model_copy(update={"clips": clips})


# A group holds tracks and a track holds groups: only now is either of them whole.
GroupClip.model_rebuild(force=True, _types_namespace={"Track": Track})
Track.model_rebuild(force=True)
