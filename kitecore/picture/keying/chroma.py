"""Taking away a screen of one colour: what is surely so first, then the edges between.

What is surely so is told at half the size, where chroma is in nearly all takes: each of its pixels
is the mean of four. Only the edges are drawn pixel by pixel.
"""

from __future__ import annotations

from typing import Any, Final

import cv2
import numpy as np
from numpy.typing import NDArray

from kitecore.document.keying import ChromaKey
from kitecore.kept import KeptOf
from kitecore.motion.curve import curve_at
from kitecore.motion.plain import number, points
from kitecore.picture.keying.edges import refined
from kitecore.picture.keying.regions import calmed, regions_of
from kitecore.picture.keying.screen import (
    SCREEN_BLOCK,
    STEPS,
    distances,
    light_on_screen,
    screen_seen,
    weights_of,
)
from kitecore.picture.keying.shares import drawn, measured
from kitecore.picture.keying.spreading import gathered
from kitecore.picture.keying.unmixing import unmixed
from kitecore.picture.layer import Rgba
from kitecore.picture.mixing import masked

_SOLID: Final = 0.9
"""Share of ``solid_above`` from which on a distance is surely foreground."""
_MARGIN: Final = 48
"""Pixels of screen around what stands before it that are looked at, at least."""

_responses: KeptOf[NDArray[np.uint8]] = KeptOf(16)

Box = tuple[slice, slice]


def unscreened(pixels: Rgba, key: ChromaKey, density: float) -> Rgba:
    """Premultiplied RGBA without the screen, its light and its spill.

    ``density`` is pixels to one of the canvas.
    """
    height, width = pixels.shape[:2]
    if height % 2 or width % 2:
        whole = cv2.copyMakeBorder(pixels, 0, height % 2, 0, width % 2, cv2.BORDER_REPLICATE)
        return np.ascontiguousarray(_unscreened(whole, key, density)[:height, :width])
    return _unscreened(pixels, key, density)


def _unscreened(pixels: Rgba, key: ChromaKey, density: float) -> Rgba:
    """Of a picture of which both sides are even."""
    height, width = pixels.shape[:2]
    half = np.asarray(cv2.resize(pixels, (width // 2, height // 2), interpolation=cv2.INTER_AREA))
    light = light_on_screen(half, key)
    far, own = distances(half, key, light)
    low, high = number(key.clear_below), number(key.solid_above)
    calm, grain = calmed(far, low)
    response = _response(key)
    box = _box(calm, 0 if response[0] > 0 else low * STEPS, key, density)
    half, calm, own = (np.ascontiguousarray(one[box]) for one in (half, calm, own))
    light = light.within(box[0].start, box[1].start)
    regions = regions_of(calm, own, (low, _SOLID * high), grain, density)
    screen = screen_seen(half, regions.bare, key, light)
    before = gathered(half, regions.sure)
    corner = 2 * box[0].start, 2 * box[1].start
    shares = measured(pixels, corner, light, regions, before, screen, weights_of(key))
    matte = drawn(shares, pixels, corner, regions, (low, high), response)
    matte = refined(matte, key, density)
    if key.invert:
        whole = np.full((height, width), 255, np.uint8)
        whole[corner[0] :, corner[1] :][: matte.shape[0], : matte.shape[1]] = matte
        return masked(pixels, whole)
    return unmixed(pixels, corner, matte, regions.sure, screen, key)


def _box(far: NDArray[np.uint8], least: float, key: ChromaKey, density: float) -> Box:
    """Rows and columns in which something is, and as many around as it may reach; a block at least.

    ``far``: distances at half the size; ``least``: that from which on something is there.
    """
    reach = (abs(number(key.shrink)) + 3 * number(key.soften)) * density
    margin = -(-round(max(_MARGIN, reach)) // 2)
    rows, columns = far.max(axis=1), far.max(axis=0)
    return _span(rows, least, margin), _span(columns, least, margin)


def _span(most: NDArray[Any], least: float, margin: int) -> slice:
    found = np.flatnonzero(most >= least)
    if not found.size:
        return slice(0, min(SCREEN_BLOCK, len(most)))
    return slice(max(int(found[0]) - margin, 0), min(int(found[-1]) + 1 + margin, len(most)))


def _response(key: ChromaKey) -> NDArray[np.uint8]:
    """A table of what becomes of each share, 0..255."""

    def make() -> NDArray[np.uint8]:
        shown = np.clip(curve_at(points(key.response), np.linspace(0, 1, 256)), 0, 1)
        return np.asarray(np.rint(shown * 255), np.uint8)

    return _responses.get(key.response, make)
