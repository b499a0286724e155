"""Layers whose four corners go where they like: seen in perspective."""

from __future__ import annotations

from dataclasses import replace
from typing import Final

import cv2
import numpy as np

from kitecore.picture.layer import Layer, Matrix, Rgba, moved

_NEAR: Final = 1e-9
_LEAST: Final = 1e-3
"""Depth at which a corner lies at the eye: nothing is seen any more."""


def leans(matrix: Matrix) -> bool:
    """Whether parallel lines do not stay so."""
    across, down, _ = matrix[2].tolist()
    return bool(abs(across) > _NEAR or abs(down) > _NEAR)


def on_plane(matrix: Matrix, spots: Matrix) -> Matrix:
    """Spots, a column each with a 1 below, after a matrix: x and y, shape (2, n)."""
    there = matrix @ spots
    return np.asarray(there[:2] / there[2])


def upright(layer: Layer, canvas: Rgba) -> Layer:
    """What of a leaning layer is seen on a canvas, as a layer in the canvas's pixels."""
    depths = (layer.matrix @ layer.corners)[2]
    if depths.min() < _LEAST * max(abs(float(depths.max())), _LEAST):
        return Layer(np.zeros((1, 1, 4), np.uint8), moved(0, 0))
    spots = on_plane(layer.matrix, layer.corners)
    high, wide = canvas.shape[:2]
    left, top = (int(max(one, 0)) for one in np.floor(spots.min(axis=1)) - 1)
    right, bottom = (
        int(min(one, most))
        for one, most in zip(np.ceil(spots.max(axis=1)) + 1, (wide, high), strict=True)
    )
    if right <= left or bottom <= top:
        return Layer(np.zeros((1, 1, 4), np.uint8), moved(0, 0))
    # Matrices count from corners of pixels, sampling from their middles; the clear pixel around
    # makes the edge soft.
    padded = cv2.copyMakeBorder(layer.pixels, 1, 1, 1, 1, cv2.BORDER_CONSTANT)
    matrix = moved(-left - 0.5, -top - 0.5) @ layer.matrix @ moved(-0.5, -0.5)
    seen = cv2.warpPerspective(padded, matrix, (right - left, bottom - top))
    return replace(layer, pixels=np.asarray(seen, np.uint8), matrix=moved(left, top), constant=None)
