"""Loudness by ITU-R BS.1770-5, with the windows of EBU Tech 3341 and the range of EBU Tech 3342.

A sound is first brought down to `PART`s of a tenth of a second. All else follows from those, so a
change to one clip leaves the parts of all others as they were.
"""

from __future__ import annotations

from typing import Final

import numpy as np
from numpy.typing import NDArray

from kitecore.sound.biquad import filtered
from kitecore.sound.ramps import RATE, Samples

Numbers = NDArray[np.float64]

PART: Final = RATE // 10
"""Samples that are measured together."""
LEAD: Final = RATE // 2
"""Samples before the first part that the filters need to settle."""
MOMENT: Final = 4
SHORT: Final = 30
"""Parts of the momentary and of the short-term window."""
SILENCE: Final = -120.0
"""LUFS, for what has no sound."""

_HEAD: Final = np.array(
    [[1.53512485958697, -2.69169618940638, 1.19839281085285, -1.69065929318241, 0.73248077421585]]
)
_LOW_CUT: Final = np.array([[1.0, -2.0, 1.0, -1.99004745483398, 0.99007225036621]])
"""The two filters of the standard, as it gives them for 48 kHz: b0, b1, b2, a1, a2."""
_ABSOLUTE_GATE: Final = -70.0


def powers(samples: Samples) -> Numbers:
    """Mean power of each part, weighted as the ear hears it and summed over the sides.

    Parameters
    ----------
    samples
        float32, shape (`LEAD` + n * `PART`, 2).
    """
    weighted = filtered(samples, [_HEAD, _LOW_CUT], len(samples), 0)[LEAD:]
    parts = weighted.astype(np.float64).reshape(-1, PART * 2)
    return np.asarray(np.einsum("ij,ij->i", parts, parts) / PART)


def lufs(power: Numbers | float) -> Numbers:
    return np.maximum(SILENCE, -0.691 + 10 * np.log10(np.maximum(power, 1e-13)))


def over_time(parts: Numbers, window: int) -> Numbers:
    """Loudness of the last ``window`` parts at the end of each part; before, of what there is."""
    sums = np.concatenate([[0.0], np.cumsum(parts)])
    ends = np.arange(1, len(sums))
    begins = np.maximum(ends - window, 0)
    return lufs(np.maximum(sums[ends] - sums[begins], 0) / window)


def whole(parts: Numbers) -> float:
    """Integrated loudness: blocks of 400 ms, gated at -70 LUFS and at 10 LU below their mean."""
    if len(parts) < MOMENT:
        parts = np.pad(parts, (0, MOMENT - len(parts)))
    blocks = np.convolve(parts, np.ones(MOMENT) / MOMENT, "valid")
    heard = blocks[lufs(blocks) > _ABSOLUTE_GATE]
    if not len(heard):
        return SILENCE
    loud = heard[lufs(heard) > lufs(heard.mean()) - 10]
    return float(lufs(loud.mean()))


def spread(parts: Numbers) -> float:
    """Loudness range in LU: from the quiet tenth to the loud twentieth of short-term values."""
    if len(parts) < SHORT:
        return 0.0
    blocks = np.convolve(parts, np.ones(SHORT) / SHORT, "valid")
    heard = blocks[lufs(blocks) > _ABSOLUTE_GATE]
    if not len(heard):
        return 0.0
    loud = lufs(heard[lufs(heard) > lufs(heard.mean()) - 20])
    low, high = np.percentile(loud, [10, 95])
    return float(high - low)
