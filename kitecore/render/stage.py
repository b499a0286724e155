"""What a clip is painted for."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, replace
from functools import cached_property

from kitecore.arrays import Size
from kitecore.document import Canvas, ClipBase, Pictured, Track
from kitecore.motion.following import carried
from kitecore.picture.layer import Matrix, Rgba
from kitecore.render.sources import Sources

Area = tuple[float, float]
DrawTracks = Callable[[Rgba, tuple[Track, ...], int, "Stage"], None]


@dataclass(frozen=True)
class Stage:
    """Output of ``size`` pixels of a ``canvas``.

    ``area`` is the width and height, in canvas pixels, that a picture is fitted into: the whole
    canvas, or the cell of a split screen. ``step`` is the length of a frame in ticks. ``draw``
    draws tracks onto a picture: a group paints with it what it holds. ``matte`` is the id of a zone
    to be shown as what it lets through, in place of its clip's picture. ``tracks`` are those among
    which layers follow each other. ``exposed`` is how far, in ticks, what moves is ahead of what is
    shown: within the time of one exposure.
    """

    canvas: Canvas
    size: Size
    sources: Sources
    step: int
    draw: DrawTracks
    area: Area
    matte: str = ""
    tracks: tuple[Track, ...] = ()
    exposed: int = 0

    @property
    def scale(self) -> Area:
        """Output pixels to a canvas pixel, across and down."""
        return self.size[0] / self.canvas.width, self.size[1] / self.canvas.height

    @cached_property
    def clips(self) -> Mapping[str, ClipBase]:
        """Those among which layers follow each other, by id."""
        return {clip.id: clip for track in self.tracks for clip in track.clips}

    def carried(self, clip: Pictured, local: int) -> Matrix | None:
        """What a clip's leader does to it at a tick of its own (see `motion.following`)."""
        return carried(clip, local, self.clips, self.area) if clip.moves.follow else None

    def within(self, area: Area) -> Stage:
        return replace(self, area=area)

    def sized(self, size: Size) -> Stage:
        """The same canvas in another size, used whole."""
        return replace(self, size=size, area=(self.canvas.width, self.canvas.height))
