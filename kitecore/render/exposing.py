"""Motion blur: what moves while a shutter is open, averaged over that time."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from typing import Final

import numpy as np

from kitecore.document import Pictured
from kitecore.document.properties import keys_in
from kitecore.motion import value_at
from kitecore.motion.posing import moves_by_itself
from kitecore.picture.composite import lay
from kitecore.picture.layer import Layer, Matrix, moved
from kitecore.picture.leaning import on_plane
from kitecore.render.stage import Stage

Draw = Callable[[Pictured, int, Stage], Layer]
MOST_SAMPLES: Final = 32
BENT_SAMPLES: Final = 9
_STEP: Final = 1.5
"""Output pixels that a corner may go between two samples."""
_STILL: Final = 0.4


def exposed(clip: Pictured, local: int, stage: Stage, draw: Draw) -> Layer:
    """A clip's layer, blurred by how it moves while the shutter is open around a tick.

    Only its place and its warp count, not what changes within its picture. The time of exposure is
    ``shutter / 360`` of a frame, half of it before the tick.
    """
    shutter = min(max(value_at(clip.moves.shutter, local), 0.0), 360.0)
    layer = draw(clip, local, stage)
    if not shutter or stage.exposed:
        return layer
    open_for = stage.step * shutter / 360
    if _bends(clip):
        offsets = _offsets(open_for, BENT_SAMPLES)
        return _averaged(
            [draw(clip, local, replace(stage, exposed=offset)) for offset in offsets], stage
        )
    if not moves_by_itself(clip):
        return layer
    count = _samples(layer, clip, local, open_for, stage)
    if count < 2:
        return layer
    matrices = (_motion(clip, local, offset, stage) for offset in _offsets(open_for, count))
    return _averaged([replace(layer, matrix=by @ layer.matrix) for by in matrices], stage)


def _bends(clip: Pictured) -> bool:
    return clip.warp is not None and clip.warp.on and bool(keys_in(clip.warp))


def _offsets(open_for: float, count: int) -> list[int]:
    """Ticks about the middle of the exposure, in the middles of its even parts."""
    return [round(((index + 0.5) / count - 0.5) * open_for) for index in range(count)]


def _motion(clip: Pictured, local: int, by: int, stage: Stage) -> Matrix:
    """How output pixels move from a tick to ``by`` ticks later."""
    then, now = (_frame(clip, at, stage) for at in (local + by, local))
    onto = stage.onto
    return np.asarray(onto @ then @ np.linalg.inv(now) @ np.linalg.inv(onto))


def _frame(clip: Pictured, local: int, stage: Stage) -> Matrix:
    return stage.frame_of(clip, local)


def _samples(layer: Layer, clip: Pictured, local: int, open_for: float, stage: Stage) -> int:
    here = _corners(layer)
    halves = (round(-open_for / 2), round(open_for / 2))
    flat = np.vstack([here, np.ones(4)])
    begin, end = (on_plane(_motion(clip, local, by, stage), flat) for by in halves)
    far = sum(float(np.hypot(*(part - here)).max()) for part in (begin, end))
    if far < _STILL:
        return 1
    return int(min(max(np.ceil(far / _STEP), 2), MOST_SAMPLES))


def _averaged(layers: list[Layer], stage: Stage) -> Layer:
    """The mean of several layers, as one in output pixels."""
    boxes = np.array([_box(layer) for layer in layers])
    left, top = (int(max(low, 0)) for low in np.floor(boxes[:, :2].min(axis=0)) - 1)
    right, bottom = (
        int(min(high, most))
        for high, most in zip(np.ceil(boxes[:, 2:].max(axis=0)) + 1, stage.size, strict=True)
    )
    shape = (max(bottom - top, 1), max(right - left, 1), 4)
    total = np.zeros(shape, np.uint16)
    for layer in layers:
        stage.sources.checkpoint()
        one = np.zeros(shape, np.uint8)
        lay(one, replace(layer, matrix=moved(-left, -top) @ layer.matrix))
        total += one
    half, count = np.uint16(len(layers) // 2), np.uint16(len(layers))
    pixels = ((total + half) // count).astype(np.uint8)
    return Layer(pixels, moved(left, top), layers[0].density)


def _box(layer: Layer) -> list[float]:
    spots = _corners(layer)
    return [*spots.min(axis=1), *spots.max(axis=1)]


def _corners(layer: Layer) -> Matrix:
    """In output pixels, a column each, shape (2, 4)."""
    return on_plane(layer.matrix, layer.corners)
