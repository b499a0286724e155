from __future__ import annotations

import math
from dataclasses import replace
from typing import Final

import cv2
import numpy as np
from numba import njit
from numpy.typing import NDArray

from kitecore.arrays import Box, Coverage, box_of
from kitecore.document.effects.outline import Outline
from kitecore.motion.plain import colour, number
from kitecore.oklab import mix, rgb_of
from kitecore.picture.blend import over_255, pair_over_255
from kitecore.picture.effects._base import bounded, effect_drawings, length_of
from kitecore.picture.layer import Layer, Rgba, packed, solid

_MOST_WIDTH = 400
_STEPS: Final = 256
"""Colours of a gradient."""
_SEEN: Final = 127
"""Alpha above which a pixel is more seen than not."""
_FARTHEST: Final = 1e6
"""Pixels: farther in than any edge is."""

Distances = NDArray[np.float32]
Packed = NDArray[np.uint32]


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
    alpha = np.asarray(cv2.extractChannel(grown.pixels, 3), np.uint8)
    line = _line(alpha, (inner, outside), soft, opacity)
    under = np.zeros_like(grown.pixels) if effect.alone else grown.pixels
    return replace(grown, pixels=_drawn(under, line, effect))


def _drawn(pixels: Rgba, share: Coverage, effect: Outline) -> Rgba:
    """The line over the picture; one that lies outside is seen only where the picture is not."""
    out = np.empty_like(pixels)
    behind = effect.place == "outside" and not effect.alone
    _colour(packed(np.ascontiguousarray(pixels)), share, _tints(share, effect), behind, packed(out))
    return out


def _tints(share: Coverage, effect: Outline) -> Packed:
    """Colours of the line, opaque: of each pixel, or a row of them that holds for all."""
    first = colour(effect.colour)
    box = box_of(share) if effect.gradient else None
    if box is None:
        return packed(solid(share.shape[1], 1, rgb_of(first)))
    along = (_along(share.shape, box, number(effect.angle)) * (_STEPS - 1)).astype(np.uint8)
    other = colour(effect.second)
    row = [(*rgb_of(mix(first, other, step / (_STEPS - 1))), 255) for step in range(_STEPS)]
    return np.take(packed(np.array([row], np.uint8))[0], along)


@njit(cache=True, nogil=True)
def _colour(pixels: Packed, share: Coverage, tints: Packed, behind: bool, out: Packed) -> None:
    """As much of the tints as the line's share says, under the picture or over it."""
    pairs, eight, full = np.uint32(0x00FF00FF), np.uint32(8), np.uint32(255)
    rows, columns = pixels.shape
    own = np.empty(columns, np.uint32)
    for y in range(rows):
        line, made, shares = pixels[y, :], out[y, :], share[y, :]
        tint = tints[min(y, len(tints) - 1), :]
        for x in range(columns):
            own[x] = np.uint32(shares[x])
        if behind:
            for x in range(columns):
                clear = np.uint32(full - (line[x] >> np.uint32(24)))
                own[x] = over_255(np.uint32(own[x] * clear))
        for x in range(columns):
            rest = full if behind else np.uint32(full - own[x])
            p, q = line[x], tint[x]
            even = pair_over_255(np.uint32((p & pairs) * rest))
            even = np.uint32(even + pair_over_255(np.uint32((q & pairs) * own[x])))
            odd = pair_over_255(np.uint32(((p >> eight) & pairs) * rest))
            odd = np.uint32(odd + pair_over_255(np.uint32(((q >> eight) & pairs) * own[x])))
            made[x] = np.uint32(even | np.uint32(odd << eight))


def _along(shape: tuple[int, ...], box: Box, degrees: float) -> NDArray[np.float32]:
    """0..1: from one end of a box to the other, at an angle."""
    cos, sin = math.cos(math.radians(degrees)), math.sin(math.radians(degrees))
    middle = (box[0] + box[2]) / 2, (box[1] + box[3]) / 2
    half = (abs(cos) * (box[2] - box[0]) + abs(sin) * (box[3] - box[1])) / 2
    x = np.arange(shape[1], dtype=np.float32) + np.float32(0.5 - middle[0])
    y = np.arange(shape[0], dtype=np.float32) + np.float32(0.5 - middle[1])
    way = (x[None, :] * np.float32(cos) + y[:, None] * np.float32(sin)) / np.float32(half)
    return np.asarray(np.clip((way + 1) / 2, 0, 1))


