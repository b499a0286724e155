"""Linear BT.709 (same primaries as sRGB) to OKLab and back, for arrays (B. Ottosson, 2020)."""

from __future__ import annotations

import numpy as np

from kitecore.colour.rgb import Array, Rgb
from kitecore.motion.oklab import FROM_LAB, FROM_LMS, TO_LAB, TO_LMS


def to_lab(linear: Rgb) -> Array:
    """L 0..1, a and b about -0.4..0.4; shape (..., 3)."""
    lms = linear @ TO_LMS.T.astype(linear.dtype)
    return np.asarray(np.cbrt(lms) @ TO_LAB.T.astype(linear.dtype))


def from_lab(lab: Array) -> Rgb:
    lms = lab @ FROM_LAB.T.astype(lab.dtype)
    return np.asarray(lms**3 @ FROM_LMS.T.astype(lab.dtype))
