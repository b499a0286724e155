"""The colour of the foreground alone, once its share is known.

A pixel is C = F + (1 - a)·K, with the premultiplied foreground F, its share a and the screen's
colour K as it is lit there: so F is had by taking the rest away, and no rim is left. What of the
screen's light lies on the foreground itself (spill) is limited likewise (P. Vlahos, "Comprehensive
electronic compositing system", US patent 4 344 085, 1982).
"""

from __future__ import annotations

from typing import Any, Final

import numpy as np
from numba import njit
from numpy.typing import NDArray

from kitecore.document.keying import ChromaKey
from kitecore.motion.plain import number
from kitecore.picture.keying.edges import Matte
from kitecore.picture.keying.screen import (
    OWN_HUE,
    SCREEN_BLOCK,
    chroma_parts,
    direction_of,
    weights_of,
)
from kitecore.picture.keying.spreading import at_pixel
from kitecore.picture.layer import Rgba, packed

Array = NDArray[Any]
Packed = NDArray[np.uint32]
Mask = NDArray[np.uint8]

SPILL_FREE: Final = 0.3
"""How much of its deviation a sure colour may have of the screen's; at edges it may have none."""


def unmix(
    pixels: Rgba,
    matte: Matte,
    sure: Mask,
    screen: Array,
    key: ChromaKey,
    out: Rgba,
    corner: tuple[int, int],
) -> None:
    """What the matte leaves, without the screen's colour (``gathered``).

    It is put into a clear picture, from the pixel ``corner`` (across, down) on.

    Sure foreground with a hue of its own keeps its colour.
    """
    spill = np.float32(min(max(number(key.spill), 0.0), 1.0))
    directions = direction_of(key), weights_of(key)
    _unmix(packed(pixels), matte, sure, screen, directions, spill, packed(out), corner)


@njit(cache=True, nogil=True, fastmath=True, error_model="numpy")
def _unmix(
    pixels: Packed,
    matte: Matte,
    sure: Mask,
    screen: Array,
    directions: tuple[Array, Array],
    spill: np.float32,
    out: Packed,
    corner: tuple[int, int],
) -> None:
    (height, width), (direction, weights) = matte.shape, directions
    k0, k1, k2, luma = direction[3], direction[4], direction[5], direction[6]
    zero, full, byte = np.float32(0), np.float32(255), np.uint32(255)
    for y in range(height):
        line = out[corner[1] + y, corner[0] : corner[0] + width]
        for x in range(width):
            a, word = matte[y, x], pixels[y, x]
            if a == 0:
                continue
            f0, f1 = np.float32(word & byte), np.float32((word >> np.uint32(8)) & byte)
            f2 = np.float32((word >> np.uint32(16)) & byte)
            if a != 255:
                rest = np.float32(255 - a)
                b = at_pixel(screen, np.float32(SCREEN_BLOCK), x, y)
                f0, f1, f2 = f0 - rest * b[0], f1 - rest * b[1], f2 - rest * b[2]
            most = np.float32(a) * np.float32(word >> np.uint32(24)) / full
            f0, f1 = min(max(f0, zero), most), min(max(f1, zero), most)
            f2 = min(max(f2, zero), most)
            if spill > 0:
                along, aside = chroma_parts((f0, f1, f2), weights)
                over = along * spill
                if sure[y, x]:
                    over -= np.float32(SPILL_FREE) * aside * spill
                    own = aside / (along * np.float32(OWN_HUE)) if along > zero else np.float32(1)
                    over *= min(max(np.float32(2) - np.float32(2) * own, zero), np.float32(1))
                if over > 0:
                    f0 = min(max(f0 - over * (k0 - luma), zero), most)
                    f1 = min(max(f1 - over * (k1 - luma), zero), most)
                    f2 = min(max(f2 - over * (k2 - luma), zero), most)
            half = np.float32(0.5)
            low = np.uint32(np.uint32(f0 + half) | np.uint32(np.uint32(f1 + half) << np.uint32(8)))
            high = np.uint32(np.uint32(f2 + half) << np.uint32(16))
            high |= np.uint32(np.uint32(most + half) << np.uint32(24))
            line[x] = np.uint32(low | high)
