from __future__ import annotations

from kitecore.document import Canvas, StillClip
from kitecore.picture.layer import Layer, Rgba
from kitecore.render.painters._base import landed, painters
from kitecore.render.placing import Size
from kitecore.render.sources import Sources


@painters.register("still")
def paint_still(
    clip: StillClip, tick: int, canvas: Canvas, output: Size, sources: Sources
) -> Layer:
    info = sources.picture(clip.media)

    def fetch(size: Size) -> Rgba:
        return sources.still(clip.media, size)

    return landed(clip, tick, (info.width, info.height), canvas, output, fetch)
