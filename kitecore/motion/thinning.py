"""Few keys in place of one on each frame."""

from __future__ import annotations

from typing import Any

import numpy as np
from numpy.typing import NDArray

from kitecore.document.ease import Bezier, Ease, Steady

Array = NDArray[np.float64]

_STEEPEST = 10.0
"""How far an easing's curve may overshoot, as the document bounds it."""


def thinned(ticks: list[int], values: list[Any], tolerance: float) -> list[tuple[int, Any, Ease]]:
    """Some of the samples as keys, with easings that lead through all others.

    Parameters
    ----------
    ticks
        In order, at least one.
    values
        One for each tick: numbers, or points of as many numbers.
    tolerance
        How far a sample may be from where the keys lead, in each of its numbers.

    Notes
    -----
    Each stretch goes as far as one cubic does (P. J. Schneider, "An algorithm for automatically
    fitting digitized curves", Graphics Gems, 1990, here with the ends and the pace of time given).
    """
    at = np.array(ticks, float)
    rows = np.array(values, float).reshape(len(ticks), -1)
    keys: list[tuple[int, Any, Ease]] = []
    here = 0
    while here < len(ticks) - 1:
        there, ease = _farthest(at, rows, here, tolerance)
        keys.append((ticks[here], values[here], ease))
        here = there
    return [*keys, (ticks[-1], values[-1], Steady())]


def plain_keys(ticks: list[int], values: list[Any], tolerance: float) -> list[dict[str, Any]]:
    """The same as plain data, as keys are set."""
    return [
        {"at": at, "value": value, "ease": ease.model_dump(mode="json")}
        for at, value, ease in thinned(ticks, values, tolerance)
    ]


def _farthest(at: Array, rows: Array, here: int, tolerance: float) -> tuple[int, Ease]:
    """The last sample to which one easing leads from ``here``, and that easing."""
    good, step, bad = here + 1, 2, len(at)
    best: Ease = Steady()
    while good + 1 < bad:
        there = min(here + step, bad - 1) if bad == len(at) else (good + bad) // 2
        found = _leading(at[here : there + 1], rows[here : there + 1], tolerance)
        if found is None:
            bad = there
        else:
            good, best = there, found
            step *= 2
    return good, best


def _leading(at: Array, rows: Array, tolerance: float) -> Ease | None:
    """The easing from the first to the last of some samples; None if there is none that fits."""
    time = (at - at[0]) / (at[-1] - at[0])
    off, way = rows - rows[0], rows[-1] - rows[0]
    if np.abs(off - time[:, None] * way).max() <= tolerance:
        return Steady()
    square = float(way @ way)
    if square < 1e-12:
        return None
    rest = 1 - time
    bends = np.stack([3 * rest**2 * time, 3 * rest * time**2], axis=1)
    share = off @ way / square
    (y1, y2), *_ = np.linalg.lstsq(bends, share - time**3, rcond=None)
    led = bends @ (y1, y2) + time**3
    if max(abs(y1), abs(y2)) > _STEEPEST or np.abs(off - led[:, None] * way).max() > tolerance:
        return None
    return Bezier(x1=1 / 3, y1=float(y1), x2=2 / 3, y2=float(y2))
