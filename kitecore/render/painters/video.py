from __future__ import annotations

from kitecore.document import Canvas, VideoClip
from kitecore.picture.layer import Layer, Rgba
from kitecore.render.painters._base import landed, painters
from kitecore.render.placing import Size
from kitecore.render.sources import Sources


@painters.register("video")
def paint_video(
    clip: VideoClip, tick: int, canvas: Canvas, output: Size, sources: Sources
) -> Layer:
    info = sources.picture(clip.media)

    def fetch(size: Size) -> Rgba:
        return sources.video(clip.media, clip.source_in + tick, clip.id, size)

    return landed(clip, tick, (info.width, info.height), canvas, output, fetch)
