from __future__ import annotations

from collections.abc import Callable
from typing import Any

from kitecore.document import Pictured
from kitecore.picture.layer import Layer, Rgba
from kitecore.registry import Registry
from kitecore.render.grading import Deep, graded_picture
from kitecore.render.placing import Size, land
from kitecore.render.stage import Stage

Painter = Callable[[Any, int, Stage], Layer]
"""``paint(clip, tick, stage)``: the clip as a layer at a tick counted from its start."""

painters: Registry[Painter] = Registry("painter")


def landed(
    clip: Pictured,
    tick: int,
    picture: Size,
    stage: Stage,
    fetch: Callable[[Size], Rgba | Deep],
) -> Layer:
    """A picture of size ``picture``, fetched as large as its place draws it and graded, where its

    place puts it. Only of clips with a grade may it have 16 bits.
    """
    landing = land(clip.place, tick, picture, stage.area, stage.scale)
    aspect = picture[0] / picture[1]
    pixels = graded_picture(fetch(landing.pixels), clip, tick, stage, aspect)
    return Layer(pixels, landing.matrix, landing.density)
