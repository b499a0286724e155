"""Tracks: clips in order of time that do not overlap."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Annotated, Final, Literal

from pydantic import Field

from kitecore.document.byname import ByName
from kitecore.document.clips import Clip, ClipBase, Pictured, can_sound
from kitecore.document.clips.group import GroupClip
from kitecore.document.clips.mouth import MouthClip
from kitecore.document.clips.multicam import MulticamClip
from kitecore.document.clips.text import TextClip
from kitecore.document.strips import TrackStrip
from kitecore.document.transitions import TransitionBase
from kitecore.model import Id, Model, Name, new_id

MOST_TRACKS: Final = 500
MOST_CLIPS: Final = 20_000
"""Of one track."""

TrackKind = Literal["main", "picture", "sound"]


class Track(Model):
    """``main`` closes its gaps (unless told not to); ``picture`` lies free; ``sound`` is heard.

    The texts of a picture track of ``captions`` are what is said in the film: read from files of
    captions, written to them, and left out of a picture that others put captions over.
    """

    id: Id = Field(default_factory=new_id)
    kind: TrackKind
    name: Name = ""
    clips: tuple[Clip, ...] = Field(default=(), max_length=MOST_CLIPS)
    closes_gaps: bool = False
    hidden: bool = False
    muted: bool = False
    solo: bool = False
    locked: bool = False
    captions: bool = False
    strip: TrackStrip = TrackStrip()

    @property
    def end(self) -> int:
        return self.clips[-1].end if self.clips else 0

    def accepts(self, clip: ClipBase) -> bool:
        """Whether such a clip may lie here."""
        if self.captions:
            return isinstance(clip, TextClip)
        return can_sound(type(clip)) if self.kind == "sound" else isinstance(clip, Pictured)

    def with_clips(self, clips: tuple[ClipBase, ...]) -> Track:
        return self.model_copy(update={"clips": clips})


def with_neighbours(
    clips: tuple[ClipBase, ...],
) -> Iterator[tuple[ClipBase | None, ClipBase, ClipBase | None]]:
    """Each clip of a row with the one before it and the one after it."""
    return zip((None, *clips), clips, (*clips[1:], None), strict=False)


def transition_out(clip: ClipBase, after: ClipBase | None) -> TransitionBase | None:
    """How ``clip`` goes over into the next one, if that begins where it ends."""
    return after.transition if after is not None and after.start == clip.end else None


# A clip may hold tracks and a track holds clips: only now is either of them whole.
for holding in (GroupClip, MouthClip, MulticamClip):
    holding.model_rebuild(force=True, _types_namespace={"Track": Annotated[Track, ByName(Track)]})
Track.model_rebuild(force=True)
