"""Adjustment layers: what lies below, changed."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from kitecore.arrays import Coverage
from kitecore.document import AdjustmentClip
from kitecore.motion import still_at
from kitecore.motion.posing import opacity_at, pose_at
from kitecore.picture.composite import lay
from kitecore.picture.effects import apply_effects
from kitecore.picture.layer import Layer, Rgba, moved, sized, solid
from kitecore.picture.mixing import masked, mixed_by
from kitecore.render.grading import graded_picture
from kitecore.render.layering import shown_part
from kitecore.render.placing import land
from kitecore.render.stage import Stage

_NEAR = 1e-6


def adjust(
    canvas: Rgba, clip: AdjustmentClip, tick: int, stage: Stage, within: Coverage | None = None
) -> None:
    """Put ``canvas`` through a clip's grade and effects, in place.

    Parameters
    ----------
    within
        0..255 for each pixel: where it may work at all.
    """
    local = tick - clip.start
    opacity = min(max(opacity_at(clip, local), 0.0), 1.0)
    if opacity <= 0:
        return
    where = area_of(clip, local, stage)
    if within is not None:
        where = within if where is None else _both(where, within)
    if opacity < 1 or where is None:
        where = np.rint(_full(canvas) * opacity if where is None else where * opacity)
    mask = np.asarray(where, np.uint8)
    changed = _changed(canvas, clip, local, stage)
    if clip.blend == "normal":
        canvas[...] = mixed_by(canvas, changed, mask)
    else:
        lay(canvas, Layer(masked(changed, mask), moved(0, 0)), 1.0, clip.blend)


def area_of(clip: AdjustmentClip, local: int, stage: Stage) -> Coverage | None:
    """Where an adjustment works, by its place, crop and masks; None for everywhere."""
    whole = (stage.canvas.width, stage.canvas.height)
    pose, carry = pose_at(clip, local, stage.area), stage.carried(clip, local)
    landing = land(clip.place, pose, whole, stage.area, stage.onto, carried=carry)
    width, height = landing.pixels
    part = shown_part(clip, local, width, height, stage, whole[0] / whole[1])
    fills = stage.onto @ sized(whole[0] / width, whole[1] / height)
    if part is None and np.abs(landing.matrix - fills).max() < _NEAR:
        return None

    def draw() -> Coverage:
        white = solid(width, height, (255, 255, 255))
        layer = Layer(white if part is None else masked(white, part), landing.matrix)
        out = np.zeros((stage.size[1], stage.size[0], 4), np.uint8)
        lay(out, layer)
        return np.ascontiguousarray(out[..., 3])

    now = tuple(still_at(one, local).model_dump_json() for one in (clip.crop, *clip.masks) if one)
    key = ("area", now, landing.matrix.tobytes(), landing.pixels, stage.size)
    found: Coverage = stage.sources.cache.get(key, draw)
    return found


def _changed(canvas: Rgba, clip: AdjustmentClip, local: int, stage: Stage) -> Rgba:
    aspect = stage.canvas.width / stage.canvas.height
    pixels = graded_picture(canvas.copy(), clip, local, stage, aspect)
    layer = Layer(pixels, moved(0, 0), stage.scale[0], endless=True)
    return apply_effects(layer, clip.effects, local).pixels


def _full(canvas: Rgba) -> NDArray[np.float32]:
    return np.full(canvas.shape[:2], 255, np.float32)


def _both(first: Coverage, second: Coverage) -> Coverage:
    return np.asarray(first.astype(np.uint16) * second // 255, np.uint8)
