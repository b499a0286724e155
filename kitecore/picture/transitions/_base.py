from __future__ import annotations

import math
from collections.abc import Callable
from typing import Any

import cv2
import numpy as np

from kitecore.picture.layer import Rgba
from kitecore.registry import Registry

Drawing = Callable[[Rgba, Rgba, float, Any, float], Rgba]
"""``draw(a, b, share, transition, density)``."""

transition_drawings: Registry[Drawing] = Registry("transition drawing")


def mixed(a: Rgba, b: Rgba, share: float) -> Rgba:
    """Straight between two premultiplied pictures."""
    return np.asarray(cv2.addWeighted(a, 1 - share, b, share, 0))


def way(angle: float, width: int, height: int) -> tuple[float, float]:
    """The shift in pixels by which a picture is just out of sight, clockwise from rightwards."""
    x, y = math.cos(math.radians(angle)), math.sin(math.radians(angle))
    # As far as the nearer of the two sides allows: straight ways go exactly one side's length.
    reach = min(width / abs(x) if abs(x) > 1e-9 else 1e9, height / abs(y) if abs(y) > 1e-9 else 1e9)
    return x * reach, y * reach
