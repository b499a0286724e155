from __future__ import annotations

from kitecore.document import SequenceClip, StillClip
from kitecore.picture.layer import Layer
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
    return landed(clip, tick, whole, stage, lambda size: sources.still(media, size), constant=media)
