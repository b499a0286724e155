"""How much of each pixel at an edge belongs to what is cut out, and its own colours there."""

from __future__ import annotations

from functools import partial
from typing import Any, Final

import cv2
import numpy as np
from numpy.typing import NDArray

Array = NDArray[Any]
Mask = NDArray[np.bool_]

_INWARDS: Final = 0.8
"""Share of the width of an edge that lies within what was found."""
_RADIUS: Final = 2
"""Pixels of a small picture over which its alpha follows from its colours, when it is enlarged."""
_EVEN: Final = 1e-4
_SHIFTS: Final = (1e-3, 1e-2, 1e-1, 1.0)
"""Of the matrix that is factorised: without one it fails now and then, which costs as much time again."""


def matte_of(
    picture: NDArray[np.float32], inside: Mask, keep: Mask, drop: Mask, edge: float
) -> NDArray[np.float32]:
    """Alpha, 0..1, of what was found, with its edge as soft as the picture shows it.

    A. Levin, D. Lischinski, Y. Weiss, "A Closed-Form Solution to Natural Image Matting", 2008.

    Parameters
    ----------
    picture
        Straight colours, 0..1.
    keep, drop
        What strokes say stays so.
    edge
        Pixels around the edge in which it may be soft; below 1 it stays hard.
    """
    hard = inside.astype(np.float32)
    if edge < 1 or inside.all() or not inside.any():
        return hard
    grown, shrunk = _disc(edge), _disc(max(1, edge * _INWARDS))
    known = np.full(inside.shape, 0.5)
    known[cv2.erode(inside.astype(np.uint8), shrunk) > 0] = 1
    known[cv2.dilate(inside.astype(np.uint8), grown) == 0] = 0
    known[keep], known[drop] = 1, 0
    if not ((known == 1).any() and (known == 0).any()):
        return hard
    # Brought in only where it is needed: that alone takes seconds.
    from pymatting import estimate_alpha_cf, ichol

    prepared = partial(ichol, shifts=_SHIFTS)
    alpha = estimate_alpha_cf(picture.astype(np.float64), known, preconditioner=prepared)
    return np.asarray(np.clip(alpha, 0, 1), np.float32)


def colours_of(picture: NDArray[np.float32], alpha: NDArray[np.float32]) -> NDArray[np.float32]:
    """What is cut out as it would look without what shines through.

    T. Germer and others, "Fast Multi-Level Foreground Estimation", 2020.
    """
    if not ((alpha > 0) & (alpha < 1)).any():
        return picture
    from pymatting import estimate_foreground_ml

    found = estimate_foreground_ml(picture.astype(np.float64), alpha.astype(np.float64))
    return np.asarray(np.clip(found, 0, 1), np.float32)


def _disc(radius: float) -> Array:
    side = 2 * round(radius) + 1
    return np.asarray(cv2.getStructuringElement(cv2.MORPH_ELLIPSE, (side, side)))


def enlarged(
    alpha: NDArray[np.float32], small: NDArray[np.float32], picture: NDArray[np.float32]
) -> NDArray[np.float32]:
    """The alpha of a small picture as that of a larger one, whose colours tell its fine edges.

    K. He, J. Sun, "Fast Guided Filter", 2015, led by all three colours.
    """
    side = (2 * _RADIUS + 1, 2 * _RADIUS + 1)

    def mean(one: Array) -> Array:
        return np.asarray(cv2.blur(one, side))

    middle, level = mean(small), mean(alpha)
    along = mean(small * alpha[..., None]) - middle * level[..., None]
    pairs = [(0, 0), (0, 1), (0, 2), (1, 1), (1, 2), (2, 2)]
    spread = np.empty((*alpha.shape, 3, 3), np.float32)
    for a, b in pairs:
        product = mean(small[..., a] * small[..., b]) - middle[..., a] * middle[..., b]
        spread[..., a, b] = spread[..., b, a] = product
    spread += np.eye(3, dtype=np.float32) * _EVEN
    slope = np.linalg.solve(spread, along[..., None])[..., 0]
    offset = level - (slope * middle).sum(axis=2)
    size = picture.shape[1], picture.shape[0]
    slope, offset = (
        cv2.resize(mean(one), size, interpolation=cv2.INTER_LINEAR) for one in (slope, offset)
    )
    found = (slope * picture).sum(axis=2) + offset
    plain = cv2.resize(alpha, size, interpolation=cv2.INTER_LINEAR)
    # Where all around is in or out, nothing is in doubt.
    return np.asarray(
        np.where((plain <= 0) | (plain >= 1), plain, np.clip(found, 0, 1)), np.float32
    )
