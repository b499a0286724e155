"""Where there is something of a picture."""

from __future__ import annotations

from typing import Final

import numpy as np

from kitecore.arrays import Box, box_of
from kitecore.picture.layer import Rgba, packed

_ANY_ALPHA: Final = np.uint32(1 << 24)
"""Packed pixels from which on there is some."""


def box_seen(pixels: Rgba) -> Box:
    """The box of what is not clear; without width and height if all is."""
    return box_of(packed(pixels) >= _ANY_ALPHA) or (0, 0, 0, 0)
