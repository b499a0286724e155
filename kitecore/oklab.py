"""OKLab (B. Ottosson, "A perceptual color space for image processing", 2020), in which colours are mixed.

"Linear" is linear light with the primaries of sRGB and BT.709.
"""

from __future__ import annotations

from typing import Any

import numpy as np
from numpy.typing import NDArray

Array = NDArray[Any]

TO_LMS = np.array(
    [
        [0.4122214708, 0.5363325363, 0.0514459929],
        [0.2119034982, 0.6806995451, 0.1073969566],
        [0.0883024619, 0.2817188376, 0.6299787005],
    ]
)
TO_LAB = np.array(
    [
        [0.2104542553, 0.7936177850, -0.0040720468],
        [1.9779984951, -2.4285922050, 0.4505937099],
        [0.0259040371, 0.7827717662, -0.8086757660],
    ]
)
FROM_LMS = np.linalg.inv(TO_LMS)
FROM_LAB = np.linalg.inv(TO_LAB)


def to_lab(linear: Array) -> Array:
    """L 0..1, a and b about -0.4..0.4, of linear colours; shape (..., 3)."""
    lms = linear @ TO_LMS.T.astype(linear.dtype)
    return np.asarray(np.cbrt(lms) @ TO_LAB.T.astype(linear.dtype))


def from_lab(lab: Array) -> Array:
    """The reverse of `to_lab`."""
    lms = lab @ FROM_LAB.T.astype(lab.dtype)
    return np.asarray(lms**3 @ FROM_LMS.T.astype(lab.dtype))


def _linear(coded: Array) -> Array:
    return np.where(coded <= 0.04045, coded / 12.92, ((coded + 0.055) / 1.055) ** 2.4)


def _coded(linear: Array) -> Array:
    linear = np.clip(linear, 0, 1)
    return np.where(linear <= 0.0031308, linear * 12.92, 1.055 * linear ** (1 / 2.4) - 0.055)


def rgb_of(hex_colour: str) -> tuple[int, int, int]:
    """``"#rrggbb"`` as three numbers 0..255."""
    return int(hex_colour[1:3], 16), int(hex_colour[3:5], 16), int(hex_colour[5:7], 16)


def mix(first: str, second: str, share: float) -> str:
    """The colour ``share`` (0..1) of the way from ``first`` to ``second``, through OKLab."""
    begin, end = (to_lab(_linear(np.array(rgb_of(one)) / 255)) for one in (first, second))
    rgb = np.rint(_coded(from_lab(begin + (end - begin) * share)) * 255).astype(int)
    return "#" + "".join(f"{channel:02x}" for channel in rgb)
