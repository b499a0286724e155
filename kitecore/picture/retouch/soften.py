from __future__ import annotations

import math
from typing import Any, Final

import cv2
import numpy as np
from numpy.typing import NDArray

from kitecore.arrays import Box, box_of
from kitecore.bt709 import KB, KG, KR
from kitecore.document.strokes import SoftenStroke
from kitecore.picture.layer import Rgba
from kitecore.picture.outline import Grid
from kitecore.picture.retouch._base import Spot, retouches, rims

_EDGE: Final = 0.08 * 255
"""Differences of brightness that are edges: much less than that is evened out."""
_FAST: Final = 3
"""Pixels of a radius at which a wide even is made smaller."""
_WEIGHTS: Final = np.array([KR, KG, KB], np.float32)

Array = NDArray[Any]


@retouches.register("soften_stroke")
def soften(stroke: SoftenStroke, spot: Spot) -> Rgba:
    """What is larger than the spots, and what is finer than what is kept: the rest between goes."""
    out = spot.pixels.copy()
    box = box_of(spot.cover)
    if box is None:
        return out
    part = np.s_[box[1] : box[3], box[0] : box[2]]
    colours = out[part][..., :3].astype(np.float32)
    guide = colours @ _WEIGHTS
    # Both follow from the luma by lines: so does what lies between them.
    slope, offset = (
        wide - fine
        for wide, fine in zip(
            _lines(spot.pixels, stroke.spots * spot.unit, box),
            _lines(spot.pixels, min(stroke.keeps, stroke.spots) * spot.unit, box),
            strict=True,
        )
    )
    evened = colours + slope * guide[..., None] + offset
    out[part][..., :3] = np.rint(np.clip(evened, 0, out[part][..., 3:]))
    return out


@rims.register("soften_stroke")
def _rim(stroke: SoftenStroke, grid: Grid) -> float:
    return 2 * stroke.spots * grid.height


def _lines(whole: Rgba, radius: float, box: Box) -> tuple[Array, Array]:
    """By which line each colour, evened out over ``radius`` pixels, but not across edges, follows
    from the luma of its pixel: slopes and offsets of a part.

    K. He, J. Sun, X. Tang, "Guided Image Filtering", 2010, led by its own luma; what is wide is found
    on a smaller picture (K. He, J. Sun, "Fast Guided Filter", 2015).
    """
    rim = 2 * math.ceil(radius) + 1
    left, top = max(box[0] - rim, 0), max(box[1] - rim, 0)
    pixels = whole[top : box[3] + rim, left : box[2] + rim]
    part = np.s_[box[1] - top : box[3] - top, box[0] - left : box[2] - left]
    height, width = pixels.shape[:2]
    factor = max(1, round(radius / _FAST))
    size = max(2, width // factor), max(2, height // factor)
    small = pixels if factor == 1 else cv2.resize(pixels, size, interpolation=cv2.INTER_AREA)
    found = _small_lines(small[..., :3].astype(np.float32), max(1, round(radius / factor)))
    if factor > 1:
        found = cv2.resize(found, (width, height), interpolation=cv2.INTER_LINEAR)
    return found[part][..., :3], found[part][..., 3:]


def _small_lines(colours: Array, radius: int) -> Array:
    """Slopes and offsets of each pixel, shape (height, width, 6)."""
    side = (2 * radius + 1, 2 * radius + 1)

    def mean(one: Array) -> Array:
        return np.asarray(cv2.blur(one, side, borderType=cv2.BORDER_REFLECT_101))

    guide = (colours @ _WEIGHTS)[..., None]
    middle, means = mean(guide)[..., None], mean(colours)
    spread = mean(guide * guide)[..., None] - middle * middle
    slope = (mean(colours * guide) - means * middle) / (spread + _EDGE**2)
    return np.concatenate([mean(slope), mean(means - slope * middle)], axis=2)
