"""What a film's sound measures, as far as checks want to know."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from kitecore.render.levels import Loudness, Stretch, loudness_of

TENTHS = 10
"""Values a second."""
SILENT = 10 ** (-60 / 20)
"""Nobody hears what is below."""


@dataclass(frozen=True)
class SoundFacts:
    """Loudness of a film, and its root mean squares left and right, ten a second, 0..1.

    ``there`` says whether anything is heard at all.
    """

    loudness: Loudness
    left: NDArray[np.float64]
    right: NDArray[np.float64]
    there: bool


def sound_facts(stretches: Sequence[Stretch]) -> SoundFacts:
    """From the stretches of a film, in order."""
    left = np.array([level for one in stretches for level in one.left])
    right = np.array([level for one in stretches for level in one.right])
    there = bool((np.maximum(left, right) >= SILENT).any())
    return SoundFacts(loudness_of(list(stretches)), left, right, there)
