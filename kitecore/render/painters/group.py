from __future__ import annotations

import numpy as np

from kitecore.arrays import Size
from kitecore.document import GroupClip
from kitecore.picture.layer import Layer, Rgba
from kitecore.picture.transitions._base import mixed
from kitecore.render.painters._base import landed, painters
from kitecore.render.stage import Stage
from kitecore.ticks import TICKS_PER_SECOND

JUST_BEFORE = TICKS_PER_SECOND // 40_000
"""More than what a frame's time may be rounded by, less than any frame lasts."""


@painters.register("group")
def paint_group(clip: GroupClip, tick: int, stage: Stage) -> Layer:
    """What the group holds, composited on its own and then placed as one picture.

    A group has the size of the canvas, so that it looks as its clips did.
    """
    whole = (stage.canvas.width, stage.canvas.height)

    def fetch(size: Size) -> Rgba:
        inner, at = stage.sized(size), clip.source_at(tick)
        if clip.speed.at(tick) < 0:
            # Played backwards, the frame that ends there.
            return _drawn(clip, at - JUST_BEFORE, inner)
        if clip.between == "nearest" or clip.speed.plain or not at % stage.step:
            return _drawn(clip, at, inner)
        first = at // stage.step * stage.step
        later = _drawn(clip, first + stage.step, inner)
        return mixed(_drawn(clip, first, inner), later, (at - first) / stage.step)

    return landed(clip, tick, whole, stage, fetch)


def _drawn(clip: GroupClip, tick: int, stage: Stage) -> Rgba:
    tick = min(max(tick, 0), max(0, clip.source_end - 1))
    pixels = np.zeros((stage.size[1], stage.size[0], 4), np.uint8)
    stage.draw(pixels, clip.tracks, tick, stage)
    return pixels
