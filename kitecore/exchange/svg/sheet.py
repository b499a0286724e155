"""From a drawing's own units to canvas pixels from its middle."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import NDArray

from kitecore.document.properties import Vector

Matrix = NDArray[np.float64]


@dataclass(frozen=True)
class Sheet:
    """``middle`` of the drawing in its units; canvas pixels to one of them."""

    middle: Vector
    scale: float

    def spot(self, point: Any) -> Vector:
        """A point of the drawing, with ``x`` and ``y``."""
        return self.place(point.x, point.y)

    def place(self, x: float, y: float) -> Vector:
        return (
            round((x - self.middle[0]) * self.scale, 3),
            round((y - self.middle[1]) * self.scale, 3),
        )


def matrix_of(transform: Any) -> Matrix:
    """A transform of `svgelements` as a matrix."""
    t = transform
    return np.array([[t.a, t.c, t.e], [t.b, t.d, t.f], [0.0, 0.0, 1.0]], float)
