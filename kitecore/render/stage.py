"""What a clip is painted for."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace

from kitecore.document import Canvas, Track
from kitecore.picture.layer import Rgba
from kitecore.render.sources import Sources

Size = tuple[int, int]
Area = tuple[float, float]
DrawTracks = Callable[[Rgba, tuple[Track, ...], int, "Stage"], None]


@dataclass(frozen=True)
class Stage:
    """Output of ``size`` pixels of a ``canvas``.

    ``area`` is the width and height, in canvas pixels, that a picture is fitted into: the whole
    canvas, or the cell of a split screen. ``step`` is the length of a frame in ticks. ``draw``
    draws tracks onto a picture: a group paints with it what it holds. ``matte`` is the id of a zone
    to be shown as what it lets through, in place of its clip's picture.
    """

    canvas: Canvas
    size: Size
    sources: Sources
    step: int
    draw: DrawTracks
    area: Area
    matte: str = ""

    @property
    def scale(self) -> Area:
        """Output pixels to a canvas pixel, across and down."""
        return self.size[0] / self.canvas.width, self.size[1] / self.canvas.height

    def within(self, area: Area) -> Stage:
        return replace(self, area=area)

    def sized(self, size: Size) -> Stage:
        """The same canvas in another size, used whole."""
        return replace(self, size=size, area=(self.canvas.width, self.canvas.height))
