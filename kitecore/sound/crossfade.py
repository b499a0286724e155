"""Two sounds across a join."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from kitecore.sound.ramps import Samples


def equal_power(positions: NDArray[np.int64], length: int, *, rising: bool) -> Samples:
    """Factors 0..1 of a crossfade in which the power of the two sounds adds up to 1.

    Parameters
    ----------
    positions
        Samples from where the crossfade begins; outside of it the factor is 0 or 1.
    length
        Of the crossfade, in samples.
    rising
        For the sound that comes, or for the one that goes.
    """
    share = np.clip((positions + 0.5) / length, 0.0, 1.0)
    angle = share * np.pi / 2
    return (np.sin(angle) if rising else np.cos(angle)).astype(np.float32)
