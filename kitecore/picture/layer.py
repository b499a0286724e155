"""A picture on its way to the canvas."""

from __future__ import annotations

from collections.abc import Hashable
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from kitecore.motion.matrices import Matrix, leaned, moved, sized, turned

__all__ = [
    "Layer",
    "Matrix",
    "Rgba",
    "leaned",
    "moved",
    "packed",
    "sized",
    "solid",
    "turned",
]

Rgba = NDArray[np.uint8]


@dataclass(frozen=True)
class Layer:
    """Premultiplied pixels, and the 3 × 3 matrix from their coordinates to the canvas's.

    Coordinates count from the outer corner of the first pixel, so its middle is (0.5, 0.5).
    ``density`` is pixels of the layer to one of the project's canvas: effects scale by it. Beyond
    its border an ``endless`` layer goes on as it is there, unseen; any other is transparent. ``constant`` names the pixels of one that is the
    same all the time.
    """

    pixels: Rgba
    matrix: Matrix
    density: float = 1.0
    endless: bool = False
    constant: Hashable = None

    @property
    def corners(self) -> Matrix:
        """Of its own pixels, a column each, shape (3, 4)."""
        height, width = self.pixels.shape[:2]
        return np.array([[0, width, 0, width], [0, 0, height, height], [1, 1, 1, 1]], float)

    def padded(self, by: int) -> Layer:
        """With a clear border of ``by`` pixels, the picture staying where it is.

        An endless layer has no border: what would lie there is never seen.
        """
        if self.endless or by <= 0:
            return self
        pixels = np.pad(self.pixels, ((by, by), (by, by), (0, 0)))
        return replace(self, pixels=pixels, matrix=self.matrix @ moved(-by, -by))


def solid(width: int, height: int, rgb: tuple[int, int, int]) -> Rgba:
    """One opaque colour."""
    pixels = np.empty((height, width, 4), np.uint8)
    packed(pixels)[...] = packed(np.array([[[*rgb, 255]]], np.uint8))[0, 0]
    return pixels


def packed(pixels: Rgba) -> NDArray[np.uint32]:
    """The same memory with one number a pixel: alpha in the highest byte, red in the lowest."""
    words = pixels.view(np.uint32)
    # Kernels index a contiguous array faster, and a slice of columns is none.
    return words.reshape(pixels.shape[:2]) if words.flags.c_contiguous else words[..., 0]
