"""What a clip is painted for."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, replace
from functools import cached_property

from kitecore.arrays import Size
from kitecore.document import Canvas, ClipBase, Pictured, Track
from kitecore.document.moves import Follow
from kitecore.motion.following import carried, shown_frame
from kitecore.picture.layer import Matrix, Rgba, moved, sized
from kitecore.render.sources import Sources
from kitecore.render.tracked import tracked

Area = tuple[float, float]
DrawTracks = Callable[[Rgba, tuple[Track, ...], int, "Stage"], None]
Reach = Callable[[tuple[Track, ...], int, "Stage"], Area]


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
    beyond the canvas on its left and right, above and below.
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
        return sized(*self.scale) @ moved(*self.margin)

    @cached_property
    def clips(self) -> Mapping[str, ClipBase]:
        """Those among which layers follow each other, by id."""
        return {clip.id: clip for track in self.tracks for clip in track.clips}

    def carried(self, clip: Pictured, local: int) -> Matrix | None:
        """What a clip's leader does to it at a tick of its own (see `motion.following`)."""
        if clip.moves.follow is None:
            return None
        return carried(clip, local, self.clips, self.area, self._tracked)

    def frame_of(self, clip: Pictured, local: int) -> Matrix:
        """Where a clip really is, with what it follows (see `motion.following`)."""
        return shown_frame(clip, local, self.clips, self.area, self._tracked)

    def _tracked(self, leader: Pictured, follow: Follow, local: int) -> Matrix | None:
        return tracked(leader, follow, local, self.step, self.area, self.sources)

    def within(self, area: Area) -> Stage:
        return replace(self, area=area)

    def sized(self, size: Size, margin: Area = (0.0, 0.0), canvas: Canvas | None = None) -> Stage:
        """The same canvas, or another, in another size, used whole, with a margin around it."""
        canvas = canvas or self.canvas
        area = (canvas.width, canvas.height)
        return replace(self, canvas=canvas, size=size, area=area, margin=margin)
