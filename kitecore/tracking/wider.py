"""What is followed, as wide as what is found there: where the two differ, the wider counts."""

from __future__ import annotations

from collections.abc import Mapping
from itertools import pairwise
from typing import Final

import numpy as np
from numpy.typing import NDArray
from scipy.ndimage import maximum_filter1d, uniform_filter1d

from kitecore.tracking.faces import Boxes
from kitecore.tracking.quads import Quad

MOST: Final = 2.0
"""By how much a thing is widened at most: what reaches farther is something else."""


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


def _reach(quad: Quad, box: NDArray[np.float32]) -> float:
    """How much larger a quad has to be to hold a box; 1 if it does, or if the box is not about it."""
    left, top, right, bottom = (float(edge) for edge in box[:4])
    middle = quad.mean(axis=0)
    axes = np.array([quad[1] - quad[0], quad[3] - quad[0]]).T / 2
    if abs(np.linalg.det(axes)) < 1e-9:
        return 1.0
    corners = np.array([[left, top], [right, top], [right, bottom], [left, bottom]])
    within = np.linalg.solve(axes, (corners - middle).T)
    if np.abs(within.mean(axis=1)).max() > 1:
        return 1.0
    return max(1.0, float(np.abs(within).max()))
