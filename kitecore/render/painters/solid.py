from __future__ import annotations

from kitecore.document import Canvas, SolidClip
from kitecore.motion import value_at
from kitecore.motion.oklab import rgb_of
from kitecore.picture.layer import Layer, Rgba, solid
from kitecore.render.painters._base import landed, painters
from kitecore.render.placing import Size
from kitecore.render.sources import Sources


@painters.register("solid")
def paint_solid(
    clip: SolidClip, tick: int, canvas: Canvas, output: Size, sources: Sources
) -> Layer:
    colour = value_at(clip.colour, tick)

    def fetch(size: Size) -> Rgba:
        return sources.cache.get((colour, size), lambda: solid(*size, rgb_of(colour)))

    return landed(clip, tick, (canvas.width, canvas.height), canvas, output, fetch)
