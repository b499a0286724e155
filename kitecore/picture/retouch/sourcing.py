"""Where the picture that a stroke takes may come from, found by itself."""

from __future__ import annotations

from typing import Any, Final

import cv2
import numpy as np
from numpy.typing import NDArray

from kitecore.document.properties import Vector
from kitecore.document.strokes import StrokeBase
from kitecore.picture.layer import Rgba
from kitecore.picture.outline import Grid
from kitecore.picture.retouch.touching import touching

_FAR: Final = 2.5
"""How far away it is looked for, in sizes of the stroke's box."""
_LEAST_FAR: Final = 40
_FINE: Final = 96
"""Pixels of the box's longer side at which its surroundings are compared."""
_AROUND: Final = 0.35
"""Share of the brush's width around a stroke that a source's surroundings are compared in."""
_NEAR: Final = 0.6
"""How much worse, in levels of difference, a source may fit that is as far as any, and be as good."""

Array = NDArray[Any]


def source_of(picture: Rgba, stroke: StrokeBase, grid: Grid) -> Vector | None:
    """Which way the best source of a stroke lies, in heights of the picture; None if there is none.

    Its surroundings look most like those of the stroke, and it is as even as they are: what is to
    be mended here does not lie there, too.
    """
    rim = max(4.0, _AROUND * stroke.width * grid.height)
    found = touching(stroke, grid, rim)
    if found is None:
        return None
    left, top, right, bottom = found.box
    factor = max(1, round(max(right - left, bottom - top) / _FINE))
    far = round(max(_LEAST_FAR, _FAR * max(right - left, bottom - top)))
    x, y = max(left - far, 0), max(top - far, 0)
    around = picture[y : bottom + far, x : right + far, :3]
    small = _smaller(around.astype(np.float32), factor)
    column, row = (left - x) // factor, (top - y) // factor
    cover = _smaller((found.cover > 0).astype(np.float32), factor) > 0
    high, wide = cover.shape
    own = small[row : row + high, column : column + wide]
    if own.shape[:2] != cover.shape or cover.all():
        return None
    costs = _costs(small, own, cover)
    costs[_meets(cover, small.shape[:2], (row, column))] = np.inf
    rows, columns = np.indices(costs.shape)
    away = np.hypot(rows - row, columns - column)
    costs += _NEAR**2 * away / max(float(away.max()), 1.0)
    if not np.isfinite(costs).any():
        return None
    best_row, best_column = np.unravel_index(int(np.argmin(costs)), costs.shape)
    across, down = (int(best_column) - column) * factor, (int(best_row) - row) * factor
    return across * grid.aspect / grid.width, down / grid.height


def _smaller(picture: Array, factor: int) -> Array:
    if factor == 1:
        return picture
    size = max(1, picture.shape[1] // factor), max(1, picture.shape[0] // factor)
    return np.asarray(cv2.resize(picture, size, interpolation=cv2.INTER_AREA))


def _costs(small: Array, own: Array, cover: NDArray[np.bool_]) -> Array:
    """For each place: how its surroundings differ, and how much less even it is than they are."""
    ring = (~cover).astype(np.float32)
    inside = cover.astype(np.float32)
    gaps = np.zeros(_slides(small, cover), np.float32)
    spread = np.zeros_like(gaps)
    rough = 0.0
    for c in range(3):
        plain = np.ascontiguousarray(small[..., c])
        gaps += _summed(plain**2, ring) - 2 * _summed(plain, ring * own[..., c])
        gaps += float((ring * own[..., c] ** 2).sum())
        spread += _summed(plain**2, inside) / inside.sum()
        spread -= (_summed(plain, inside) / inside.sum()) ** 2
        rough += float(own[..., c][~cover].var())
    return np.asarray(np.maximum(gaps / ring.sum(), 0) + np.maximum(spread - rough, 0))


def _slides(small: Array, cover: Array) -> tuple[int, int]:
    return small.shape[0] - cover.shape[0] + 1, small.shape[1] - cover.shape[1] + 1


def _summed(plain: Array, weights: Array) -> Array:
    """Of each place of the weights on a picture, the weighted sum."""
    return np.asarray(cv2.matchTemplate(plain, weights.astype(np.float32), cv2.TM_CCORR))


def _meets(
    cover: NDArray[np.bool_], size: tuple[int, int], at: tuple[int, int]
) -> NDArray[np.bool_]:
    """Of each place of the stroke, whether it would meet the stroke itself."""
    there = np.zeros(size, np.float32)
    there[at[0] : at[0] + cover.shape[0], at[1] : at[1] + cover.shape[1]] = cover
    return _summed(there, cover.astype(np.float32)) > 0.5
