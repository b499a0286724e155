"""Clips that the program draws: shapes and text."""

from __future__ import annotations

from typing import Any, Final

from kitecore.document import Pictured, ShapeClip, TextClip
from kitecore.motion import still_at
from kitecore.motion.plain import number
from kitecore.picture.drawing.shapes import draw_shape, extent_of_shape
from kitecore.picture.drawing.text import draw_text, extent_of_text
from kitecore.picture.layer import Layer, Rgba
from kitecore.render.painters._base import landed, painters
from kitecore.render.painters.lettering import coming_of, draw_coming
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
    coming = coming_of(clip, tick + stage.exposed)
    if coming is None:
        return _painted(now, clip, tick, stage, extent, lambda size: draw_text(now, size, faces))
    name = now.model_dump_json(exclude=_NOT_DRAWN)
    room = coming.room(stage.area, number(now.size))
    area = (extent[0] + 2 * room, extent[1] + 2 * room)

    def fetch(size: Size) -> Rgba:
        return draw_coming(now, coming, name, size, area, extent, stage)

    return landed(clip, tick, area, stage, fetch, drawn=True)


def extent_of(clip: Pictured, tick: int, stage: Stage) -> Area | None:
    """Size in canvas pixels of what the program draws; None for clips with a picture."""
    if not isinstance(clip, ShapeClip | TextClip):
        return None
    now = still_at(clip, tick)
    if isinstance(now, ShapeClip):
        return extent_of_shape(now)
    return extent_of_text(now, stage.sources.faces)


def _painted(now: Any, clip: Pictured, tick: int, stage: Stage, extent: Area, draw: Any) -> Layer:
    name = now.model_dump_json(exclude=_NOT_DRAWN)

    def fetch(size: Size) -> Rgba:
        found: Rgba = stage.sources.cache.get((name, size), lambda: draw(size))
        return found

    return landed(clip, tick, extent, stage, fetch, constant=name, drawn=True)
