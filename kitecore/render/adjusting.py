"""Adjustment layers: what lies below, changed."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from functools import partial
from typing import NamedTuple

import numpy as np

from kitecore.arrays import Box, Coverage, box_of
from kitecore.document import AdjustmentClip
from kitecore.motion import text_at
from kitecore.motion.posing import opacity_at, pose_at
from kitecore.picture.composite import lay
from kitecore.picture.effects import Others, Reads, apply_effects, reach_of
from kitecore.picture.layer import Layer, Rgba, moved, sized, solid
from kitecore.picture.mixing import masked, mix_in
from kitecore.picture.softening import MARGIN
from kitecore.render.grading import graded_picture
from kitecore.render.layering import shown_part
from kitecore.render.placing import land
from kitecore.render.stage import Stage

_NEAR = 1e-6


class Around(NamedTuple):
    """What effects of an adjustment may look at.

    ``below(tick, lane)`` is what lies below it at another tick of it, untouched; ``others`` are layers by
    their ids.
    """

    below: Callable[[int, str], Rgba]
    others: Others


def adjust(
    canvas: Rgba,
    clip: AdjustmentClip,
    tick: int,
    stage: Stage,
    around: Around,
    within: Coverage | None = None,
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
    box = _whole(canvas) if where is None else box_of(where)
    if box is None:
        return
    share = np.float32(opacity)
    mask = _full(box, share) if where is None else _part(where, box, share)
    changed = _changed(canvas, box, clip, local, stage, around)
    corner = box[0], box[1]
    if clip.blend == "normal":
        mix_in(canvas, changed, mask, corner)
    else:
        lay(canvas, Layer(masked(changed, mask), moved(*corner)), 1.0, clip.blend)


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

    now = tuple(text_at(one, local) for one in (clip.crop, *clip.masks) if one)
    key = ("area", now, landing.matrix.tobytes(), landing.pixels, stage.size)
    found: Coverage = stage.sources.cache.get(key, draw)
    return found


def _changed(
    canvas: Rgba, box: Box, clip: AdjustmentClip, local: int, stage: Stage, around: Around
) -> Rgba:
    """What a box of the canvas becomes; no more than that needs is worked on."""
    left, top, right, bottom = box
    whole = Layer(canvas, moved(0, 0), stage.scale[0], endless=True)
    reach = (
        None if _counts_from_edges(clip) or stage.matte else reach_of(whole, clip.effects, local)
    )
    region = _whole(canvas) if reach is None else _grown(box, reach, canvas)
    aspect = stage.canvas.width / stage.canvas.height
    part = canvas[region[1] : region[3], region[0] : region[2]].copy()
    pixels = graded_picture(part, clip, local, stage, aspect)

    layer = replace(whole, pixels=pixels)
    reads = _reads(whole, clip, local, stage, around)
    done = apply_effects(layer, clip.effects, local, reads).pixels
    return done[top - region[1] : bottom - region[1], left - region[0] : right - region[0]]


def _reads(whole: Layer, clip: AdjustmentClip, local: int, stage: Stage, around: Around) -> Reads:
    """Nothing in it leads back to itself: what it holds is let go with the frame."""
    before = partial(_before, whole, clip, local, stage, around)
    return Reads(before, around.others, stage.sources.tables.of_look)


def _before(
    whole: Layer, clip: AdjustmentClip, local: int, stage: Stage, around: Around,
    count: int, at: int, lane: int,
) -> Layer:  # fmt: skip
    """All that lies below, after the grade and the first effects, at another moment."""
    there = whole.pixels if at == local else around.below(at, f"{count}-{lane}")
    aspect = stage.canvas.width / stage.canvas.height
    graded = graded_picture(there.copy(), clip, at, stage, aspect)
    reads = _reads(whole, clip, local, stage, around)
    return apply_effects(replace(whole, pixels=graded), clip.effects[:count], at, reads)


def _counts_from_edges(clip: AdjustmentClip) -> bool:
    """Whether its grade has zones whose masks lie on the whole picture."""
    return clip.grade is not None and any(zone.masks for zone in clip.grade.zones)


def _whole(canvas: Rgba) -> Box:
    return 0, 0, canvas.shape[1], canvas.shape[0]


def _grown(box: Box, by: int, canvas: Rgba) -> Box:
    """A box and what lies around it, in whole blocks: blurs that go small see the same ones."""
    left, top, right, bottom = box
    width, height = canvas.shape[1], canvas.shape[0]
    return (
        max(left - by, 0) // MARGIN * MARGIN,
        max(top - by, 0) // MARGIN * MARGIN,
        min(-(-(right + by) // MARGIN) * MARGIN, width),
        min(-(-(bottom + by) // MARGIN) * MARGIN, height),
    )


def _full(box: Box, share: np.float32) -> Coverage:
    level = np.uint8(np.rint(255 * share))
    return np.full((box[3] - box[1], box[2] - box[0]), level, np.uint8)


def _part(area: Coverage, box: Box, share: np.float32) -> Coverage:
    part = np.ascontiguousarray(area[box[1] : box[3], box[0] : box[2]])
    return part if share >= 1 else np.rint(part * share).astype(np.uint8)


def _both(first: Coverage, second: Coverage) -> Coverage:
    return np.asarray(first.astype(np.uint16) * second // 255, np.uint8)
