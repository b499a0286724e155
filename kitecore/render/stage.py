"""What a clip is painted for."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, replace
from functools import cached_property, lru_cache

import numpy as np

from kitecore.arrays import Size
from kitecore.document import Canvas, ClipBase, Pictured, Track, VideoClip
from kitecore.document.moves import Follow
from kitecore.motion.following import carried, solid_frame
from kitecore.motion.posing import pose_at
from kitecore.picture.layer import Matrix, Rgba, moved, sized
from kitecore.render.sources import Sources
from kitecore.render.steadying import steadied
from kitecore.render.tracked import tracked

Area = tuple[float, float]
DrawTracks = Callable[[Rgba, tuple[Track, ...], int, "Stage"], None]
Reach = Callable[[tuple[Track, ...], int, "Stage"], Area]


@lru_cache(64)
def _onto(scale: Area, margin: Area) -> Matrix:
    """Not to be written to."""
    made = np.asarray(sized(*scale) @ moved(*margin))
    made.flags.writeable = False
    return made


@dataclass(frozen=True)
class Stage:
    """Output of ``size`` pixels of a ``canvas``.

    ``area`` is the width and height, in canvas pixels, that a picture is fitted into: the whole
    canvas, or the cell of a split screen. ``step`` is the length of a frame in ticks. ``draw``
    draws tracks onto a picture: a group paints with it what it holds; ``reach`` tells how far that
    lies beyond the canvas. ``matte`` is the id of a zone
    to be shown as what it lets through, in place of its clip's picture. ``tracks`` are those among
    which layers follow each other. ``exposed`` is how far, in ticks, what moves is ahead of what is
    shown: within the time of one exposure. ``margin`` is how many canvas pixels the output shows
    beyond the canvas on its left and right, above and below. ``outlined`` is where it is only asked
    how far things reach: what is only placed comes as an empty picture of its size. ``ground`` is the
    RGBA on which the tracks are drawn; ``lane`` tells apart moments that are looked at side by side.
    """

    canvas: Canvas
    size: Size
    sources: Sources
    step: int
    draw: DrawTracks
    reach: Reach
    area: Area
    matte: str = ""
    tracks: tuple[Track, ...] = ()
    exposed: int = 0
    margin: Area = (0.0, 0.0)
    outlined: bool = False
    ground: tuple[int, ...] = (0, 0, 0, 0)
    lane: str = ""

    @property
    def scale(self) -> Area:
        """Output pixels to a canvas pixel, across and down."""
        across, down = self.margin
        return (
            self.size[0] / (self.canvas.width + 2 * across),
            self.size[1] / (self.canvas.height + 2 * down),
        )

    @property
    def onto(self) -> Matrix:
        """From canvas pixels to those of the output."""
        return _onto(self.scale, self.margin)

    @cached_property
    def clips(self) -> Mapping[str, ClipBase]:
        """Those among which layers follow each other, by id."""
        return {clip.id: clip for track in self.tracks for clip in track.clips}

    def reader_of(self, clip: ClipBase) -> str:
        """Whose reader of a file a clip uses (see `Sources.decoded`)."""
        return clip.id + self.lane

    def carried(self, clip: Pictured, local: int) -> Matrix | None:
        """What a clip's leader does to it at a tick of its own (see `motion.following`), and what
        holds it steady.
        """
        above = None
        if clip.moves.follow is not None:
            above = carried(clip, local, self.clips, self.area, self._tracked)
        held = self._held(clip, local)
        if held is None:
            return above
        own = solid_frame(pose_at(clip, local, self.area), self.area)
        within = own @ held @ np.linalg.inv(own)
        return np.asarray(within if above is None else above @ within)

    def frame_of(self, clip: Pictured, local: int) -> Matrix:
        """Where a clip really is, with what it follows and what holds it steady."""
        own, above = (
            solid_frame(pose_at(clip, local, self.area), self.area),
            self.carried(clip, local),
        )
        return own if above is None else np.asarray(above @ own)

    def _held(self, clip: Pictured, local: int) -> Matrix | None:
        if not isinstance(clip, VideoClip):
            return None
        return steadied(clip, local, self.step, self.area, self.sources)

    def _tracked(self, leader: Pictured, follow: Follow, local: int) -> Matrix | None:
        within = tracked(leader, follow, local, self.step, self.area, self.sources)
        held = self._held(leader, local)
        return within if held is None or within is None else np.asarray(held @ within)

    def within(self, area: Area) -> Stage:
        return replace(self, area=area)

    def sized(self, size: Size, margin: Area = (0.0, 0.0), canvas: Canvas | None = None) -> Stage:
        """The same canvas, or another, in another size, used whole, with a margin around it."""
        canvas = canvas or self.canvas
        area = (canvas.width, canvas.height)
        return replace(self, canvas=canvas, size=size, area=area, margin=margin)
