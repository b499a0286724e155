"""Stretches of time taken out of a piece: the pauses of a voice, with the picture."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from kitecore.document import ClipBase, Document, Id, Track
from kitecore.edits._base import EditBase, edit_kinds, open_clips, seconds_label
from kitecore.edits._lanes import split_at
from kitecore.errors import EditRefused
from kitecore.model import Start

MOST_SPANS = 2000
Spans = list[tuple[int, int]]


@edit_kinds.register("cut_out")
class CutOut(EditBase):
    """Take stretches of the timeline out of a clip, and everything after them comes earlier.

    What goes with it is cut likewise: the main track, and tracks with clips that go along with it
    or that it goes along with. Other tracks run on: their clips that begin after a stretch come
    earlier, and what would then lie over another is shortened. Locked tracks stay as they are.
    """

    kind: Literal["cut_out"] = "cut_out"
    clip: Id
    spans: Annotated[tuple[tuple[Start, Start], ...], Field(min_length=1, max_length=MOST_SPANS)]

    def label(self) -> str:
        many = len(self.spans)
        gone = seconds_label(sum(end - start for start, end in self.spans))
        return f"Cut out {'a stretch' if many == 1 else f'{many} stretches'}, {gone}"

    def apply(self, document: Document) -> Document:
        [(track, clip)] = open_clips(document, (self.clip,))
        spans = self._within(document, clip)
        if not spans:
            raise EditRefused("There is nothing of this clip to cut out.")
        cut = {track.id, document.main.id, *_going_along(document, clip)}
        tracks = tuple(
            one
            if one.locked
            else self._without(one, spans)
            if one.id in cut
            else one.with_clips(_earlier(one.clips, spans))
            for one in document.tracks
        )
        markers = tuple(
            one.model_copy(update={"at": one.at - _gone(one.at, spans)}) for one in document.markers
        )
        return document.model_copy(update={"tracks": tracks, "markers": markers})

    def _within(self, document: Document, clip: ClipBase) -> Spans:
        """Whole frames of the clip, in order, those that touch as one."""
        nearest = document.rate.exact.nearest
        found: Spans = []
        for start, end in sorted(self.spans):
            start = max(nearest(start), clip.start, found[-1][1] if found else 0)
            end = min(nearest(end), clip.end)
            if end > start and found and found[-1][1] == start:
                found[-1] = (found[-1][0], end)
            elif end > start:
                found.append((start, end))
        return found

    def _without(self, track: Track, spans: Spans) -> Track:
        clips = track.clips
        for start, end in spans:
            for at in (start, end):
                clips = split_at(clips, at, f"{self.seed}/{track.id}/{at}")
        kept = (c for c in clips if not any(a <= c.start and c.end <= b for a, b in spans))
        return track.with_clips(tuple(c.at(c.start - _gone(c.start, spans)) for c in kept))


def _gone(at: int, spans: Spans) -> int:
    """How much of the time before a moment is taken out."""
    return sum(max(0, min(at, end) - start) for start, end in spans if start < at)


def _earlier(clips: tuple[ClipBase, ...], spans: Spans) -> tuple[ClipBase, ...]:
    """As they lie after that, each shortened where the next one has come over its end."""
    moved = [clip.at(clip.start - _gone(clip.start, spans)) for clip in clips]
    out: list[ClipBase] = []
    for clip in moved:
        if out and out[-1].end > clip.start:
            before = out.pop()
            if before.start < clip.start:
                out.append(before.trimmed(before.start, clip.start))
        out.append(clip)
    return tuple(out)


def _going_along(document: Document, clip: ClipBase) -> set[str]:
    """Ids of tracks with clips that are bound to the clip."""
    return {
        track.id
        for track, other in document.clips()
        if clip.id in (other.rides, other.id) or other.id == clip.rides
    }
