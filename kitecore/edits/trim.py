"""Making clips shorter or longer at one end."""

from __future__ import annotations

from typing import Literal

from kitecore.document import ClipBase, Document, Id, Track
from kitecore.edits._base import EditBase, count, edit_kinds, open_clips
from kitecore.edits._lanes import neighbours, settled, swapped
from kitecore.errors import EditRefused
from kitecore.model import Start, Tick

Edge = Literal["start", "end"]


@edit_kinds.register("trim")
class Trim(EditBase):
    """Drag one end of a clip to ``to``; it stops at its neighbours and where its source ends.

    On a track that closes gaps ``to`` counts as if the clip had stayed where it is (it may lie
    before 0), and later clips move along. The same ends of the clips ``also`` go as far.
    """

    kind: Literal["trim"] = "trim"
    clip: Id
    edge: Edge
    to: Tick
    also: tuple[Id, ...] = ()

    def label(self) -> str:
        ends = "" if not self.also else f" of {len(self.also) + 1} clips"
        return f"Trim the {self.edge}{ends}"

    def apply(self, document: Document) -> Document:
        [(_, clip)] = open_clips(document, (self.clip,))
        by = document.rate.exact.nearest(self.to) - _edge_of(clip, self.edge)
        others = tuple(one for one in self.also if one != self.clip)
        return _moved(document, (self.clip, *others), self.edge, by)


@edit_kinds.register("trim_by")
class TrimBy(EditBase):
    """Let the clips begin or end later by ``by``, or earlier (negative), as far as each can."""

    kind: Literal["trim_by"] = "trim_by"
    clips: tuple[Id, ...]
    edge: Edge
    by: Tick

    def label(self) -> str:
        return f"Trim the {self.edge} of {count(self.clips)}"

    def apply(self, document: Document) -> Document:
        way = 1 if self.by > 0 else -1
        by = document.rate.exact.nearest(abs(self.by)) * way
        return _moved(document, self.clips, self.edge, by)


def _moved(document: Document, clips: tuple[Id, ...], edge: Edge, by: int) -> Document:
    open_clips(document, clips)
    for clip_id in clips:
        track, clip = document.find_clip(clip_id)
        to = _edge_of(clip, edge) + by
        document = document.with_track(trimmed(document, track, clip, edge, to))
    return document


def _edge_of(clip: ClipBase, edge: Edge) -> int:
    return clip.start if edge == "start" else clip.end


@edit_kinds.register("cut_away")
class CutAway(EditBase):
    """Away left: what lies before ``at`` goes, away right: what lies after; in the given clips."""

    kind: Literal["cut_away"] = "cut_away"
    clips: tuple[Id, ...]
    side: Literal["left", "right"]
    at: Start

    def label(self) -> str:
        return f"Away {self.side}"

    def apply(self, document: Document) -> Document:
        at = document.rate.exact.nearest(self.at)
        under = [c for _, c in open_clips(document, self.clips) if c.start < at < c.end]
        if not under:
            raise EditRefused(
                "The playhead is not inside the clip in hand.",
                todo="Move the playhead onto the clip.",
            )
        edge: Edge = "start" if self.side == "left" else "end"
        for clip in under:
            track, _ = document.find_clip(clip.id)
            document = document.with_track(trimmed(document, track, clip, edge, at))
        return document


def trimmed(document: Document, track: Track, clip: ClipBase, edge: Edge, to: int) -> Track:
    """The track after one end of ``clip`` went to ``to``, or as near as it can."""
    step = document.rate.exact.frame_ticks
    earlier, later = (room // step * step for room in clip.reach)
    low, high = clip.start - earlier, clip.end + later
    if not track.closes_gaps:
        before, after = neighbours(track.clips, clip.id)
        low = max(low, before.end if before else 0)
        high = min(high, after.start if after else high)
    if edge == "start":
        new = clip.trimmed(min(max(to, low), clip.end - step), clip.end)
        if track.closes_gaps:
            # The row closes up by length alone; the clip keeps its place in the order.
            new = new.at(clip.start)
    else:
        new = clip.trimmed(clip.start, max(min(to, high), clip.start + step))
    return settled(track, swapped(track.clips, new))
