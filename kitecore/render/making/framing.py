"""How a canvas lies in a picture of another shape."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal, TypeVar

import numpy as np
from numpy.typing import NDArray

from kitecore.arrays import Size
from kitecore.media.pixels import fitting

T = TypeVar("T", bound=np.generic)
Fit = Literal["fit", "fill"]
"""The whole canvas with bars beside it, or as much of it as covers the picture."""


@dataclass(frozen=True)
class Framing:
    """A picture of ``size`` in which the canvas, drawn in the size ``drawn``, lies at ``at``.

    ``at`` is where its upper left pixel comes to lie: negative where it is cropped. All numbers are
    even, so that planes of half the size can be cut in the same way.
    """

    size: Size
    drawn: Size
    at: tuple[int, int] = (0, 0)

    @property
    def whole(self) -> bool:
        """Whether the canvas is the picture."""
        return self.size == self.drawn

    def laid(self, pixels: NDArray[T], ground: NDArray[T]) -> NDArray[T]:
        """The picture, of the canvas's pixels, shape (height, width, channels), on a colour."""
        if self.whole:
            return pixels
        (width, height), (across, down) = self.size, self.at
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
    return Framing(size, drawn, at)


def _even(length: float) -> int:
    return round(length / 2) * 2
