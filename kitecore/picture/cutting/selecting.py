"""Which pixels are meant by strokes that keep, strokes that drop, and a line around."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any, Final

import cv2
import numpy as np
from numpy.typing import NDArray

_SIDE: Final = 320
"""Pixels of the longer side at which it is found."""
_BINS: Final = 32
_ROUNDS: Final = 2
_ROUNDS_UNMARKED: Final = 5
"""Where only a line around says where it is, colours are learnt from less."""
_CRUMB: Final = 0.1
"""Parts that are smaller against the largest are left out, if no stroke says which is meant."""
_GROUND: Final = 0.04
"""Share of the picture's shorter side along its edges in which the ground is looked for."""
_OTHERWISE: Final = 0.02
"""How seldom, against those under strokes to keep, a colour is met there that is of the ground."""
_SURELY: Final = 0.95
"""How likely something has to be to stay so whatever its colours."""
_REACH: Final = 0.2
"""Of the longer side: around a stroke that says otherwise, it is looked at anew."""

Array = NDArray[Any]
Mask = NDArray[np.bool_]


def selected(
    picture: NDArray[np.uint8],
    keep: Mask,
    drop: Mask,
    within: Mask | None = None,
    likely: NDArray[np.float32] | None = None,
) -> Mask:
    """The pixels that go with those to keep.

    First by how often a colour is met under the strokes and by which stroke is nearer, then by graph
    cuts (C. Rother, V. Kolmogorov, A. Blake, "GrabCut", 2004). What hangs together with no stroke to
    keep is dropped. Where no stroke drops anything, what lies at the edge of the picture and looks
    otherwise shows what the ground looks like.

    Parameters
    ----------
    picture
        RGB, shape (height, width, 3).
    within
        Inside of a line around what is kept: all else is dropped, and without strokes it is what
        looks otherwise than that.
    likely
        How surely each pixel is kept, 0..1, as far as that is known before one looks at colours.
    """
    if not keep.any() and within is None and likely is None:
        return np.zeros(keep.shape, np.bool_)
    if within is not None:
        drop = (drop | ~within) & ~keep
    height, width = keep.shape
    factor = min(1.0, _SIDE / max(height, width))
    size = max(1, round(width * factor)), max(1, round(height * factor))
    small = np.asarray(cv2.resize(picture, size, interpolation=cv2.INTER_AREA))
    kept, dropped = (_smaller(one, size) for one in (keep, drop))
    if likely is not None:
        guess, kept, dropped = _known(small, cv2.resize(likely, size), kept, dropped)
    else:
        guess = _likely(small, kept, dropped) if kept.any() else _unlike(small, dropped)
    inside = _cut(small, guess, kept, dropped)
    whole = cv2.resize(inside.astype(np.float32), (width, height), interpolation=cv2.INTER_LINEAR)
    return np.asarray(((whole > 0.5) | keep) & ~drop)


def _smaller(mask: Mask, size: tuple[int, int]) -> Mask:
    return np.asarray(cv2.resize(mask.astype(np.float32), size, interpolation=cv2.INTER_AREA) > 0.3)


def _known(picture: Array, likely: Array, keep: Mask, drop: Mask) -> tuple[Mask, Mask, Mask]:
    """What is likely kept, what surely is, and what surely is not.

    Around strokes that say otherwise than what was known before, colours decide.
    """
    guess, sure, never = likely > 0.5, likely > _SURELY, likely < 1 - _SURELY
    more, less = _reached(keep & never), _reached(drop & sure)
    met = _met(picture)
    if more.any():
        guess = guess | (more & (met(keep) > met(never & ~keep)))
    if less.any():
        guess = guess & ~(less & (met(drop) > met(sure & ~drop)))
    return guess, keep | (sure & ~less & ~drop), drop | (never & ~more & ~keep)


def _reached(mask: Mask) -> Mask:
    """What lies near pixels of a mask."""
    if not mask.any():
        return mask
    far = cv2.distanceTransform((~mask).astype(np.uint8), cv2.DIST_L2, 3)
    return np.asarray(far < _REACH * max(mask.shape))


def _rim(shape: tuple[int, ...]) -> Mask:
    side = max(1, round(_GROUND * min(shape)))
    rim = np.ones(shape, np.bool_)
    rim[side:-side, side:-side] = False
    return rim


def _met(picture: Array) -> Callable[[Mask], Array]:
    """How often the colour of each pixel is met among those of a mask."""
    places = cv2.cvtColor(picture, cv2.COLOR_RGB2LAB) // (256 // _BINS)
    index = tuple(places.transpose(2, 0, 1).astype(int))

    def met(mask: Mask) -> Array:
        from scipy.ndimage import gaussian_filter  # slow to load

        counts = np.zeros((_BINS, _BINS, _BINS), np.float32)
        np.add.at(counts, tuple(places[mask].T.astype(int)), 1)
        spread = gaussian_filter(counts, 1.2) + 1e-6
        return np.asarray((spread / spread.sum())[index])

    return met


def _unlike(picture: Array, drop: Mask) -> Mask:
    """Of what is not dropped, that whose colours are met less often where it is."""
    if not drop.any() or drop.all():
        return ~drop
    met = _met(picture)
    return np.asarray(~drop & (met(~drop) > met(drop)))


def _likely(picture: Array, keep: Mask, drop: Mask) -> Mask:
    """By colour and nearness alone."""
    met = _met(picture)

    def far(mask: Mask) -> Array:
        there = cv2.distanceTransform((~mask).astype(np.uint8), cv2.DIST_L2, 3)
        return np.asarray(there + 1)

    kept = met(keep)
    if not drop.any():
        drop = _rim(keep.shape) & (kept < _OTHERWISE * np.median(kept[keep]))
    if not drop.any():
        return np.ones(keep.shape, np.bool_)
    return np.asarray(kept * far(drop) > met(drop) * far(keep))


def _cut(picture: Array, guess: Mask, keep: Mask, drop: Mask) -> Mask:
    labels = np.where(guess, cv2.GC_PR_FGD, cv2.GC_PR_BGD).astype(np.uint8)
    labels[drop], labels[keep] = cv2.GC_BGD, cv2.GC_FGD
    inside = _inside(labels)
    if inside.all() or not inside.any():
        return inside
    cv2.setRNGSeed(1)
    models = np.zeros((1, 65)), np.zeros((1, 65))
    rounds = _ROUNDS if keep.any() else _ROUNDS_UNMARKED
    cv2.grabCut(picture, labels, None, *models, rounds, cv2.GC_INIT_WITH_MASK)
    inside = _inside(labels)
    _, parts = cv2.connectedComponents(inside.astype(np.uint8), connectivity=4)
    meant = np.unique(parts[keep & inside]) if keep.any() else _large(parts)
    return np.asarray(inside & np.isin(parts, meant))


def _large(parts: Array) -> Array:
    """Numbers of the parts that are more than crumbs; 0 is what is in none."""
    sizes = np.bincount(parts.ravel())
    sizes[0] = 0
    return np.flatnonzero(sizes > _CRUMB * sizes.max())


def _inside(labels: Array) -> Mask:
    return np.asarray((labels == cv2.GC_FGD) | (labels == cv2.GC_PR_FGD))
