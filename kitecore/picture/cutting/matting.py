"""How much of each pixel at an edge belongs to what is cut out, and its own colours there."""

from __future__ import annotations

from functools import partial
from typing import Any, Final

import cv2
import numpy as np
from numpy.typing import NDArray

from kitecore.picture.cutting.leading import enlarged
from kitecore.picture.layer import Rgba

Array = NDArray[Any]
Mask = NDArray[np.bool_]

_INWARDS: Final = 0.8
"""Share of the width of an edge that lies within what was found."""
_COARSER: Final = 2
"""By how much the picture is made smaller in which soft edges are found."""
_WHOLLY: Final = 0.99
_WEIGHT: Final = 0.1
"""Of a pixel that is trusted wholly, against how its colours follow from those around it."""
_WINDOW: Final = 3
"""Pixels of the sides of windows over which colours are compared."""
_NEAR: Final = 1e-4
_SHIFTS: Final = (1e-3, 1e-2, 1e-1, 1.0)
"""Of the matrix that is factorised: without one it fails now and then, which costs as much time again."""


def matte_of(
    picture: NDArray[np.float32],
    inside: Mask,
    keep: Mask,
    drop: Mask,
    edge: float,
    hair: Mask | None = None,
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
    hair
        Where else it may be.
    """
    hard = inside.astype(np.float32)
    painted = hair is not None and hair.any()
    if (edge < 1 and not painted) or inside.all() or not inside.any():
        return hard
    grown, shrunk = _disc(edge), _disc(max(1, edge * _INWARDS))
    known = np.full(inside.shape, 0.5)
    known[cv2.erode(inside.astype(np.uint8), shrunk) > 0] = 1
    known[cv2.dilate(inside.astype(np.uint8), grown) == 0] = 0
    if hair is not None:
        known[hair] = 0.5
    known[keep], known[drop] = 1, 0
    if not ((known == 1).any() and (known == 0).any()):
        return hard
    return _refined(picture, known)


def _refined(picture: NDArray[np.float32], known: Array) -> NDArray[np.float32]:
    """Alpha where it is not known (0.5), found at a part of the size: a sixth of the time, and as good."""
    height, width = known.shape
    size = max(1, round(width / _COARSER)), max(1, round(height / _COARSER))

    def throughout(value: float) -> Mask:
        share = cv2.resize((known == value).astype(np.float32), size, interpolation=cv2.INTER_AREA)
        return np.asarray(share > _WHOLLY)

    small = np.asarray(cv2.resize(picture, size, interpolation=cv2.INTER_AREA))
    trimap = np.where(throughout(1), 1.0, np.where(throughout(0), 0.0, 0.5))
    if not ((trimap == 1).any() and (trimap == 0).any()):
        return _closed_form(picture, known)
    alpha = enlarged(_closed_form(small, trimap), small, _solid(picture))
    return np.asarray(np.where(known == 0.5, alpha, known), np.float32)


def matte_from(
    picture: NDArray[np.float32],
    prior: NDArray[np.float32],
    trust: NDArray[np.float32],
    known: Mask,
) -> NDArray[np.float32]:
    """Alpha, 0..1, that follows the picture's colours and, as far as it is trusted, what was known before.

    The closed form with a prior, as Levin and others have it in their section 5.

    Parameters
    ----------
    prior
        0..1 for each pixel.
    trust
        How much it counts, 0..1.
    known
        Where it is right in any case.
    """
    height, width = prior.shape
    size = max(1, round(width / _COARSER)), max(1, round(height / _COARSER))
    small, before, weight = (
        np.asarray(cv2.resize(one, size, interpolation=cv2.INTER_AREA), np.float64)
        for one in (picture, prior, trust)
    )
    share = cv2.resize(known.astype(np.float32), size, interpolation=cv2.INTER_AREA)
    alpha = _solved(small, before, weight, np.asarray(share > _WHOLLY))
    straight = small.astype(np.float32)
    found = enlarged(alpha.astype(np.float32), straight, _solid(picture))
    return np.asarray(np.where(known, prior, found), np.float32)


def _solved(picture: Array, prior: Array, trust: Array, known: Mask) -> Array:
    if known.all() or min(known.shape) < _WINDOW:
        return prior
    from pymatting import cf_laplacian, cg, ichol
    from scipy.sparse import diags

    free = ~known.ravel()
    rows = cf_laplacian(picture, is_known=known.ravel()).tocsr()[free]
    given, weight = prior.ravel(), _WEIGHT * trust.ravel()[free]
    matrix = (rows[:, free] + diags(weight)).tocsc()
    wanted = weight * given[free] - rows[:, ~free] @ np.rint(given[~free])
    prepared = ichol(matrix, shifts=_SHIFTS)
    out = np.rint(given)
    out[free] = np.clip(cg(matrix, wanted, x0=given[free], M=prepared, rtol=_NEAR), 0, 1)
    return np.asarray(out.reshape(known.shape))


def _closed_form(picture: NDArray[np.float32], known: Array) -> NDArray[np.float32]:
    # Brought in only where it is needed: that alone takes seconds.
    from pymatting import estimate_alpha_cf, ichol

    prepared = partial(ichol, shifts=_SHIFTS)
    alpha = estimate_alpha_cf(picture.astype(np.float64), known, preconditioner=prepared)
    return np.asarray(np.clip(alpha, 0, 1), np.float32)


def colours_of(
    picture: NDArray[np.float32], alpha: NDArray[np.float32], coarser: int = 1
) -> NDArray[np.float32]:
    """What is cut out as it would look without what shines through.

    T. Germer and others, "Fast Multi-Level Foreground Estimation", 2020; where it is found on a ``coarser``
    picture, as M. Forté, F. Pitié, "Approximate Fast Foreground Colour Estimation", 2021, take it on.
    """
    if not ((alpha > 0) & (alpha < 1)).any():
        return picture
    from pymatting import estimate_foreground_ml

    height, width = alpha.shape
    size = max(1, width // coarser), max(1, height // coarser)
    small, thin = (
        np.asarray(cv2.resize(one, size, interpolation=cv2.INTER_AREA), np.float64)
        for one in (picture, alpha)
    )
    if coarser == 1:
        found = estimate_foreground_ml(small, thin)
        return np.asarray(np.clip(found, 0, 1), np.float32)
    found, ground = (
        cv2.resize(one.astype(np.float32), (width, height), interpolation=cv2.INTER_LINEAR)
        for one in estimate_foreground_ml(small, thin, return_background=True)
    )
    share = alpha[..., None]
    rest = picture - share * found - (1 - share) * ground
    return np.asarray(np.clip(found + share * rest, 0, 1), np.float32)


def _solid(picture: NDArray[np.float32]) -> Rgba:
    levels = np.rint(picture * 255).astype(np.uint8)
    return np.asarray(cv2.cvtColor(levels, cv2.COLOR_RGB2RGBA))


def _disc(radius: float) -> Array:
    side = 2 * round(radius) + 1
    return np.asarray(cv2.getStructuringElement(cv2.MORPH_ELLIPSE, (side, side)))
