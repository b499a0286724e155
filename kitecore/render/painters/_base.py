from __future__ import annotations

from collections.abc import Callable, Hashable
from typing import Any

import numpy as np

from kitecore.arrays import Size
from kitecore.document import Pictured
from kitecore.motion import text_at
from kitecore.motion.posing import grows, grows_on, is_coming, pose_at
from kitecore.picture.layer import Layer, Rgba
from kitecore.registry import Registry
from kitecore.render.bending import bent
from kitecore.render.cutting import works_on
from kitecore.render.grading import Ungraded
from kitecore.render.layering import prepared
from kitecore.render.placing import Area, land
from kitecore.render.retouching import strokes_of
from kitecore.render.stage import Stage

Painter = Callable[[Any, int, Stage], Layer]
"""``paint(clip, tick, stage)``: the clip as a layer at a tick counted from its start."""

painters: Registry[Painter] = Registry("painter")


def landed(
    clip: Pictured,
    tick: int,
    picture: Area,
    stage: Stage,
    fetch: Callable[[Size], Ungraded],
    *,
    constant: Hashable = None,
    core: Area | None = None,
    drawn: bool = False,
) -> Layer:
    """A picture of size ``picture``, prepared, where its place puts it.

    Parameters
    ----------
    fetch
        Gives it in as many pixels as its place draws it with. Only of clips with a grade and
        without a key may it be other than RGBA of 8 bits.
    constant
        Names a picture that is the same all the time, and so is prepared once.
    core, drawn
        The part of it that is fitted, and whether the program draws it (see `placing.land`).
    """
    moment = tick + stage.exposed
    landing = land(
        clip.place,
        pose_at(clip, moment, stage.area),
        picture,
        stage.area,
        stage.onto,
        core=core,
        drawn=drawn,
        growing=_is_growing(clip, moment, drawn=drawn),
        fine=_is_light(clip),
        carried=stage.carried(clip, moment),
    )
    aspect = picture[0] / picture[1]

    def make() -> Rgba:
        if stage.outlined and _is_light(clip):
            return np.zeros((landing.pixels[1], landing.pixels[0], 4), np.uint8)
        fetched = fetch(landing.pixels)
        return prepared(fetched, clip, tick, stage, aspect, landing.density)

    name = None
    worked = (clip.key, clip.grade, clip.crop, *clip.masks, *strokes_of(clip), *works_on(clip))
    if constant is not None and not stage.matte:
        looks = tuple(part and text_at(part, tick) for part in worked)
        name = (constant, landing.pixels, looks)
    kept = name is not None and any(worked)
    pixels = stage.sources.cache.get(name, make) if kept else make()
    layer = Layer(pixels, landing.matrix, landing.density, constant=name)
    return bent(layer, clip, moment, aspect, stage)


def _is_growing(clip: Pictured, tick: int, *, drawn: bool) -> bool:
    """Whether its size is between two others; what is drawn is drawn as at rest once it has come."""
    return grows_on(clip) or (grows(clip) and (not drawn or is_coming(clip, tick)))


def _is_light(clip: Pictured) -> bool:
    """Whether little is done to each pixel of a clip, so that it may have more of them."""
    return not (
        clip.key or clip.grade or clip.effects or clip.masks or clip.warp or strokes_of(clip)
    )
