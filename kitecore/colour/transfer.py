"""The BT.709 transfer function, mirrored below black and continued above white.

Rec. ITU-R BT.709-6, 1.2, with the constants of full precision (BT.2020-2, table 4).
"""

from __future__ import annotations

import numpy as np

from kitecore.colour.rgb import Rgb

ALPHA = 1.09929682680944
BETA = 0.018053968510807


def linear_of(coded: Rgb) -> Rgb:
    """Coded values as amounts of light in the scene, white 1."""
    size = np.abs(coded)
    bent = ((size + (ALPHA - 1)) / ALPHA) ** (1 / 0.45)
    return np.asarray(np.copysign(np.where(size < 4.5 * BETA, size / 4.5, bent), coded))


def coded_of(linear: Rgb) -> Rgb:
    """The reverse of `linear_of`."""
    size = np.abs(linear)
    bent = ALPHA * size**0.45 - (ALPHA - 1)
    return np.asarray(np.copysign(np.where(size < BETA, size * 4.5, bent), linear))
