"""Which moment of a reading is which moment of a recording of the same words."""

from __future__ import annotations

from typing import Final

import numpy as np
from numba import njit
from numpy.typing import NDArray

from kitecore.speech.ear import RESTING, likely_poses
from kitecore.speech.features import Floats, features_of

_BAND: Final = 0.3
"""Of the longer of both: how far the pace may be away from an even one."""
_LEAST_BAND: Final = 300
_HOLDING: Final = np.float32(0.15)
"""What it costs, a look, that one stands still while the other goes on."""
_SOUND: Final = 0.35
"""How much the sound itself matters beside the poses that it tells of."""
_PASSING: Final = np.float32(0.02)
"""The same in a pause, whatever the other says there."""
_PAUSE: Final = 8
"""Looks of silence that are no sound of speech any more."""
_SURE: Final = 0.8
_FAR: Final = np.float32(1e9)


def aligned(reading: Floats, recording: Floats) -> NDArray[np.float64]:
    """For each look of a reading the look of a recording where the same is said; never going back.

    Dynamic time warping (Sakoe and Chiba 1978) over what the ear tells of both (`likely_poses`) and
    over their sound, within a band about the straight line. Pauses of one that the other does not make
    are passed over.

    Parameters
    ----------
    reading, recording
        Energies, as `energies_of` makes them, of at least two looks each.
    """
    ours, theirs = _told(reading), _told(recording)
    half = max(_LEAST_BAND, round(_BAND * max(len(ours), len(theirs))))
    steps = _steps(ours, theirs, pauses_of(reading), pauses_of(recording), half)
    pairs = _path(steps, len(ours), len(theirs), half)
    # Where a look of the reading lasts it stands for the middle of what it was laid over.
    first = np.searchsorted(pairs[:, 0], np.arange(len(ours)), "left")
    last = np.searchsorted(pairs[:, 0], np.arange(len(ours)), "right") - 1
    return np.asarray((pairs[first, 1] + pairs[last, 1]) / 2, np.float64)


def pauses_of(energies: Floats) -> NDArray[np.bool_]:
    """Whether each look lies in a pause: the lips are at rest for longer than any sound takes."""
    from scipy.ndimage import binary_opening  # slow to load

    closed = likely_poses(energies)[:, RESTING] > _SURE
    return np.asarray(binary_opening(closed, np.ones(_PAUSE)), np.bool_)


def _told(energies: Floats) -> Floats:
    """Numbers whose distance is small where the same is said."""
    features = features_of(energies)
    width = np.sqrt(features.shape[1])
    both = [np.sqrt(likely_poses(energies)), _SOUND * features / width]
    return np.ascontiguousarray(np.concatenate(both, axis=1), np.float32)


@njit(cache=True, nogil=True)
def _steps(
    ours: Floats,
    theirs: Floats,
    our_pauses: NDArray[np.bool_],
    their_pauses: NDArray[np.bool_],
    half: int,
) -> NDArray[np.uint8]:
    """How each pair is best come to: 0 together, 1 the first goes on, 2 the second."""
    count, other, wide = len(ours), len(theirs), 2 * half + 1
    steps = np.zeros((count, wide), np.uint8)
    before = np.full(wide + 2, _FAR, np.float32)
    for i in range(count):
        now = np.full(wide + 2, _FAR, np.float32)
        low = i * (other - 1) // max(count - 1, 1) - half
        shift = low - ((i - 1) * (other - 1) // max(count - 1, 1) - half) if i else 0
        for k in range(wide):
            j = low + k
            if j < 0 or j >= other:
                continue
            cost = np.float32(0.0)
            for n in range(ours.shape[1]):
                d = ours[i, n] - theirs[j, n]
                cost += d * d
            if i == 0 and j == 0:
                now[k + 1] = cost
                continue
            together = up = _FAR
            if i and 0 <= k + shift < wide:
                up = before[k + shift + 1] + (_PASSING if our_pauses[i] else _HOLDING + cost)
            if i and 0 <= k + shift - 1 < wide:
                together = before[k + shift] + cost
            along = now[k] + (_PASSING if their_pauses[j] else _HOLDING + cost)
            if together <= up and together <= along:
                now[k + 1], steps[i, k] = together, 0
            elif up <= along:
                now[k + 1], steps[i, k] = up, 1
            else:
                now[k + 1], steps[i, k] = along, 2
        before = now
    return steps


@njit(cache=True, nogil=True)
def _path(steps: NDArray[np.uint8], count: int, other: int, half: int) -> NDArray[np.int64]:
    """Pairs from the beginning of both to their end."""
    pairs = np.zeros((count + other, 2), np.int64)
    i, j, at = count - 1, other - 1, count + other
    while True:
        at -= 1
        pairs[at, 0], pairs[at, 1] = i, j
        if i == 0 and j == 0:
            break
        step = steps[i, j - (i * (other - 1) // max(count - 1, 1) - half)]
        if step != 2:
            i -= 1
        if step != 1:
            j -= 1
        i, j = max(i, 0), max(j, 0)
    return pairs[at:]
