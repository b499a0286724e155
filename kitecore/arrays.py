"""Arrays and measures that many rooms speak of."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

Size = tuple[int, int]
"""Width and height in pixels."""

Coverage = NDArray[np.uint8]
"""How much of each pixel is meant, 0..255; shape (height, width)."""
