"""Clips that the program draws: shapes and text."""

from __future__ import annotations

from typing import Any, Final

from kitecore.document import Pictured, ShapeClip, TextClip
from kitecore.motion import still_at
from kitecore.picture.drawing.shapes import draw_shape, extent_of_shape
from kitecore.picture.drawing.text import draw_text, extent_of_text
from kitecore.picture.layer import Layer, Rgba
from kitecore.render.painters._base import landed, painters
from kitecore.render.placing import Area, Size
from kitecore.render.stage import Stage

_NOT_DRAWN: Final = set(Pictured.model_fields) - {"kind"}
"""What all clips have does not change how one is drawn."""


@painters.register("shape")
def paint_shape(clip: ShapeClip, tick: int, stage: Stage) -> Layer:
    now = still_at(clip, tick)
    return _painted(
        now, clip, tick, stage, extent_of_shape(now), lambda size: draw_shape(now, size)
    )


@painters.register("text")
def paint_text(clip: TextClip, tick: int, stage: Stage) -> Layer:
    now, faces = still_at(clip, tick), stage.sources.faces
    extent = extent_of_text(now, faces)
    return _painted(now, clip, tick, stage, extent, lambda size: draw_text(now, size, faces))


def extent_of(clip: Pictured, tick: int, stage: Stage) -> Area | None:
    """Size in canvas pixels of what the program draws; None for clips with a picture."""
    now = still_at(clip, tick)
    if isinstance(now, ShapeClip):
        return extent_of_shape(now)
    if isinstance(now, TextClip):
        return extent_of_text(now, stage.sources.faces)
    return None


def _painted(now: Any, clip: Pictured, tick: int, stage: Stage, extent: Area, draw: Any) -> Layer:
    name = now.model_dump_json(exclude=_NOT_DRAWN)

    def fetch(size: Size) -> Rgba:
        found: Rgba = stage.sources.cache.get((name, size), lambda: draw(size))
        return found

    return landed(clip, tick, extent, stage, fetch, constant=name, drawn=True)
