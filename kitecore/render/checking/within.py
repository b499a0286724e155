"""Clips wherever they lie in groups, and when of the film they are seen."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from kitecore.document import ClipBase, Document, Holding, Pictured, Track
from kitecore.render.showing import seen_tracks

Moments = NDArray[np.int64]
"""For each frame of the film, the tick of a time within it; -1 where that is not seen."""


@dataclass(frozen=True)
class Lies:
    """Where a clip lies.

    Attributes
    ----------
    track
        Its own.
    way
        What it lies in, from the outside in, each with its track in that which is around it.
    frames
        Numbers of the frames of the film in which it is on.
    moments
        Ticks of the time around it, of each frame of the film.
    seen
        Whether its track, and those of all that it lies in, are shown.
    """

    clip: ClipBase
    track: Track
    way: tuple[tuple[Holding, Track], ...]
    frames: NDArray[np.int64]
    moments: Moments
    seen: bool

    @property
    def outer(self) -> ClipBase:
        """What lies on the timeline of the film: it can be taken in hand there."""
        return self.way[0][0] if self.way else self.clip

    def alone(self) -> ClipBase:
        """That, with nothing seen in it but the clip."""
        one, track = self.clip, self.track
        for holding, around in reversed(self.way):
            tracks = tuple(
                _but(other, one) if other.id == track.id else _but(other, None)
                for other in holding.tracks
            )
            one, track = holding.model_copy(update={"tracks": tracks}), around
        return one


def _but(track: Track, kept: ClipBase | None) -> Track:
    """A track with all clear but one clip, which stands for the one of its id."""
    clips = (
        kept
        if kept is not None and clip.id == kept.id
        else clip.model_copy(update={"opacity": 0.0})
        if isinstance(clip, Pictured)
        else clip
        for clip in track.clips
    )
    return track.with_clips(tuple(clips))


def everywhere(document: Document) -> Iterator[Lies]:
    """All clips that are on at some frame of the film, from the outside in."""
    step = document.rate.exact.frame_ticks
    moments = np.arange(document.frames, dtype=np.int64) * step
    yield from _within(document.tracks, (), moments, step, seen=True)


def _within(
    tracks: tuple[Track, ...],
    way: tuple[tuple[Holding, Track], ...],
    moments: Moments,
    step: int,
    *,
    seen: bool,
) -> Iterator[Lies]:
    shown = {track.id for track in seen_tracks(tracks)}
    for track in tracks:
        for clip in track.clips:
            frames = np.flatnonzero((moments >= clip.start) & (moments < clip.end))
            if not len(frames):
                continue
            lies = Lies(clip, track, way, frames, moments, seen and track.id in shown)
            yield lies
            if isinstance(clip, Holding):
                deeper = (*way, (clip, track))
                inner = _inside(clip, lies, step)
                yield from _within(clip.tracks, deeper, inner, step, seen=lies.seen)


def _inside(clip: Holding, lies: Lies, step: int) -> Moments:
    """The times within a clip."""
    inner = np.full_like(lies.moments, -1)
    for number in lies.frames:
        inner[number] = clip.shown_at(int(lies.moments[number]) - clip.start, step)
    return inner


def named_once(every: Iterable[Lies]) -> Iterator[tuple[Lies, str]]:
    """Each take that some clips use, with the first of them that does."""
    told: set[str] = set()
    for lies in every:
        if isinstance(lies.clip, Holding):
            continue
        for media in sorted(lies.clip.uses() - told):
            told.add(media)
            yield lies, media
