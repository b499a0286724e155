"""Where the colours of a table lie along its axes: closer together where a grade bends steeply."""

from __future__ import annotations

from itertools import pairwise
from typing import Final

import numpy as np
from numpy.typing import NDArray

from kitecore.colour.rgb import Rgb

SAMPLES: Final = 1021
"""Places at which a grade is tried: every level of 8 bits, and three between each two."""
FEWER: Final = 511
"""The same for watching: every level, and one between each two."""
LEVEL: Final = 1.0 / 255
_EVEN: Final = 8
"""Of so many places one lies in even steps in any case."""
_OTHERS: Final = 0.4
_RAMPS: Final = 4

Places = NDArray[np.float64]


def even_places(size: int) -> Places:
    return np.linspace(0, 1, size)


def places_for(changed: Rgb, size: int, enough: float = LEVEL, most: int = 0) -> Places:
    """Places along each axis, 0 to 1, rising, for a table of what a grade makes of colours.

    It was tried on greys and on each channel alone. Where straight lines between places in even
    steps would miss it, most places are put where it bends or jumps, one after the other where the
    error is largest (Ramer 1972).

    Parameters
    ----------
    changed
        What it made of `ramps`.
    enough
        An error, 0..1, up to which even steps are close enough.
    most
        Places that there may be where ``size`` of them are not: of a table of many jumps.
    """
    samples = len(changed) // _RAMPS
    at = np.linspace(0, 1, samples)
    values = np.clip(changed.reshape(_RAMPS, samples, 3), -0.5, 1.5)
    rows = values.transpose(1, 0, 2).reshape(samples, -1).astype(np.float64)
    if _worst(at, rows, even_places(size)) <= enough:
        return even_places(size)
    chosen = set(np.rint(np.linspace(0, samples - 1, (size - 1) // _EVEN + 1)).astype(int).tolist())
    stretches = {(a, b): _farthest(rows, a, b) for a, b in _pairs(sorted(chosen))}
    while len(chosen) < max(size, most):
        ends = max(stretches, key=lambda ends: (stretches[ends][0], ends[1] - ends[0]))
        if len(chosen) >= size and stretches[ends][0] <= enough:
            break
        error, middle = stretches.pop(ends)
        if not error:
            # Nothing is missed any more: the rest halves the longest stretches.
            middle = sum(ends) // 2
        chosen.add(middle)
        for part in ((ends[0], middle), (middle, ends[1])):
            stretches[part] = _farthest(rows, *part)
    return at[sorted(chosen)]


def ramps(samples: int = SAMPLES) -> NDArray[np.float32]:
    """Greys, and each channel beside two others that stand, one ramp after the other."""
    at = np.linspace(0, 1, samples)
    found = np.full((_RAMPS, samples, 3), _OTHERS)
    found[0] = at[:, None]
    for channel in range(3):
        found[1 + channel, :, channel] = at
    return found.reshape(-1, 3).astype(np.float32)


def _pairs(chosen: list[int]) -> list[tuple[int, int]]:
    return list(pairwise(chosen))


def _farthest(rows: Places, begin: int, end: int) -> tuple[float, int]:
    """How far a straight line between two samples misses those between them at worst, and where."""
    if end - begin < 2:
        return 0.0, begin
    share = (np.arange(begin + 1, end) - begin)[:, None] / (end - begin)
    line = rows[begin] * (1 - share) + rows[end] * share
    errors = np.abs(line - rows[begin + 1 : end]).max(axis=1)
    worst = int(errors.argmax())
    return float(errors[worst]), begin + 1 + worst


def _worst(at: Places, rows: Places, places: Places) -> float:
    values = [np.interp(places, at, row) for row in rows.T]
    return max(
        float(np.abs(np.interp(at, places, value) - row).max())
        for value, row in zip(values, rows.T, strict=True)
    )
