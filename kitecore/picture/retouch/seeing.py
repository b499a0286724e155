"""Whether a place still shows what it showed when a stroke was painted on it, or something passes."""

from __future__ import annotations

from typing import Any, Final

import cv2
import numpy as np
from numpy.typing import NDArray

from kitecore.arrays import Coverage
from kitecore.picture.layer import Rgba

_SAME: Final = 12.0
_OTHER: Final = 28.0
"""Levels by which a place may differ and be the same, and from which on it is another."""
_SIDE: Final = 5
"""Pixels of the square over which differences are averaged: grain is none."""
_EDGES: Final = 0.25
"""Share of the range within such a square that an edge, which lies a little off, may differ by."""


def still_seen(now: Rgba, then: Rgba) -> Coverage:
    """How far each pixel shows the same as then, 0..255, in whatever light."""
    change = now[..., :3].astype(np.int16) - then[..., :3]
    light = np.median(change.reshape(-1, 3), axis=0)
    gaps = np.abs(change - light).max(axis=2).astype(np.float32)
    mean = cv2.blur(gaps, (_SIDE, _SIDE), borderType=cv2.BORDER_REFLECT_101)
    over = mean - _EDGES * _range(then)
    share = (_OTHER - over) / (_OTHER - _SAME)
    return np.asarray(np.clip(share, 0, 1) * 255 + 0.5, np.uint8)


def _range(picture: Rgba) -> NDArray[Any]:
    square = np.ones((_SIDE, _SIDE), np.uint8)
    colours = np.ascontiguousarray(picture[..., :3])
    spread = cv2.dilate(colours, square) - cv2.erode(colours, square)
    return np.asarray(spread.max(axis=2), np.float32)
