from __future__ import annotations

import numpy as np

from kitecore.arrays import Size
from kitecore.document import VideoClip
from kitecore.media.pixels import is_deep
from kitecore.media.planes import Halved
from kitecore.motion import still_at
from kitecore.picture.between import flows, moved_between
from kitecore.picture.layer import Layer, Rgba
from kitecore.picture.transitions._base import mixed
from kitecore.render.cutting import cut_out_moving, works_on
from kitecore.render.grading import Deep, Ungraded, plan_of
from kitecore.render.masks_along import with_masks_along
from kitecore.render.mending import Mending
from kitecore.render.painters._base import landed, painters
from kitecore.render.retouching import retouched
from kitecore.render.sources import Sources
from kitecore.render.stage import Stage


@painters.register("video")
def paint_video(clip: VideoClip, tick: int, stage: Stage) -> Layer:
    info = stage.sources.picture(clip.media)
    clip = with_masks_along(clip, tick, stage.step, stage.sources)
    plain = not mixes(clip, tick, stage.step, stage.sources)
    spread = clip.grade is not None and plan_of(clip.grade, stage.sources).changes
    bare = clip.key is None and not clip.working_strokes and not works_on(clip)
    graded = plain and spread and bare

    def fetch(size: Size) -> Ungraded:
        if graded and is_deep(info):
            return _deep(clip, tick, size, stage)
        if graded and (planes := _planes(clip, tick, size, stage)) is not None:
            return planes
        shown = clip.shown_at(tick, stage.step)
        pixels = (_whole if plain else _between)(clip, tick, size, stage)
        pixels = retouched(
            pixels, Mending(clip, clip.media, stage.sources, size, shown, stage.reader_of(clip))
        )
        if clip.cutout is None or not clip.cutout.cuts:
            return pixels
        return cut_out_moving(pixels, clip, still_at(clip.cutout, tick), shown, stage.sources)

    return landed(clip, tick, (info.width, info.height), stage, fetch)


def shown_number(clip: VideoClip, tick: int, stage: Stage) -> int:
    """Number of the source's frame at a tick counted from the clip's start."""
    return stage.sources.frame_number(clip.media, clip.shown_at(tick, stage.step))


def mixes(clip: VideoClip, tick: int, step: int, sources: Sources) -> bool:
    """Whether what is shown at a tick of the clip is made of two frames of its source.

    At normal speed, too, where the source has another pace than the project.
    """
    if clip.between == "nearest":
        return False
    return sources.between(clip.media, clip.shown_at(tick, step))[1] > 0


def _whole(clip: VideoClip, tick: int, size: Size, stage: Stage) -> Rgba:
    return stage.sources.video(
        clip.media, shown_number(clip, tick, stage), stage.reader_of(clip), size
    )


def _deep(clip: VideoClip, tick: int, size: Size, stage: Stage) -> Deep:
    """Of more than 8 bits, which a grade may spread apart."""
    return stage.sources.video16(
        clip.media, shown_number(clip, tick, stage), stage.reader_of(clip), size
    )


def _planes(clip: VideoClip, tick: int, size: Size, stage: Stage) -> Halved | None:
    return stage.sources.halved(
        clip.media, shown_number(clip, tick, stage), stage.reader_of(clip), size
    )


def _between(clip: VideoClip, tick: int, size: Size, stage: Stage) -> Rgba:
    sources = stage.sources
    number, share = sources.between(clip.media, clip.shown_at(tick, stage.step))
    reader = stage.reader_of(clip)
    before = sources.video(clip.media, number, reader, size)
    after = sources.video(clip.media, number + 1, reader, size)
    # Faster than the source no picture between two is missing: what moves need not be found.
    if clip.between == "blended" or abs(clip.speed.at(tick)) > 1:
        return mixed(before, after, share)

    def measure() -> Rgba:
        # The cache keeps bytes.
        return flows(before, after).view(np.uint8)

    motion = sources.cache.get(
        (clip.media, sources.stamp(clip.media), number, size, "motion"), measure
    )
    return moved_between(before, after, share, motion.view(np.float32))
