"""The colour of the screen behind somebody, found in the picture."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any, Final

import numpy as np
from numpy.typing import NDArray

from kitecore.bt709 import CB_SPAN, CR_SPAN, KB, KG, KR
from kitecore.document.keying import ChromaKey
from kitecore.picture.keying import distance_from

Array = NDArray[Any]

BINS: Final = 36
WEAKEST: Final = 0.09
"""Chroma (BT.709, 0..0.5) below which a colour is no screen."""
_BORDER: Final = 0.08
"""Share of the picture at its sides, where a screen is seen rather than somebody before it."""
_MARGIN: Final = 0.03


@dataclass(frozen=True)
class Screen:
    """A colour ``#rrggbb``, its share of the picture 0..1, and levels that suit it."""

    colour: str
    share: float
    clear_below: float


def screens_in(rgb: Array, most: int = 3) -> list[Screen]:
    """Colours that may be a screen, the most likely first.

    Parameters
    ----------
    rgb
        Straight colours 0..1, shape (height, width, 3).

    Notes
    -----
    Hues that are coloured enough are counted, those at the sides of the picture three times; the
    colour of a hue is the median of its pixels.
    """
    height, width = rgb.shape[:2]
    luma = rgb @ np.array([KR, KG, KB])
    cb, cr = (rgb[..., 2] - luma) / CB_SPAN, (rgb[..., 0] - luma) / CR_SPAN
    chroma = np.hypot(cb, cr)
    hue = np.floor((np.arctan2(cr, cb) / (2 * np.pi) % 1) * BINS).astype(int) % BINS
    weight = np.where(chroma >= WEAKEST, np.minimum(chroma, 0.25), 0)
    x, y = np.arange(width) / width, np.arange(height) / height
    side = (np.minimum(x, 1 - x)[None, :] < _BORDER) | (np.minimum(y, 1 - y)[:, None] < _BORDER)
    counted = np.bincount(hue.ravel(), (weight * np.where(side, 3, 1)).ravel(), minlength=BINS)
    together = counted + np.roll(counted, 1) + np.roll(counted, -1)
    found: list[Screen] = []
    while len(found) < most and together.max() > 0.002 * height * width:
        peak = int(together.argmax())
        near = np.isin(hue, [(peak + step) % BINS for step in (-1, 0, 1)]) & (weight > 0)
        found.append(_screen(rgb, near))
        for step in (-2, -1, 0, 1, 2):
            together[(peak + step) % BINS] = 0
    return found


def _screen(rgb: Array, near: Array) -> Screen:
    median = np.median(rgb[near], axis=0)
    colour = "#" + "".join(f"{round(float(c) * 255):02x}" for c in np.clip(median, 0, 1))
    far = distance_from(rgb[near], ChromaKey(colour=colour))
    clear = float(np.percentile(far[far < 0.5], 97)) if (far < 0.5).any() else 0.1
    # Most of what is uneven is evened out before; what is left is grain.
    return Screen(colour, float(near.mean()), round(min(max(clear / 2 + _MARGIN, 0.06), 0.4), 3))
