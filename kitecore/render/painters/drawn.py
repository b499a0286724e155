"""Clips that the program draws: shapes and text."""

from __future__ import annotations

from collections.abc import Hashable
from typing import Any, Final

import numpy as np
from numpy.typing import NDArray

from kitecore.arrays import Size
from kitecore.document import Pictured, ShapeClip, TextClip
from kitecore.kept import KeptOf
from kitecore.motion import still_at
from kitecore.motion.plain import number
from kitecore.picture.drawing.shapes import body_of_shape, draw_shape, extent_of_shape
from kitecore.picture.drawing.text import box_of_text, draw_text, extent_of_text
from kitecore.picture.layer import Layer, Rgba
from kitecore.render.gradual import rounding_of
from kitecore.render.painters._base import landed, painters
from kitecore.render.painters.lettering import coming_of, draw_coming
from kitecore.render.painters.saying import lit_at
from kitecore.render.placing import Area
from kitecore.render.stage import Stage

_NOT_DRAWN: Final = frozenset(Pictured.model_fields) - {"kind"}
"""What all clips have does not change how one is drawn."""
_names: Final[KeptOf[str]] = KeptOf(4096)
"""Of clips that always look the same."""

Drawn = ShapeClip | TextClip


@painters.register("shape")
def paint_shape(clip: ShapeClip, tick: int, stage: Stage) -> Layer:
    now = still_at(clip, tick, _NOT_DRAWN)
    (name, extent), rounding = _named(now, clip, stage), rounding_of(clip, stage)

    def fetch(size: Size) -> Rgba:
        return draw_shape(now, size, rounding)

    return _painted((name, rounding), clip, tick, stage, extent, fetch)


@painters.register("text")
def paint_text(clip: TextClip, tick: int, stage: Stage) -> Layer:
    now, faces = lit_at(still_at(clip, tick, _NOT_DRAWN), clip, tick), stage.sources.faces
    name, extent = _named(now, clip, stage)
    coming = coming_of(clip, tick + stage.exposed)
    if coming is None:
        return _painted(name, clip, tick, stage, extent, lambda size: draw_text(now, size, faces))
    room = coming.room(stage.area, number(now.size))
    area = (extent[0] + 2 * room, extent[1] + 2 * room)

    def fetch(size: Size) -> Rgba:
        return draw_coming(now, coming, name, size, area, extent, stage)

    return landed(clip, tick, area, stage, fetch, drawn=True)


def extent_of(clip: Pictured, tick: int, stage: Stage) -> Area | None:
    """Size in canvas pixels of what the program draws; None for clips with a picture."""
    if not isinstance(clip, ShapeClip | TextClip):
        return None
    return _named(still_at(clip, tick, _NOT_DRAWN), clip, stage)[1]


def body_of(clip: Pictured, tick: int, stage: Stage) -> tuple[float, float, float, float] | None:
    """Left, top, right and bottom of what a fill fills, in canvas pixels from the middle of the clip.

    Of a text its lines, without the room around them; None for clips with a picture.
    """
    if isinstance(clip, TextClip):
        box = box_of_text(still_at(clip, tick, _NOT_DRAWN), stage.sources.faces)
        return box.left, -box.height / 2, box.right, box.height / 2
    if isinstance(clip, ShapeClip):
        return body_of_shape(still_at(clip, tick, _NOT_DRAWN))
    return None


def _named(now: Drawn, clip: Drawn, stage: Stage) -> tuple[str, Area]:
    """A name for how a clip looks ``now``, and how large it is then."""

    def tell() -> str:
        return now.model_dump_json(exclude=set(_NOT_DRAWN))

    name = _names.get(clip, tell) if now is clip else tell()

    def measure() -> NDArray[np.float64]:
        if isinstance(now, ShapeClip):
            return np.array(extent_of_shape(now), float)
        return np.array(extent_of_text(now, stage.sources.faces), float)

    wide, high = stage.sources.cache.get((name, "extent"), measure)
    return name, (float(wide), float(high))


def _painted(
    name: Hashable, clip: Pictured, tick: int, stage: Stage, extent: Area, draw: Any
) -> Layer:
    def fetch(size: Size) -> Rgba:
        found: Rgba = stage.sources.cache.get((name, size), lambda: draw(size))
        return found

    return landed(clip, tick, extent, stage, fetch, constant=name, drawn=True)
