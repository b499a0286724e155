"""How a canvas lies in a picture of another shape."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal, TypeVar

import numpy as np
from numpy.typing import NDArray

from kitecore.arrays import Size
from kitecore.media.pixels import fitting

T = TypeVar("T", bound=np.generic)
Corner = tuple[int, int]
"""Pixels of a file's picture, across and down."""
Fit = Literal["fit", "fill", "follow"]
"""The whole canvas with bars beside it; as much of it as covers the picture, around its middle; or
around what is followed.
"""


@dataclass(frozen=True)
class Framing:
    """A picture of ``size`` in which the canvas, drawn in the size ``drawn``, lies at ``at``.

    ``at`` is where its upper left pixel comes to lie: negative where it is cropped. ``follows``: from
    moment to moment it may lie elsewhere, so that what is followed stays in the picture.
    """

    size: Size
    drawn: Size
    at: Corner = (0, 0)
    follows: bool = False

    @property
    def whole(self) -> bool:
        """Whether the canvas is the picture."""
        return self.size == self.drawn

    def around(self, spot: tuple[float, float]) -> Corner:
        """Where the canvas lies if a spot of it, in shares, is to come to the middle, as far as it goes."""
        across, down = (
            round(min(max(size / 2 - share * drawn, size - drawn), 0))
            for size, drawn, share in zip(self.size, self.drawn, spot, strict=True)
        )
        return across, down

    def laid(self, pixels: NDArray[T], ground: NDArray[T], at: Corner | None = None) -> NDArray[T]:
        """The picture, of the canvas's pixels, shape (height, width, channels), on a colour.

        ``at``: where the canvas lies, if not at the framing's own place.
        """
        if self.whole:
            return pixels
        (width, height), (across, down) = self.size, at or self.at
        picture = np.empty((height, width, pixels.shape[2]), pixels.dtype)
        picture[:] = ground
        left, top = max(across, 0), max(down, 0)
        right, bottom = min(across + self.drawn[0], width), min(down + self.drawn[1], height)
        picture[top:bottom, left:right] = pixels[
            top - down : bottom - down, left - across : right - across
        ]
        return picture


def whole(canvas: Size, long_side: int) -> Framing:
    """The canvas itself, its longer side at most ``long_side`` pixels; 0 for its own size."""
    size = fitting(*canvas, min(long_side or max(canvas), max(canvas)))
    return Framing(size, size)


def framed(canvas: Size, shape: Size, fit: Fit, long_side: int) -> Framing:
    """A canvas in a picture of another shape, as wide at its narrow side as the canvas is.

    Parameters
    ----------
    shape
        Width to height.
    """
    factor = min(canvas) / min(shape)
    full = round(shape[0] * factor), round(shape[1] * factor)
    size = fitting(*full, min(long_side or max(full), max(full)))
    scales = size[0] / canvas[0], size[1] / canvas[1]
    scale = min(scales) if fit == "fit" else max(scales)
    drawn = _even(canvas[0] * scale), _even(canvas[1] * scale)
    at = _even((size[0] - drawn[0]) / 2), _even((size[1] - drawn[1]) / 2)
    return Framing(size, drawn, at, follows=fit == "follow" and size != drawn)


def _even(length: float) -> int:
    return round(length / 2) * 2