def _line(alpha: Coverage, distances: tuple[float, float], soft: float, opacity: float) -> Coverage:
    """What is seen between two distances from the edge of the picture, in pixels, outwards positive."""
    low, high = distances
    line = np.zeros(alpha.shape, np.uint8)
    box = box_of(alpha)
    if box is None:
        return line
    by = math.ceil(high + soft) + 2
    rows = slice(max(box[1] - by, 0), box[3] + by)
    columns = slice(max(box[0] - by, 0), box[2] + by)
    far = distance_from(np.ascontiguousarray(alpha[rows, columns]), within=low > -np.inf)
    _fill_between(far, max(low, -_FARTHEST), high, max(soft, 1.0), opacity, line[rows, columns])
    return line


@njit(cache=True, nogil=True, fastmath={"nnan", "nsz", "contract"})
def _fill_between(
    far: Distances, low: float, high: float, slope: float, opacity: float, out: Coverage
) -> None:
    each, most = np.float32(1 / slope), np.float32(opacity * 255)
    below, above = np.float32(0.5 - low / slope), np.float32(0.5 + high / slope)
    zero, one, half = np.float32(0), np.float32(1), np.float32(0.5)
    for row in range(far.shape[0]):
        distances, line = far[row, :], out[row, :]
        for k in range(len(line)):
            at = distances[k] * each
            shown = max(min(min(above - at, at + below), one), zero)
            line[k] = np.uint8(np.int32(shown * most + half))


def distance_from(alpha: Coverage, *, within: bool = True) -> Distances:
    """Pixels from the edge of what is seen, outwards positive; not ``within``: about 0 inside.

    Where the edge runs through a pixel is told by its alpha (S. Gustavson and R. Strand,
    "Anti-aliased Euclidean distance transform", 2011). What the picture's edge cuts off ends there.
    """
    padded = np.asarray(cv2.copyMakeBorder(alpha, 1, 1, 1, 1, cv2.BORDER_CONSTANT))
    far = _to(padded, seen=True)
    if within:
        far = np.where(padded > _SEEN, -_to(padded, seen=False), far)
    return np.ascontiguousarray(far[1:-1, 1:-1])


def _to(alpha: Coverage, *, seen: bool) -> Distances:
    """From each pixel to the edge, which lies in the nearest that is seen, or not, as far as its alpha
    says.
    """
    kind = cv2.THRESH_BINARY_INV if seen else cv2.THRESH_BINARY
    others = cv2.threshold(alpha, _SEEN, 1, kind)[1]
    found, labels = cv2.distanceTransformWithLabels(
        others, cv2.DIST_L2, 5, labelType=cv2.DIST_LABEL_PIXEL
    )
    far, numbers = np.asarray(found, np.float32), np.asarray(labels, np.int32)
    _shorten(far, numbers.view(np.uint32), alpha, np.asarray(others, np.uint8))
    return far


@njit(cache=True, nogil=True)
def _shorten(far: Distances, labels: NDArray[np.uint32], alpha: Coverage, others: Coverage) -> None:
    """Distances by as much less as the edge lies before the middle of the nearest, in place."""
    within = np.zeros(far.size + 1, np.float32)
    for row in range(far.shape[0]):
        numbers, shares, known = labels[row, :], alpha[row, :], others[row, :]
        for k in range(len(numbers)):
            if not known[k]:
                within[numbers[k]] = abs(np.float32(shares[k]) / np.float32(255) - np.float32(0.5))
    for row in range(far.shape[0]):
        numbers, distances = labels[row, :], far[row, :]
        for k in range(len(numbers)):
            distances[k] -= within[numbers[k]]
