"""Arrays of colours, and the constants of BT.709 that all of it stands on."""

from __future__ import annotations

from typing import Any, Final

import numpy as np
from numpy.typing import NDArray

Rgb = NDArray[Any]
"""Floating point, shape (..., 3): display-coded BT.709 red, green, blue, black 0, white 1.

Values beyond 0..1 are kept from stage to stage and clipped once, at the very end.
"""

Array = NDArray[Any]

KR: Final = 0.2126
KB: Final = 0.0722
KG: Final = 1 - KR - KB
"""Weights of luma: Rec. ITU-R BT.709-6, 3.2."""

_CB, _CR = 2 * (1 - KB), 2 * (1 - KR)


def luma(rgb: Rgb) -> Array:
    """Y′, shape (...)."""
    return np.asarray(rgb[..., 0] * KR + rgb[..., 1] * KG + rgb[..., 2] * KB)


def chroma(rgb: Rgb) -> tuple[Array, Array, Array]:
    """Luma, and colour difference Cb and Cr from -0.5 to 0.5 (BT.709-6, 3.3)."""
    y = luma(rgb)
    return y, (rgb[..., 2] - y) / _CB, (rgb[..., 0] - y) / _CR


def from_chroma(y: Array, cb: Array, cr: Array) -> Rgb:
    """The reverse of `chroma`."""
    red, blue = y + _CR * cr, y + _CB * cb
    green = (y - KR * red - KB * blue) / KG
    return np.stack([red, green, blue], axis=-1)


def hue_of(cb: Array, cr: Array) -> Array:
    """Angle on the vectorscope as a share of the circle, 0..1: from Cb towards Cr."""
    return np.asarray(np.arctan2(cr, cb) / (2 * np.pi) % 1.0)


def signed_power(x: Array, power: float | Array) -> Array:
    """``x`` to a power, mirrored for negative ``x``: a curve that goes on below black."""
    return np.asarray(np.sign(x) * np.abs(x) ** power)
