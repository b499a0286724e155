"""What is done to any matte: turned about, its edge shrunk or grown and softened."""

from __future__ import annotations

import cv2
import numpy as np
from numpy.typing import NDArray

from kitecore.document.keying import KeyBase
from kitecore.motion.plain import number

Matte = NDArray[np.uint8]


def refined(matte: Matte, key: KeyBase, density: float) -> Matte:
    """A matte after the key's own wishes; ``density`` is pixels to one of the canvas."""
    shrink, soften = number(key.shrink) * density, number(key.soften) * density
    if key.invert:
        matte = 255 - matte
    if abs(shrink) > 0.05:
        matte = _shrunk(matte, shrink)
    if soften > 0.1:
        matte = cv2.GaussianBlur(matte, (0, 0), soften, borderType=cv2.BORDER_REPLICATE)
    return np.asarray(matte)


def _shrunk(matte: Matte, by: float) -> Matte:
    """Grey-scale erosion by a disc; by a part of a pixel, what lies between two discs."""
    change = cv2.erode if by > 0 else cv2.dilate
    whole, part = int(abs(by)), abs(by) % 1
    less = change(matte, _disc(whole)) if whole else matte
    if part < 0.05:
        return np.asarray(less)
    return np.asarray(cv2.addWeighted(less, 1 - part, change(matte, _disc(whole + 1)), part, 0))


def _disc(radius: int) -> NDArray[np.uint8]:
    side = 2 * radius + 1
    return np.asarray(cv2.getStructuringElement(cv2.MORPH_ELLIPSE, (side, side)))
