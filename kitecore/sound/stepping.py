"""How a sound steps back while somebody speaks: pure shapes over time.

Times are steps of `STEP` samples.
"""

from __future__ import annotations

from typing import Final

import numpy as np
from numpy.typing import NDArray

from kitecore.sound.ramps import RATE

STEP: Final = RATE // 100
PAUSE: Final = 60
"""Steps of a pause that is none: between words one does not come back."""
BLIP: Final = 8
"""Steps of a sound that is no word."""

Flags = NDArray[np.bool_]


def spoken(surely: Flags) -> Flags:
    """Where somebody speaks, without blips and without pauses between words.

    What it says of a step depends on `PAUSE` + `BLIP` steps on either side.
    """
    from scipy.ndimage import binary_closing, binary_opening  # slow to load

    words = np.pad(binary_opening(surely, np.ones(BLIP)), PAUSE)
    return np.asarray(binary_closing(words, np.ones(PAUSE)))[PAUSE:-PAUSE]


def reach(fade: float, ahead: float) -> int:
    """Steps on either side that the way back depends on, with what `spoken` does."""
    return PAUSE + BLIP + 2 * steps(fade) + steps(ahead) + 2


def steps(seconds: float) -> int:
    return round(seconds * 100)


def stepped_back(voice: Flags, fade: float, ahead: float) -> NDArray[np.float64]:
    """How far it has stepped back, 0..1: fully from ``ahead`` seconds before a voice to its end,

    on straight ways of ``fade`` seconds before and after that.
    """
    long = max(1, steps(fade))
    half = long // 2
    # The mean of a voice, made longer by half a fade on both sides, over one fade: a straight way.
    wide = _dilated(voice, steps(ahead) + half, half)
    sums = np.concatenate([[0], np.cumsum(wide)])
    ends = np.arange(len(voice))
    after = np.minimum(ends + half + 1, len(voice))
    before = np.maximum(ends - (long - half) + 1, 0)
    return np.asarray((sums[after] - sums[before]) / long)


def _dilated(voice: Flags, lead: int, trail: int) -> Flags:
    """True from ``lead`` steps before to ``trail`` steps after each that is."""
    marks = np.zeros(len(voice) + 1, np.int64)
    at = np.flatnonzero(voice)
    np.add.at(marks, np.maximum(at - lead, 0), 1)
    np.add.at(marks, np.minimum(at + trail + 1, len(voice)), -1)
    return np.asarray(np.cumsum(marks)[:-1] > 0)


def stretches(flags: Flags) -> list[tuple[int, int]]:
    """First steps of stretches that are true, and the steps behind them."""
    edges = np.diff(np.concatenate([[0], flags.astype(np.int8), [0]]))
    ends = (np.flatnonzero(edges == way).tolist() for way in (1, -1))
    return list(zip(*ends, strict=True))
