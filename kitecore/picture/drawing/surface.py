"""A picture to draw on, in canvas pixels from its middle."""

from __future__ import annotations

from collections.abc import Callable

import numpy as np
import skia

from kitecore.picture.layer import Rgba

Size = tuple[int, int]


def drawn(size: Size, area: tuple[float, float], draw: Callable[[skia.Canvas], None]) -> Rgba:
    """Premultiplied RGBA of ``size``; ``draw`` sees ``area`` canvas pixels around (0, 0)."""
    pixels = np.zeros((size[1], size[0], 4), np.uint8)
    surface = skia.Surface(pixels, skia.kRGBA_8888_ColorType, skia.kPremul_AlphaType)
    canvas = surface.getCanvas()
    canvas.scale(size[0] / area[0], size[1] / area[1])
    canvas.translate(area[0] / 2, area[1] / 2)
    draw(canvas)
    return pixels
