"""Moving clips in time and between tracks."""

from __future__ import annotations

from typing import Literal

from kitecore.document import ClipBase, Document, Id, derived_id
from kitecore.edits._base import (
    EditBase,
    count,
    edit_kinds,
    open_clips,
    open_track,
    require_accepts,
)
from kitecore.edits._lanes import cleared, nearest_border, pushed_in, settled, without
from kitecore.edits._tracks import free_kind, on_free_track, with_new_track
from kitecore.errors import EditRefused
from kitecore.model import Start


@edit_kinds.register("move")
class Move(EditBase):
    """Move a clip so that it starts at ``to``, on its own or another track.

    On a track that closes gaps it goes in at the join nearest to its new start; elsewhere it lies
    over what was there.
    """

    kind: Literal["move"] = "move"
    clip: Id
    to: Start
    track: Id | None = None

    def label(self) -> str:
        return "Move"

    def apply(self, document: Document) -> Document:
        [(home, clip)] = open_clips(document, (self.clip,))
        to = document.rate.exact.nearest(self.to)
        document = document.with_track(settled(home, without(home.clips, clip.id)))
        target = open_track(document, self.track or home.id)
        require_accepts(target, clip)
        if target.closes_gaps:
            border = nearest_border(target.clips, to)
            clips = pushed_in(target.clips, (clip.at(border),), border)
        else:
            placed = clip.at(to)
            clips = (*cleared(target.clips, placed.span, self.seed), placed)
        return document.with_track(settled(target, clips))


@edit_kinds.register("shift")
class Shift(EditBase):
    """Move several clips by the same time, on free tracks, over what is not moved."""

    kind: Literal["shift"] = "shift"
    clips: tuple[Id, ...]
    by: int

    def label(self) -> str:
        return f"Move {count(self.clips)}"

    def apply(self, document: Document) -> Document:
        found = open_clips(document, self.clips)
        step = document.rate.exact.frame_ticks
        by = max(self.by // step * step, -min((clip.start for _, clip in found), default=0))
        for track in {track.id: track for track, _ in found}.values():
            if track.closes_gaps:
                raise EditRefused("Clips of the main track move one at a time.")
            mine = {clip.id for _, clip in found}
            staying = tuple(clip for clip in track.clips if clip.id not in mine)
            moved: tuple[ClipBase, ...] = tuple(
                clip.at(clip.start + by) for clip in track.clips if clip.id in mine
            )
            for number, clip in enumerate(moved):
                staying = cleared(staying, clip.span, derived_id(self.seed, number))
            document = document.with_track(settled(track, (*staying, *moved)))
        return document


@edit_kinds.register("close_gap")
class CloseGap(EditBase):
    """Move clips, and all that comes after them on their tracks, up to the clip before."""

    kind: Literal["close_gap"] = "close_gap"
    clips: tuple[Id, ...]

    def label(self) -> str:
        return "Close the gap"

    def apply(self, document: Document) -> Document:
        found = open_clips(document, self.clips)
        gap = 0
        for track in {track.id: track for track, _ in found}.values():
            mine = {clip.id for _, clip in found}
            first = next(i for i, clip in enumerate(track.clips) if clip.id in mine)
            before = track.clips[first - 1].end if first else 0
            by = track.clips[first].start - before
            gap = max(gap, by)
            moved = tuple(clip.at(clip.start - by) for clip in track.clips[first:])
            document = document.with_track(track.with_clips((*track.clips[:first], *moved)))
        if not gap:
            raise EditRefused("There is no gap before the clip in hand.")
        return document


@edit_kinds.register("raise")
class Raise(EditBase):
    """Move a clip of the main track to the first track above with room, others to one of their own.

    It keeps its time.
    """

    kind: Literal["raise"] = "raise"
    clip: Id

    def label(self) -> str:
        return "Raise"

    def apply(self, document: Document) -> Document:
        [(home, clip)] = open_clips(document, (self.clip,))
        document = document.with_track(settled(home, without(home.clips, clip.id)))
        place = on_free_track if home.closes_gaps else with_new_track
        return place(document, free_kind(home), (clip,), derived_id(self.seed, 0))


@edit_kinds.register("lower")
class Lower(EditBase):
    """Put a clip back into the main track, at the join nearest to where it is."""

    kind: Literal["lower"] = "lower"
    clip: Id

    def label(self) -> str:
        return "Lower"

    def apply(self, document: Document) -> Document:
        [(_, clip)] = open_clips(document, (self.clip,))
        onto_main = Move(seed=self.seed, clip=clip.id, to=clip.start, track=document.main.id)
        return onto_main.apply(document)
