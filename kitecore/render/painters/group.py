from __future__ import annotations

from dataclasses import replace
from typing import Final

import numpy as np

from kitecore.arrays import Size
from kitecore.document import Canvas, Holding
from kitecore.motion.posing import pose_at
from kitecore.picture.layer import Layer, Matrix, Rgba
from kitecore.picture.transitions._base import mixed
from kitecore.render.painters._base import landed, painters
from kitecore.render.placing import Area, fit_factor
from kitecore.render.stage import Stage

_STEPS: Final = 8
"""Margins come in steps of so many to a canvas, so that they are the same for many frames."""
_FARTHEST: Final = 2.0
"""Canvases that are drawn at most on each side of the canvas."""
_NOTHING: Final = (0.0, 0.0)
_SMALL: Final = 32
"""Pixels on a side in which it is found out how far something reaches."""
_NEAR: Final = 1e-6


@painters.register("group")
@painters.register("mouth")
@painters.register("multicam")
def paint_holding(clip: Holding, tick: int, stage: Stage) -> Layer:
    """What is seen of what the clip holds, composited on its own and then placed as one picture.

    Unless it has a size of its own it has that of the canvas, so that it looks as its clips did; what
    they draw beyond it comes along, as far as it can be seen.
    """
    own = clip.own_canvas
    canvas = _size(own or stage.canvas)
    at = clip.shown_at(tick, stage.step)
    margin = _margin(clip, tick, at, stage)

    def fetch(size: Size) -> Rgba:
        inner = stage.sized(size, margin, own)
        if clip.between == "nearest" or clip.speed.plain or not at % stage.step:
            return _drawn(clip, at, inner)
        first = at // stage.step * stage.step
        later = _drawn(clip, first + stage.step, inner)
        return mixed(_drawn(clip, first, inner), later, (at - first) / stage.step)

    whole = (canvas[0] + 2 * margin[0], canvas[1] + 2 * margin[1])
    return landed(clip, tick, whole, stage, fetch, core=canvas)


def _drawn(clip: Holding, tick: int, stage: Stage) -> Rgba:
    pixels = np.zeros((stage.size[1], stage.size[0], 4), np.uint8)
    at = _within(clip, tick)
    stage.draw(pixels, clip.seen(at, at + stage.step), at, stage)
    return pixels


def _within(clip: Holding, tick: int) -> int:
    return min(max(tick, 0), max(0, clip.source_end - 1))


def _margin(clip: Holding, tick: int, at: int, stage: Stage) -> Area:
    """Canvas pixels around its canvas in which something lies that can be seen."""
    seen = _NOTHING if _is_framed(clip) else _seen(clip, tick + stage.exposed, stage)
    if seen == _NOTHING:
        return _NOTHING
    own = clip.own_canvas
    wide, high = _size(own or stage.canvas)
    around = replace(
        stage.sized((_SMALL, _SMALL), (_FARTHEST * wide, _FARTHEST * high), own), outlined=True
    )
    moment = _within(clip, at)
    held = stage.reach(clip.seen(moment, moment + stage.step), moment, around)
    across, down = (
        np.ceil(min(one, other) / side * _STEPS) / _STEPS * side
        for one, other, side in zip(seen, held, (wide, high), strict=True)
    )
    return float(across), float(down)


def _is_framed(clip: Holding) -> bool:
    """Whether something is done to it that counts from the edges of the canvas."""
    zones = clip.grade is not None and bool(clip.grade.zones)
    masked = any(mask.on for mask in clip.masks)
    return bool(clip.cell or clip.crop or clip.warp or masked or zones)


def _seen(clip: Holding, tick: int, stage: Stage) -> Area:
    """How far what the output shows reaches beyond the clip's own canvas."""
    own = clip.own_canvas
    canvas = _size(own or stage.canvas)
    fit = fit_factor(clip.place.fit, canvas, stage.area)
    pose = pose_at(clip, tick, stage.area)
    frame = stage.frame_of(clip, tick)
    from_pivot = (np.linalg.inv(frame) @ _corners(stage))[:2]
    from_middle = from_pivot + np.array(pose.pivot)[:, None]
    far = np.abs(from_middle / fit).max(axis=1) - np.array(canvas) / 2
    if clip.effects:
        # Blurs and shadows reach for what is just outside.
        far += np.array(canvas) / _STEPS
    across, down = (
        min(max(float(one) - _NEAR, 0.0), _FARTHEST * side)
        for one, side in zip(far, canvas, strict=True)
    )
    return across, down


def _corners(stage: Stage) -> Matrix:
    """Of the output, in canvas pixels, a column each."""
    (across, down), (wide, high) = stage.margin, _size(stage.canvas)
    xs, ys = (-across, wide + across), (-down, high + down)
    return np.array([[x, y, 1.0] for x in xs for y in ys]).T


def _size(canvas: Canvas) -> Area:
    return float(canvas.width), float(canvas.height)
