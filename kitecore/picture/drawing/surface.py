"""A picture to draw on, in canvas pixels from its middle."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any, Final

import cv2
import numpy as np
import skia
from numpy.typing import NDArray

from kitecore.arrays import Size
from kitecore.picture.layer import Rgba

MOST_PIXELS: Final = 4_000_000
_WHOLE: Final = (np.uint8, skia.kRGBA_8888_ColorType)
_FINE: Final = (np.float16, skia.kRGBA_F16_ColorType)


def drawn(
    size: Size,
    area: tuple[float, float],
    draw: Callable[[skia.Canvas], None],
    rounding: float | None = None,
) -> Rgba:
    """Premultiplied RGBA of ``size``; ``draw`` sees ``area`` canvas pixels around (0, 0).

    Skia flattens curves to a quarter of a pixel, which shows at their edges: what is not too large
    is drawn several times larger.

    Parameters
    ----------
    rounding
        Share of a level that is added before what is finer than 8 bits is cut off; None for whole
        levels from the start, with gradients dithered.
    """
    times = next((t for t in (4, 2) if size[0] * size[1] * t * t <= MOST_PIXELS), 1)
    wide, high = size[0] * times, size[1] * times
    depth, kind = _WHOLE if rounding is None else _FINE
    pixels = np.zeros((high, wide, 4), depth)
    surface = skia.Surface(pixels, kind, skia.kPremul_AlphaType)
    canvas = surface.getCanvas()
    canvas.scale(wide / area[0], high / area[1])
    canvas.translate(area[0] / 2, area[1] / 2)
    draw(canvas)
    if rounding is None:
        return _smaller(pixels, size)
    shares = np.clip(_smaller(pixels.astype(np.float32), size), 0, 1)
    return np.asarray(shares * np.float32(255) + np.float32(rounding), np.uint8)


def _smaller(pixels: NDArray[Any], size: Size) -> NDArray[Any]:
    if size == (pixels.shape[1], pixels.shape[0]):
        return pixels
    return np.asarray(cv2.resize(pixels, size, interpolation=cv2.INTER_AREA))
