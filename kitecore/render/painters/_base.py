from __future__ import annotations

from collections.abc import Callable, Hashable
from typing import Any

from kitecore.document import Pictured
from kitecore.motion import still_at
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
    constant: Hashable = None,
) -> Layer:
    """A picture of size ``picture``, fetched as large as its place draws it and graded, where its

    place puts it. Only of clips with a grade may it have 16 bits. Where ``constant`` names
    the picture it is the same all the time, and is graded once.
    """
    landing = land(clip.place, tick, picture, stage.area, stage.scale)
    aspect = picture[0] / picture[1]

    def make() -> Rgba:
        return graded_picture(fetch(landing.pixels), clip, tick, stage, aspect)

    if constant is not None and clip.grade is not None and not stage.matte:
        grade = still_at(clip.grade, tick).model_dump_json()
        pixels = stage.sources.cache.get((constant, landing.pixels, grade), make)
    else:
        pixels = make()
    return Layer(pixels, landing.matrix, landing.density)
