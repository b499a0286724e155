from __future__ import annotations

from kitecore.arrays import Size
from kitecore.document import SequenceClip, StillClip
from kitecore.motion.posing import grows
from kitecore.picture.layer import Layer, Rgba
from kitecore.render.painters._base import landed, painters
from kitecore.render.stage import Stage


@painters.register("still")
def paint_still(clip: StillClip, tick: int, stage: Stage) -> Layer:
    return _painted(clip, clip.media, tick, stage)


@painters.register("sequence")
def paint_sequence(clip: SequenceClip, tick: int, stage: Stage) -> Layer:
    return _painted(clip, clip.picture_at(tick), tick, stage)


def _painted(clip: StillClip | SequenceClip, media: str, tick: int, stage: Stage) -> Layer:
    info = stage.sources.picture(media)
    whole = (info.width, info.height)
    sources = stage.sources
    passing = grows(clip)

    def fetch(size: Size) -> Rgba:
        return sources.still(media, size, passing=passing)

    return landed(clip, tick, whole, stage, fetch, constant=media)
