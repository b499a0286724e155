"""The last step of a film's sound: nothing beyond full scale, and nothing else changed."""

from __future__ import annotations

from typing import Final

import numpy as np
from numpy.typing import NDArray

from kitecore.sound.ramps import Samples
from kitecore.sound.truepeak import TRUE_REACH, louder, true_levels

HOLD: Final = 1200
"""Samples before and after a peak for which its gain is kept: half a period of 20 Hz, so that the
gain does not move with the wave itself."""
REACH: Final = 2 * HOLD + TRUE_REACH + 1
"""Samples on either side that a result depends on."""
_ONE: Final = 2**30
_MOST_BETWEEN: Final = 2.5
"""Times that a true peak is above the samples around it, at most (8 dB): else it is looked for."""


def limited(samples: Samples, ceiling: float = 1.0) -> Samples:
    """Samples with a gain that keeps them within a ceiling, looking ahead.

    At full scale only samples count, so that a finished recording stays as it is; below that, true
    peaks between them do too.

    Where nothing within `REACH` is louder than the ceiling, they stay as they are, to the bit. The
    gain is that of the loudest around, gone to and from along two box filters, in whole numbers: the
    same however the sound is cut.

    Parameters
    ----------
    samples
        float32, shape (count, channels), with `REACH` samples more on either side.
    ceiling
        The highest level, 1 for full scale.

    Returns
    -------
    Shape (count - 2 * REACH, channels).
    """
    inner = samples[REACH : len(samples) - REACH]
    level = louder(samples)
    if not len(inner) or level.max() <= ceiling / _MOST_BETWEEN:
        return inner
    if ceiling < 1:
        level = true_levels(samples)
    if level.max() <= ceiling:
        return inner
    from scipy.ndimage import minimum_filter1d  # slow to load

    wanted = np.floor(_ONE * np.minimum(1.0, ceiling / np.maximum(level, 1e-9).astype(np.float64)))
    held = minimum_filter1d(wanted.astype(np.int64), 2 * HOLD + 1, mode="nearest")
    gain = _boxed(_boxed(held))
    # What the filters leave at the ends lies outside of what is given back.
    begin = REACH - HOLD
    part = gain[begin : begin + len(inner)] / _ONE
    return np.clip(inner * part[:, None].astype(np.float32), -ceiling, ceiling)


def _boxed(numbers: NDArray[np.int64]) -> NDArray[np.int64]:
    """The mean over `HOLD` + 1 of them, without the ends."""
    sums = np.concatenate([[0], np.cumsum(numbers)])
    return np.asarray((sums[HOLD + 1 :] - sums[: -HOLD - 1]) // (HOLD + 1))
