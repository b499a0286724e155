"""Arrays and measures that many rooms speak of."""

from __future__ import annotations

from typing import Any

import cv2
import numpy as np
from numpy.typing import NDArray

Size = tuple[int, int]
"""Width and height in pixels."""

Coverage = NDArray[np.uint8]
"""How much of each pixel is meant, 0..255; shape (height, width)."""

Box = tuple[int, int, int, int]
"""Left, top, right and bottom of a part of a picture, in whole pixels; the last two lie outside."""


def box_of(there: NDArray[Any]) -> Box | None:
    """The box of all that is not 0, or true, of an array of shape (height, width); None if nothing is."""
    some = there if there.dtype in (np.uint8, np.bool_) else there != 0
    left, top, width, height = cv2.boundingRect(some.view(np.uint8))
    return (left, top, left + width, top + height) if width else None
