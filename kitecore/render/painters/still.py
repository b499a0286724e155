from __future__ import annotations

from kitecore.arrays import Size
from kitecore.document import SequenceClip, StillClip
from kitecore.motion import still_at
from kitecore.motion.posing import grows
from kitecore.picture.layer import Layer, Rgba
from kitecore.render.cutting import cut_out, without_pieces
from kitecore.render.mending import Mending
from kitecore.render.painters._base import landed, painters
from kitecore.render.retouching import retouched
from kitecore.render.stage import Stage


@painters.register("still")
@painters.register("sequence")
def paint_still(clip: StillClip | SequenceClip, tick: int, stage: Stage) -> Layer:
    media = clip.media_at(tick)
    info = stage.sources.picture(media)
    passing = grows(clip)

    def fetch(size: Size) -> Rgba:
        pixels = stage.sources.still(media, size, passing=passing)
        if isinstance(clip, StillClip):
            pixels = without_pieces(pixels, clip, stage.sources)
        pixels = retouched(pixels, Mending(clip, media, stage.sources, size))
        if isinstance(clip, StillClip) and clip.cutout is not None:
            pixels = cut_out(pixels, clip, still_at(clip.cutout, tick), stage.sources)
        return pixels

    return landed(clip, tick, (info.width, info.height), stage, fetch, constant=media)
