"""Taking away a screen of one colour: what is surely so first, then the edges between."""

from __future__ import annotations

from typing import Any, Final

import numpy as np
from numpy.typing import NDArray

from kitecore.document.keying import ChromaKey
from kitecore.motion.curve import curve_at
from kitecore.motion.plain import number, points
from kitecore.picture.keying.edges import refined
from kitecore.picture.keying.regions import calmed, pooled, regions_of
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
from kitecore.picture.keying.unmixing import unmix
from kitecore.picture.layer import Rgba
from kitecore.picture.mixing import masked

_SOLID: Final = 0.9
"""Share of ``solid_above`` from which on a distance is surely foreground."""
_MARGIN: Final = 48
"""Pixels of screen around what stands before it that are looked at, at least."""

Box = tuple[slice, slice]


def unscreened(pixels: Rgba, key: ChromaKey, density: float) -> Rgba:
    """Premultiplied RGBA without the screen, its light and its spill.

    ``density`` is pixels to one of the canvas.
    """
    light = light_on_screen(pixels, key)
    far, own = distances(pixels, key, light)
    low, high = number(key.clear_below), number(key.solid_above)
    calm, grain = calmed(far, low)
    response = _response(key)
    everywhere = response[0] > 0
    pool = pooled(calm, own)
    box = _box(pool.most, calm.shape, 0 if everywhere else low * STEPS, key, density)
    within, lit = np.ascontiguousarray(pixels[box]), light.within(box[0].start, box[1].start)
    part = pool.within(box[0].start, box[1].start, box[0].stop, box[1].stop)
    regions = regions_of(calm[box], part, (low, _SOLID * high), grain, density)
    screen = screen_seen(within, regions.bare, key, light)
    before = gathered(within, regions.sure)
    shares = measured(within, lit, regions, before, screen, weights_of(key))
    matte = np.zeros(far.shape, np.uint8)
    matte[box] = drawn(shares, within, regions, (low, high), response)
    matte = refined(matte, key, density)
    if key.invert:
        return masked(pixels, matte)
    out = np.zeros(pixels.shape, np.uint8)
    left, corner = np.ascontiguousarray(matte[box]), (box[1].start, box[0].start)
    unmix(within, left, regions.sure, screen, key, out, corner)
    return out


def _box(
    most: NDArray[np.uint8], shape: tuple[int, ...], least: float, key: ChromaKey, density: float
) -> Box:
    """Rows and columns in which something is, and as many around as it may reach; a block at least.

    They begin at even ones. ``most``: greatest distances of two by two pixels; ``least``: distance
    from which on something is there.
    """
    reach = (abs(number(key.shrink)) + 3 * number(key.soften)) * density
    margin = round(max(_MARGIN, reach))
    rows, columns = most.max(axis=1), most.max(axis=0)
    return _span(rows, shape[0], least, margin), _span(columns, shape[1], least, margin)


def _span(most: NDArray[Any], count: int, least: float, margin: int) -> slice:
    found = np.flatnonzero(most >= least)
    if not found.size:
        return slice(0, min(SCREEN_BLOCK, count))
    first, last = 2 * int(found[0]) - margin, 2 * int(found[-1]) + 2 + margin
    return slice(max(first // 2 * 2, 0), min(last, count))


def _response(key: ChromaKey) -> NDArray[np.uint8]:
    shown = np.clip(curve_at(points(key.response), np.linspace(0, 1, 256)), 0, 1)
    return np.asarray(np.rint(shown * 255), np.uint8)
