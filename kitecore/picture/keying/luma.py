"""A matte by brightness."""

from __future__ import annotations

import cv2
import numpy as np
from numpy.typing import NDArray

from kitecore.document.keying import LumaKey
from kitecore.motion.plain import number
from kitecore.picture.keying.edges import Matte
from kitecore.picture.layer import Rgba
from kitecore.picture.mixing import luma_of


def luma_matte(pixels: Rgba, key: LumaKey) -> Matte:
    """0..255: smoothstep between the levels, before its edge is shrunk or softened."""
    return np.asarray(cv2.LUT(luma_of(pixels), _table(key)))


def _table(key: LumaKey) -> NDArray[np.uint8]:
    luma = np.arange(256) / 2.55
    low, high, soft = number(key.low), number(key.high), max(number(key.softness), 1e-3)
    rise = np.clip((luma - low + soft) / soft, 0, 1) if low > 0 else np.ones(256)
    fall = np.clip((high + soft - luma) / soft, 0, 1) if high < 100 else np.ones(256)
    share = np.minimum(rise, fall)
    return np.asarray(np.rint(share * share * (3 - 2 * share) * 255), np.uint8)
