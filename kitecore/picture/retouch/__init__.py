"""How strokes mend a picture. To add a kind: a module here for each in `kitecore.document.strokes`."""

from __future__ import annotations

from typing import Final

import numpy as np

from kitecore.document.strokes import Sourcing, StrokeBase
from kitecore.picture.layer import Rgba
from kitecore.picture.mixing import mix_in
from kitecore.picture.outline import Grid
from kitecore.picture.retouch._base import Spot, retouches, rims
from kitecore.picture.retouch.touching import Touching, touching
from kitecore.registry import import_all

import_all(__name__)

RIM: Final = 3
"""Pixels of a picture that are seen around every stroke."""

__all__ = ["Touching", "retouch", "touched", "touching"]


def touched(stroke: StrokeBase, grid: Grid) -> Touching | None:
    """The part of a picture that a stroke looks at, and how far it means each pixel; None if it lies
    beyond the picture.
    """
    rim = rims[stroke.kind](stroke, grid) if stroke.kind in rims else 0
    return touching(stroke, grid, RIM + rim)


def retouch(pixels: Rgba, stroke: StrokeBase, grid: Grid, patch: Rgba | None = None) -> None:
    """Do a stroke on a picture, in place.

    Parameters
    ----------
    patch
        What a stroke lays that takes it from elsewhere, of the size of what it touches.
    """
    found = touched(stroke, grid)
    if found is None:
        return
    far = (0, 0)
    if isinstance(stroke, Sourcing):
        x, y = stroke.source
        far = round(x * grid.width / grid.aspect), round(y * grid.height)
    spot = Spot(pixels, found.box, found.cover, grid.height, far, patch)
    cover = found.cover
    if stroke.strength < 1:
        cover = (cover * stroke.strength + 0.5).astype(np.uint8)
    mix_in(pixels, retouches[stroke.kind](stroke, spot), cover, found.box[:2])
