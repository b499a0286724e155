"""The project as one immutable value."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Literal

from pydantic import Field

from kitecore.document.canvas import Canvas
from kitecore.document.clips import ClipBase
from kitecore.document.clips._holding import Holding
from kitecore.document.marker import MOST_MARKERS, Marker
from kitecore.document.strips import FilmStrip, Strip
from kitecore.document.track import MOST_TRACKS, Track
from kitecore.errors import NotThere
from kitecore.model import Model
from kitecore.rates import FrameRate

SCHEMA = "velvet-kite/23"


class Document(Model):
    """What a project is: canvas, rate, tracks from the lowest picture up, then sounds.

    Nothing in it is derived from something else in it.
    """

    schema_: Literal["velvet-kite/23"] = Field(default="velvet-kite/23", alias="schema")
    canvas: Canvas = Canvas()
    rate: FrameRate = FrameRate()
    tracks: tuple[Track, ...] = Field(default=(), max_length=MOST_TRACKS)
    markers: tuple[Marker, ...] = Field(default=(), max_length=MOST_MARKERS)
    strip: FilmStrip = FilmStrip()

    @property
    def length(self) -> int:
        """Tick at which the last clip ends."""
        return max((track.end for track in self.tracks), default=0)

    @property
    def frames(self) -> int:
        return self.length // self.rate.exact.frame_ticks

    @property
    def main(self) -> Track:
        return next(track for track in self.tracks if track.kind == "main")

    def clips(self) -> Iterator[tuple[Track, ClipBase]]:
        for track in self.tracks:
            for clip in track.clips:
                yield track, clip

    def find_track(self, track_id: str) -> Track:
        for track in self.tracks:
            if track.id == track_id:
                return track
        raise NotThere("That track is not there any more.")

    def find_clip(self, clip_id: str) -> tuple[Track, ClipBase]:
        for track, clip in self.clips():
            if clip.id == clip_id:
                return track, clip
        raise NotThere("That clip is not there any more.")

    def with_track(self, track: Track) -> Document:
        """This document with the track of the same id exchanged."""
        tracks = tuple(track if t.id == track.id else t for t in self.tracks)
        return self.model_copy(update={"tracks": tracks})

    def strip_of(self, track_id: str | None) -> Strip:
        """The strip of a track; without one, the film's."""
        return self.strip if track_id is None else self.find_track(track_id).strip

    def with_strip(self, track_id: str | None, strip: Strip) -> Document:
        """This document with the strip of a track exchanged; without one, the film's."""
        if track_id is None:
            return self.model_copy(update={"strip": strip})
        track = self.find_track(track_id)
        return self.with_track(track.model_copy(update={"strip": strip}))

    def with_clip(self, clip: ClipBase) -> Document:
        """This document with the clip of the same id exchanged, which keeps its place in the row."""
        track, _ = self.find_clip(clip.id)
        return self.with_track(
            track.with_clips(tuple(clip if one.id == clip.id else one for one in track.clips))
        )

    def media_ids(self) -> frozenset[str]:
        """Of all files it uses."""
        return frozenset().union(*(clip.uses() for _, clip in self.clips()))

    def inside(self, holder_id: str) -> Document:
        """The timeline within a group or multicam clip, however deep, as a document of its own."""
        holder = self.find_holding(holder_id)
        return self.model_copy(update={"tracks": holder.tracks, "markers": holder.markers})

    def find_holding(self, holder_id: str) -> Holding:
        """A clip that holds tracks, anywhere in the document."""
        for clip in all_clips(self.tracks):
            if clip.id == holder_id and isinstance(clip, Holding):
                return clip
        raise NotThere("That group is not there any more.")


def all_clips(tracks: tuple[Track, ...]) -> Iterator[ClipBase]:
    """Clips of tracks, and of what holds tracks among them, from the outside in."""
    for track in tracks:
        for clip in track.clips:
            yield clip
            if isinstance(clip, Holding):
                yield from all_clips(clip.tracks)


def empty_document(canvas: Canvas | None = None, rate: FrameRate | None = None) -> Document:
    """A new project: one main track, one free track for pictures, one for sound."""
    return Document(
        canvas=canvas or Canvas(),
        rate=rate or FrameRate(),
        tracks=(
            Track(kind="main", name="Main", closes_gaps=True),
            Track(kind="picture", name="Above"),
            Track(kind="sound", name="Sound"),
        ),
    )
