from __future__ import annotations

import skia

from kitecore.arrays import Size
from kitecore.document import SolidClip
from kitecore.document.fills import PlainFill
from kitecore.motion import still_at
from kitecore.motion.plain import colour, number
from kitecore.oklab import rgb_of
from kitecore.picture.drawing.fills import paint_of
from kitecore.picture.drawing.surface import drawn
from kitecore.picture.layer import Layer, Rgba, solid
from kitecore.render.gradual import rounding_of
from kitecore.render.painters._base import landed, painters
from kitecore.render.stage import Stage


@painters.register("solid")
def paint_solid(clip: SolidClip, tick: int, stage: Stage) -> Layer:
    fill = still_at(clip.fill, tick)
    filled = max(1, round(stage.area[0])), max(1, round(stage.area[1]))
    rounding = rounding_of(clip, stage)

    def make(size: Size) -> Rgba:
        if isinstance(fill, PlainFill) and number(fill.opacity) >= 1:
            return solid(*size, rgb_of(colour(fill.colour)))
        rect = skia.Rect.MakeXYWH(-filled[0] / 2, -filled[1] / 2, *filled)
        return drawn(size, filled, lambda canvas: canvas.drawRect(rect, paint_of(fill)), rounding)

    name = (fill.model_dump_json(), filled, rounding)
    return landed(
        clip,
        tick,
        filled,
        stage,
        lambda size: stage.sources.cache.get((name, size), lambda: make(size)),
        constant=name,
    )
