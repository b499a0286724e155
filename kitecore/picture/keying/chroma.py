"""Taking away a screen of one colour: what is surely so first, then the edges between."""

from __future__ import annotations

from typing import Final

import numpy as np
from numpy.typing import NDArray

from kitecore.document.keying import ChromaKey
from kitecore.motion.curve import curve_at
from kitecore.motion.plain import number, points
from kitecore.picture.keying.edges import refined
from kitecore.picture.keying.regions import calmed, regions_of
from kitecore.picture.keying.screen import (
    STEPS,
    distances,
    light_on_screen,
    screen_seen,
    weights_of,
)
from kitecore.picture.keying.shares import drawn, measured
from kitecore.picture.keying.spreading import BLOCK, gathered
from kitecore.picture.keying.unmixing import unmix
from kitecore.picture.layer import Rgba
from kitecore.picture.mixing import masked

_SOLID: Final = 0.9
"""Share of ``solid_above`` from which on a distance is surely foreground."""
_MARGIN: Final = 48
"""Rows of screen above and below what stands before it that are looked at, at least."""


def unscreened(pixels: Rgba, key: ChromaKey, density: float) -> Rgba:
    """Premultiplied RGBA without the screen, its light and its spill.

    ``density`` is pixels to one of the canvas.
    """
    light = light_on_screen(pixels, key)
    far, own = distances(pixels, key, light)
    low, high = number(key.clear_below), number(key.solid_above)
    calm, grain = calmed(far, low)
    response = _response(key)
    rows = _rows_of((calm >= low * STEPS) | (response[0] > 0), key, density)
    within, lit = pixels[rows], light[rows]
    regions = regions_of(calm[rows], own[rows], (low, _SOLID * high), grain, density)
    screen = screen_seen(within, regions.bare, key, lit)
    before = gathered(within, regions.sure)
    shares = measured(within, lit, regions, before, screen, weights_of(key))
    matte = np.zeros(far.shape, np.uint8)
    matte[rows] = drawn(shares, within, regions, (low, high), response)
    matte = refined(matte, key, density)
    if key.invert:
        return masked(pixels, matte)
    out = np.zeros_like(pixels)
    unmix(within, matte[rows], regions.sure, screen, key, out[rows])
    return out


def _rows_of(there: NDArray[np.bool_], key: ChromaKey, density: float) -> slice:
    """Rows in which something is, and as many around them as it may reach; a block at least."""
    found = np.flatnonzero(there.any(axis=1))
    if not found.size:
        return slice(0, BLOCK)
    reach = (abs(number(key.shrink)) + 3 * number(key.soften)) * density
    margin = round(max(_MARGIN, reach))
    return slice(max(int(found[0]) - margin, 0), int(found[-1]) + 1 + margin)


def _response(key: ChromaKey) -> NDArray[np.uint8]:
    shown = np.clip(curve_at(points(key.response), np.linspace(0, 1, 256)), 0, 1)
    return np.asarray(np.rint(shown * 255), np.uint8)
