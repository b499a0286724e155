"""A picture to draw on, in canvas pixels from its middle."""

from __future__ import annotations

from collections.abc import Callable
from typing import Final

import cv2
import numpy as np
import skia

from kitecore.arrays import Size
from kitecore.picture.layer import Rgba

MOST_PIXELS: Final = 4_000_000


def drawn(size: Size, area: tuple[float, float], draw: Callable[[skia.Canvas], None]) -> Rgba:
    """Premultiplied RGBA of ``size``; ``draw`` sees ``area`` canvas pixels around (0, 0).

    Skia flattens curves to a quarter of a pixel, which shows at their edges: what is not too large
    is drawn several times larger.
    """
    times = next((t for t in (4, 2) if size[0] * size[1] * t * t <= MOST_PIXELS), 1)
    wide, high = size[0] * times, size[1] * times
    pixels = np.zeros((high, wide, 4), np.uint8)
    surface = skia.Surface(pixels, skia.kRGBA_8888_ColorType, skia.kPremul_AlphaType)
    canvas = surface.getCanvas()
    canvas.scale(wide / area[0], high / area[1])
    canvas.translate(area[0] / 2, area[1] / 2)
    draw(canvas)
    if times == 1:
        return pixels
    return np.asarray(cv2.resize(pixels, size, interpolation=cv2.INTER_AREA))
