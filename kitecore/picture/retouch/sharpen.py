from __future__ import annotations

import numpy as np

from kitecore.document.strokes import SharpenStroke
from kitecore.picture.layer import Rgba
from kitecore.picture.outline import Grid
from kitecore.picture.retouch._base import Spot, retouches, rims
from kitecore.picture.softening import softened


@retouches.register("sharpen_stroke")
def sharpen(stroke: SharpenStroke, spot: Spot) -> Rgba:
    """Unsharp masking: more of what a blur takes away."""
    picture = spot.pixels.astype(np.float32)
    sharper = picture + stroke.amount * (picture - softened(picture, stroke.radius * spot.unit))
    sharper[..., :3] = np.clip(sharper[..., :3], 0, picture[..., 3:])
    sharper[..., 3] = picture[..., 3]
    return np.asarray(np.rint(sharper), np.uint8)


@rims.register("sharpen_stroke")
def _rim(stroke: SharpenStroke, grid: Grid) -> float:
    return 3 * stroke.radius * grid.height
