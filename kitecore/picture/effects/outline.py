from __future__ import annotations

import math
from dataclasses import replace
from typing import Final

import cv2
import numpy as np
from numpy.typing import NDArray

from kitecore.arrays import Box, Coverage, box_of
from kitecore.document.effects.outline import Outline
from kitecore.motion.plain import colour, number
from kitecore.oklab import mix, rgb_of
from kitecore.picture.effects._base import bounded, effect_drawings, length_of
from kitecore.picture.layer import Layer, Rgba

_MOST_WIDTH = 400
_STEPS: Final = 256
"""Colours of a gradient."""


@effect_drawings.register("outline")
def outline(layer: Layer, effect: Outline, tick: int) -> Layer:
    """A line along the edge of what is seen: behind it, over it, or half and half."""
    width = max(0.0, length_of(effect.width, layer, _MOST_WIDTH))
    opacity = bounded(effect.opacity, 0.0, 1.0)
    if width < 0.05 or opacity == 0:
        return layer
    soft = max(0.0, length_of(effect.softness, layer, _MOST_WIDTH))
    outside = {"outside": width, "middle": width / 2, "inside": 0.0}[effect.place]
    grown = layer.padded(math.ceil(outside + soft) + 1)
    # What lies behind the picture need not end there.
    inner = -np.inf if effect.place == "outside" and not effect.alone else outside - width
    line = _line(grown.pixels[..., 3], inner, outside, soft) * np.float32(opacity)
    under = np.zeros_like(grown.pixels) if effect.alone else grown.pixels
    return replace(grown, pixels=_drawn(under, line, effect))


def _drawn(pixels: Rgba, line: NDArray[np.float32], effect: Outline) -> Rgba:
    """The line over the picture; one that lies outside is seen only where the picture is not."""
    share = np.asarray(cv2.convertScaleAbs(line, alpha=255))
    if effect.place == "outside" and not effect.alone:
        share = np.asarray(cv2.multiply(share, 255 - pixels[..., 3], scale=1 / 255))
        under = pixels
    else:
        under = np.asarray(cv2.multiply(pixels, cv2.merge([255 - share] * 4), scale=1 / 255))
    return np.asarray(cv2.add(under, cv2.merge([*_tinted(share, effect), share])))


def _tinted(share: Coverage, effect: Outline) -> list[Coverage]:
    """Red, green and blue of the line, premultiplied by how much of it is there."""
    first = colour(effect.colour)
    box = box_of(share) if effect.gradient else None
    if box is None:
        channels = rgb_of(first)
        return [np.asarray(cv2.convertScaleAbs(share, alpha=one / 255)) for one in channels]
    along = (_along(share.shape, box, number(effect.angle)) * (_STEPS - 1)).astype(np.uint8)
    other = colour(effect.second)
    row = [rgb_of(mix(first, other, step / (_STEPS - 1))) for step in range(_STEPS)]
    table = np.array(row, np.uint8)
    return [
        np.asarray(cv2.multiply(share, np.take(table[:, n], along), scale=1 / 255))
        for n in range(3)
    ]


def _along(shape: tuple[int, ...], box: Box, degrees: float) -> NDArray[np.float32]:
    """0..1: from one end of a box to the other, at an angle."""
    cos, sin = math.cos(math.radians(degrees)), math.sin(math.radians(degrees))
    middle = (box[0] + box[2]) / 2, (box[1] + box[3]) / 2
    half = (abs(cos) * (box[2] - box[0]) + abs(sin) * (box[3] - box[1])) / 2
    x = np.arange(shape[1], dtype=np.float32) + np.float32(0.5 - middle[0])
    y = np.arange(shape[0], dtype=np.float32) + np.float32(0.5 - middle[1])
    way = (x[None, :] * np.float32(cos) + y[:, None] * np.float32(sin)) / np.float32(half)
    return np.asarray(np.clip((way + 1) / 2, 0, 1))


def _line(alpha: Coverage, low: float, high: float, soft: float) -> NDArray[np.float32]:
    """0..1: between two distances from the edge of what is seen, in pixels, outwards positive."""
    line = np.zeros(alpha.shape, np.float32)
    box = box_of(alpha)
    if box is None:
        return line
    by = math.ceil(high + soft) + 2
    rows = slice(max(box[1] - by, 0), box[3] + by)
    columns = slice(max(box[0] - by, 0), box[2] + by)
    far = distance_from(np.ascontiguousarray(alpha[rows, columns]), within=low > -np.inf)
    slope = max(soft, 1.0)
    inner = 1.0 if low == -np.inf else np.clip((far - np.float32(low)) / slope + 0.5, 0, 1)
    line[rows, columns] = np.minimum(np.clip((high - far) / slope + 0.5, 0, 1), inner)
    return line


def distance_from(alpha: Coverage, *, within: bool = True) -> NDArray[np.float32]:
    """Pixels from the edge of what is seen, outwards positive; not ``within``: 0 inside.

    Where the edge runs through a pixel is told by its alpha (S. Gustavson and R. Strand,
    "Anti-aliased Euclidean distance transform", 2011). What the picture's edge cuts off ends there.
    """
    share = np.pad(alpha, 1).astype(np.float32) / np.float32(255)
    seen = share > 0.5
    far = _to(seen, share)
    if within:
        far = np.where(seen, -_to(~seen, share), far)
    return np.asarray(far[1:-1, 1:-1], np.float32)


def _to(those: NDArray[np.bool_], share: NDArray[np.float32]) -> NDArray[np.float32]:
    """From each pixel to the edge, which lies in the nearest of those, as far as its share says."""
    far, labels = cv2.distanceTransformWithLabels(
        (~those).astype(np.uint8), cv2.DIST_L2, 5, labelType=cv2.DIST_LABEL_PIXEL
    )
    within = np.zeros(int(labels.max()) + 1, np.float32)
    within[labels[those]] = np.abs(share[those] - 0.5)
    return np.asarray(far - within[labels], np.float32)
