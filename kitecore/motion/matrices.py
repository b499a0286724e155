"""3 × 3 matrices of the plane; y points down."""

from __future__ import annotations

import math

import numpy as np
from numpy.typing import NDArray

Matrix = NDArray[np.float64]


def moved(x: float, y: float) -> Matrix:
    return np.array([[1.0, 0.0, x], [0.0, 1.0, y], [0.0, 0.0, 1.0]])


def sized(x: float, y: float) -> Matrix:
    return np.array([[x, 0.0, 0.0], [0.0, y, 0.0], [0.0, 0.0, 1.0]])


def turned(degrees: float) -> Matrix:
    """Clockwise, as y points down."""
    cos, sin = np.cos(np.radians(degrees)), np.sin(np.radians(degrees))
    return np.array([[cos, -sin, 0.0], [sin, cos, 0.0], [0.0, 0.0, 1.0]])


def leaned(degrees: float) -> Matrix:
    """The top goes to the right for positive angles, the height stays."""
    return np.array([[1.0, -np.tan(np.radians(degrees)), 0.0], [0.0, 1.0, 0.0], [0.0, 0.0, 1.0]])


def parts(matrix: Matrix) -> tuple[float, float, float, float]:
    """Width, height, turn and lean (degrees) of which `turned` @ `leaned` @ `sized` is the matrix.

    Its shift is left out; a picture turned over has a height below 0.
    """
    (a, c), (b, d) = matrix[0, :2], matrix[1, :2]
    across = math.hypot(a, b)
    turn = math.atan2(b, a)
    cos, sin = math.cos(turn), math.sin(turn)
    down = -sin * c + cos * d
    along = cos * c + sin * d
    lean = (
        math.degrees(math.atan2(-along, down))
        if down > 0
        else math.degrees(math.atan2(along, -down))
    )
    return across, down, math.degrees(turn), lean
