"""What is followed and what is found there by itself: where they differ, the wider counts; where
what is followed has gone astray, what is found."""

from __future__ import annotations

from collections.abc import Mapping
from itertools import pairwise
from typing import Final

import numpy as np
from numpy.typing import NDArray

from kitecore.tracking.faces import Boxes
from kitecore.tracking.quads import Quad, corners_of

MOST: Final = 2.0
"""By how much a thing is widened at most: what reaches farther is something else."""
_AGREED: Final = 0.25
"""In sizes: how far what is found lies at most from where the thing was followed to."""
_STRAYS: Final = 1.0
"""In sizes: how far a thing goes at most from its straight way while it is not found."""


def widened(
    quads: NDArray[np.float64], first: int, looks: Mapping[int, Boxes]
) -> NDArray[np.float64]:
    """Corners of each frame, grown about their middle until they hold what was found there.

    What was found in one frame counts up to the frames that were looked at before and after it; from
    one width to another they go over evenly, and are never narrower than either says.

    Parameters
    ----------
    quads
        Shape (n, 4, 2); the first of frame ``first``.
    looks
        What was found, by the frames that were looked at.
    """
    from scipy.ndimage import maximum_filter1d, uniform_filter1d  # slow to load

    grown = np.ones(len(quads))
    known = sorted(number - first for number in looks if 0 <= number - first < len(quads))
    for at in known:
        reaches = (_reach(quads[at], box) for box in looks[at + first])
        grown[at] = max((reach for reach in reaches if reach < MOST), default=1.0)
    apart = max((after - before for before, after in pairwise(known)), default=1)
    # The greatest of so wide a stretch is still there after its mean over half of it.
    widest = maximum_filter1d(grown, 2 * apart + 2 * (apart // 2) + 1, mode="nearest")
    even = np.maximum(uniform_filter1d(widest, 2 * (apart // 2) + 1, mode="nearest"), 1.0)
    middles = quads.mean(axis=1, keepdims=True)
    return np.asarray(middles + (quads - middles) * even[:, None, None])


def believed(
    quads: NDArray[np.float64],
    sure: NDArray[np.float64],
    first: int,
    looks: Mapping[int, Boxes],
    least: float,
) -> tuple[NDArray[np.float64], NDArray[np.float64]]:
    """Corners and how surely they are right, after a look at what was found of the same thing.

    Between two looks that both found it, it is at ``least`` so surely there; where it was found in
    none between, what strays from the straight way is no more than a guess. What was followed to
    somewhere else, or lost, goes straight from the one to the other.

    Parameters
    ----------
    quads, sure
        Of each frame, the first of frame ``first``.
    looks
        By the frames that were looked at: the one box of the thing, or none.
    """
    out, known = np.array(quads), np.array(sure)
    within = sorted(number for number in looks if 0 <= number - first < len(quads))
    rows = [row for row, number in enumerate(within) if len(looks[number])]
    for one, other in pairwise(rows):
        before, after = within[one], within[other]
        part = slice(before - first, after - first + 1)
        straight = _straight(looks[before][0], looks[after][0], after - before)
        if other == one + 1:
            known[part] = np.maximum(known[part], least)
            ends = _near(quads[part][[0, -1]], straight[[0, -1]], _AGREED)
            astray = np.full(len(straight), not (ends.all() and sure[part].all()))
        else:
            astray = ~_near(quads[part], straight, _STRAYS) | (sure[part] == 0)
            known[part] = np.where(astray, np.minimum(known[part], least / 2), known[part])
        out[part] = np.where(astray[:, None, None], straight, out[part])
    return out, known


def _straight(
    one: NDArray[np.float32], other: NDArray[np.float32], steps: int
) -> NDArray[np.float64]:
    way = np.linspace(0, 1, steps + 1)[:, None, None]
    return np.asarray(corners_of(one) + way * (corners_of(other) - corners_of(one)))


def _near(
    quads: NDArray[np.float64], others: NDArray[np.float64], most: float
) -> NDArray[np.bool_]:
    """Whether each is within ``most`` of its size of the other, and about as large."""
    apart = np.abs(quads.mean(axis=1) - others.mean(axis=1))
    size, other = np.ptp(quads, axis=1), np.ptp(others, axis=1)
    least = np.minimum(size, other)
    return np.asarray(
        ((apart < most * least) & (np.maximum(size, other) < MOST * least)).all(axis=1)
    )


def _reach(quad: Quad, box: NDArray[np.float32]) -> float:
    """How much larger a quad has to be to hold a box; 1 if it does, or if the box is not about it."""
    middle = quad.mean(axis=0)
    axes = np.array([quad[1] - quad[0], quad[3] - quad[0]]).T / 2
    if abs(np.linalg.det(axes)) < 1e-9:
        return 1.0
    within = np.linalg.solve(axes, (corners_of(box) - middle).T)
    if np.abs(within.mean(axis=1)).max() > 1:
        return 1.0
    return max(1.0, float(np.abs(within).max()))
