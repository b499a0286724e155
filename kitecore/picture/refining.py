"""What was painted, made larger or smaller and softer afterwards."""

from __future__ import annotations

import math
from functools import lru_cache
from typing import Any, Final

import cv2
import numpy as np
from numpy.typing import NDArray

from kitecore.picture.softening import softened

Array = NDArray[np.float32]

_WIDEST: Final = 16
"""Pixels of the widest disc; beyond it the same is done at a smaller size."""
_SPREAD: Final = 1 / math.sqrt(20)
"""Of a smoothstep over a width of 1, its standard deviation as a blur."""


def refined(shown: Array, grow: float, inwards: float, outwards: float) -> Array:
    """Coverage 0..1 with its edge moved outwards by ``grow`` and softened to both sides.

    Parameters
    ----------
    shown
        Shape (height, width).
    grow, inwards, outwards
        In pixels; ``grow`` may be negative.
    """
    moved = _grown(shown, grow + (outwards - inwards) / 2)
    return softened(moved, (inwards + outwards) * _SPREAD)


def _grown(shown: Array, by: float) -> Array:
    """The largest (or, shrunk, the smallest) coverage within a disc; between whole pixels mixed."""
    if abs(by) < 0.05:
        return shown
    factor = math.ceil(abs(by) / _WIDEST)
    small = _sized(shown, factor)
    less = int(abs(by) / factor)
    share = abs(by) / factor - less
    change: Any = cv2.dilate if by > 0 else cv2.erode
    first, second = (change(small, _disc(radius)) for radius in (less, less + 1))
    return _sized_to(first + (second - first) * np.float32(share), shown)


def _sized(shown: Array, factor: int) -> Array:
    if factor == 1:
        return shown
    height, width = shown.shape
    size = max(1, round(width / factor)), max(1, round(height / factor))
    return np.asarray(cv2.resize(shown, size, interpolation=cv2.INTER_AREA), np.float32)


def _sized_to(small: Array, like: Array) -> Array:
    if small.shape == like.shape:
        return small
    size = like.shape[1], like.shape[0]
    return np.asarray(cv2.resize(small, size, interpolation=cv2.INTER_LINEAR), np.float32)


@lru_cache(maxsize=2 * _WIDEST)
def _disc(radius: int) -> NDArray[np.uint8]:
    across = np.arange(-radius, radius + 1)
    near = across[:, None] ** 2 + across[None] ** 2 <= (radius + 0.3) ** 2
    return np.asarray(near, np.uint8)
