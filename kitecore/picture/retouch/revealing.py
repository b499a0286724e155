"""What lies behind something, put together from pictures in which it is to be seen."""

from __future__ import annotations

from typing import Any, Final

import numpy as np
from numba import njit
from numpy.typing import NDArray

from kitecore.picture.layer import Rgba

MOST_SAMPLES: Final = 16
_AGREES: Final = 40
"""Levels, red, green and blue together, within which a picture shows what most of them show."""
_EVERY: Final = 3
"""One pixel of so many, across and down, tells how the light differs."""

Array = NDArray[Any]


def revealed(samples: NDArray[np.uint8], free: NDArray[np.bool_]) -> tuple[Rgba, NDArray[np.bool_]]:
    """The picture behind, and where it is known.

    Each pixel comes from the first sample that shows what most of them show there: so it keeps the
    grain of one picture, and something else that passes is left out. All in the light of the first.

    Parameters
    ----------
    samples
        The same part of a scene, best first; premultiplied RGBA, shape (count, height, width, 4),
        `MOST_SAMPLES` at most.
    free
        Where each shows what lies behind, shape (count, height, width).
    """
    lights = np.stack(
        [_light(samples[0], free[0], *both) for both in zip(samples, free, strict=True)]
    )
    return tuple(_revealed(samples, free, lights))  # type: ignore[return-value]


def _light(first: Rgba, free_first: Array, other: Rgba, free: Array) -> NDArray[np.int16]:
    """By how much each colour of a picture is lighter than in the first: the median."""
    few = np.s_[::_EVERY, ::_EVERY]
    both = free_first[few] & free[few]
    if not both.any():
        return np.zeros(3, np.int16)
    gaps = other[few][both][:, :3].astype(np.int16) - first[few][both][:, :3]
    return np.asarray(np.rint(np.median(gaps, axis=0)), np.int16)


@njit(cache=True, nogil=True)
def _revealed(samples: Array, free: Array, lights: Array) -> tuple[Array, Array]:
    count, height, width, _ = samples.shape
    out = np.zeros((height, width, 4), np.uint8)
    known = np.zeros((height, width), np.bool_)
    sums, ordered = np.empty(count, np.int64), np.empty(count, np.int64)
    which = np.empty(count, np.int64)
    for y in range(height):
        for x in range(width):
            many = 0
            for k in range(count):
                if not free[k, y, x]:
                    continue
                total = np.int64(0)
                for c in range(3):
                    total += np.int64(samples[k, y, x, c]) - np.int64(lights[k, c])
                sums[many], which[many] = total, k
                place = many
                while place > 0 and ordered[place - 1] > total:
                    ordered[place] = ordered[place - 1]
                    place -= 1
                ordered[place] = total
                many += 1
            if many == 0:
                continue
            middle = ordered[many // 2]
            taken = 0
            while abs(sums[taken] - middle) > _AGREES:
                taken += 1
            k = which[taken]
            alpha = samples[k, y, x, 3]
            for c in range(3):
                value = np.int64(samples[k, y, x, c]) - np.int64(lights[k, c])
                out[y, x, c] = np.uint8(min(max(value, np.int64(0)), np.int64(alpha)))
            out[y, x, 3] = alpha
            known[y, x] = True
    return out, known
