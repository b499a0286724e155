"""How much of a picture masks let through."""

from __future__ import annotations

from typing import Any

import numpy as np
from numpy.typing import NDArray

from kitecore.arrays import Coverage
from kitecore.document.masks import (
    BrushMask,
    EdgeMask,
    EllipseMask,
    MaskBase,
    PathMask,
    RectangleMask,
)
from kitecore.motion.plain import contours, number, painted_by, pair
from kitecore.picture.ellipse import from_ellipse
from kitecore.picture.outline import Grid, painted, signed_distance
from kitecore.picture.refining import refined
from kitecore.registry import Registry

Array = NDArray[Any]

distances: Registry[Any] = Registry("mask")
"""By kind: ``distance(mask, x, y)``, the signed distance to its edge, negative inside."""


def coverage(masks: tuple[MaskBase, ...], width: int, height: int, aspect: float) -> Coverage:
    """0..255 for each pixel, shape (height, width); 255 everywhere without masks.

    Parameters
    ----------
    masks
        Without keys. They are joined in order; the first one is taken as it is.
    aspect
        Width of the picture for a height of 1, however many pixels it is drawn with.
    """
    on = [mask for mask in masks if mask.on]
    if not on:
        return np.full((height, width), 255, np.uint8)
    total: Array | None = None
    for mask in on:
        part = _shown(mask, Grid(width, height, aspect))
        total = part if total is None else _JOINS[mask.join](total, part)
    return np.asarray(np.rint(np.asarray(total) * 255), np.uint8)


_JOINS: dict[str, Any] = {
    "add": lambda before, mask: np.maximum(before, mask),
    "subtract": lambda before, mask: before * (1 - mask),
    "intersect": lambda before, mask: before * mask,
}


def _shown(mask: MaskBase, grid: Grid) -> Array:
    """Coverage 0..1 of one mask; a hard edge is soft over one pixel."""
    grow, inwards, outwards = (
        number(mask.grow),
        max(number(mask.inwards), 0),
        max(number(mask.outwards), 0),
    )
    if isinstance(mask, BrushMask):
        shown = painted(painted_by(mask), pair(mask.centre), number(mask.turn), grid)
        shown = refined(shown, *(size / grid.pixel for size in (grow, inwards, outwards)))
        return 1 - shown if mask.invert else shown
    distance = _distance(mask, grid) - grow
    if inwards + outwards <= grid.pixel:
        shown = np.clip(0.5 - distance / grid.pixel, 0, 1)
    else:
        share = np.clip((outwards - distance) / (inwards + outwards), 0, 1)
        shown = share * share * (3 - 2 * share)
    return 1 - shown if mask.invert else np.asarray(shown)


def _distance(mask: MaskBase, grid: Grid) -> Array:
    (cx, cy), turn = pair(mask.centre), number(mask.turn)
    if isinstance(mask, PathMask):
        return signed_distance(contours(mask.contours), (cx, cy), turn, grid)
    dx, dy = grid.x - np.float32(cx), grid.y - np.float32(cy)
    cos, sin = np.float32(np.cos(np.radians(turn))), np.float32(np.sin(np.radians(turn)))
    across, down = dx * cos + dy * sin, dy * cos - dx * sin
    return np.asarray(distances[mask.kind](mask, across, down))  # type: ignore[attr-defined]


@distances.register("edge")
def _edge(mask: EdgeMask, x: Array, y: Array) -> Array:
    return np.broadcast_to(y, np.broadcast_shapes(x.shape, y.shape))


@distances.register("rectangle")
def _rectangle(mask: RectangleMask, x: Array, y: Array) -> Array:
    width, height = pair(mask.size)
    radius = min(max(number(mask.radius), 0), width, height)
    dx, dy = np.abs(x) - (width - radius), np.abs(y) - (height - radius)
    outside = np.hypot(np.maximum(dx, 0), np.maximum(dy, 0))
    return np.asarray(outside + np.minimum(np.maximum(dx, dy), 0) - radius)


@distances.register("ellipse")
def _ellipse(mask: EllipseMask, x: Array, y: Array) -> Array:
    return from_ellipse(pair(mask.size), x, y)
