from __future__ import annotations

from kitecore.document import SolidClip
from kitecore.motion import value_at
from kitecore.motion.oklab import rgb_of
from kitecore.picture.layer import Layer, Rgba, solid
from kitecore.render.painters._base import landed, painters
from kitecore.render.placing import Size
from kitecore.render.stage import Stage


@painters.register("solid")
def paint_solid(clip: SolidClip, tick: int, stage: Stage) -> Layer:
    colour = value_at(clip.colour, tick)

    def fetch(size: Size) -> Rgba:
        return stage.sources.cache.get((colour, size), lambda: solid(*size, rgb_of(colour)))

    filled = max(1, round(stage.area[0])), max(1, round(stage.area[1]))
    return landed(clip, tick, filled, stage, fetch)
