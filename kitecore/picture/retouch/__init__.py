"""How strokes mend a picture. To add a kind: a module here for each in `kitecore.document.strokes`."""

from __future__ import annotations

from typing import Final

import numpy as np

from kitecore.arrays import Box, Coverage
from kitecore.document.strokes import Sourcing, StrokeBase
from kitecore.picture.layer import Rgba
from kitecore.picture.mixing import mix_in
from kitecore.picture.outline import Grid
from kitecore.picture.retouch._base import Spot, retouches, rims, sourced
from kitecore.picture.retouch.seeing import still_seen
from kitecore.picture.retouch.touching import Touching, box_around, steadied, touching
from kitecore.registry import import_all

import_all(__name__)

RIM: Final = 3
"""Pixels of a picture that are seen around every stroke."""

__all__ = ["Touching", "far_of", "looked_at", "retouch", "sourced", "still_seen", "touched"]


def touched(stroke: StrokeBase, grid: Grid) -> Touching | None:
    """The part of a picture that a stroke looks at, and how far it means each pixel; None if it lies
    beyond the picture.
    """
    return touching(stroke, grid, _rim(stroke, grid))


def looked_at(stroke: StrokeBase, grid: Grid) -> Box | None:
    """That part alone."""
    return box_around(steadied(stroke), grid, _rim(stroke, grid))


def _rim(stroke: StrokeBase, grid: Grid) -> float:
    return RIM + (rims[stroke.kind](stroke, grid) if stroke.kind in rims else 0)


def retouch(
    pixels: Rgba,
    stroke: StrokeBase,
    grid: Grid,
    found: Touching,
    patch: Rgba | None = None,
    seen: Coverage | None = None,
) -> None:
    """Do a stroke on a picture, in place.

    Parameters
    ----------
    found
        What it touches.
    patch
        What a stroke lays, where that does not follow from the picture; of the size of what it
        touches.
    seen
        How far each pixel of that shows what is mended, 0..255, and not something before it.
    """
    far = far_of(stroke, grid)
    spot = Spot(pixels, found.box, found.cover, grid.height, far, patch, seen)
    cover = found.cover * np.float32(stroke.strength)
    if seen is not None:
        cover *= seen / np.float32(255)
    mix_in(
        pixels, retouches[stroke.kind](stroke, spot), np.rint(cover).astype(np.uint8), found.box[:2]
    )


def far_of(stroke: StrokeBase, grid: Grid) -> tuple[int, int]:
    """How many pixels across and down the source of a stroke lies."""
    if not isinstance(stroke, Sourcing):
        return 0, 0
    x, y = stroke.source
    return round(x * grid.width / grid.aspect), round(y * grid.height)
