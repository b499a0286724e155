"""Arrays of colours, and what BT.709 makes of them."""

from __future__ import annotations

from typing import Any

import numpy as np
from numpy.typing import NDArray

from kitecore.bt709 import CB_SPAN, CR_SPAN, KB, KG, KR

Rgb = NDArray[Any]
"""Floating point, shape (..., 3): display-coded BT.709 red, green, blue, black 0, white 1.

Values beyond 0..1 are kept from stage to stage and clipped once, at the very end.
"""

Array = NDArray[Any]


def luma(rgb: Rgb) -> Array:
    """Y′, shape (...)."""
    return np.asarray(rgb[..., 0] * KR + rgb[..., 1] * KG + rgb[..., 2] * KB)


def chroma(rgb: Rgb) -> tuple[Array, Array, Array]:
    """Luma, and colour difference Cb and Cr from -0.5 to 0.5 (BT.709-6, 3.3)."""
    y = luma(rgb)
    return y, (rgb[..., 2] - y) / CB_SPAN, (rgb[..., 0] - y) / CR_SPAN


def from_chroma(y: Array, cb: Array, cr: Array) -> Rgb:
    """The reverse of `chroma`."""
    red, blue = y + CR_SPAN * cr, y + CB_SPAN * cb
    green = (y - KR * red - KB * blue) / KG
    return np.stack([red, green, blue], axis=-1)


def hue_of(cb: Array, cr: Array) -> Array:
    """Angle on the vectorscope as a share of the circle, 0..1: from Cb towards Cr."""
    return np.asarray(np.arctan2(cr, cb) / (2 * np.pi) % 1.0)


def signed_power(x: Array, power: float | Array) -> Array:
    """``x`` to a power, mirrored for negative ``x``: a curve that goes on below black."""
    return np.asarray(np.sign(x) * np.abs(x) ** power)
