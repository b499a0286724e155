"""Whose turn it is to speak, told by how strong several microphones hear the same words."""

from __future__ import annotations

from typing import Final

import numpy as np
from numpy.typing import NDArray

from kitecore.sound.stepping import Flags, steps

BIN: Final = 10
"""Steps that are looked at as one."""
_AROUND: Final = 3
"""Bins over which a level is taken: of a syllable and what is around it."""
_COST: Final = 80.0
"""Decibels times bins that a turn has to tell to be one: of 10 dB over 0.8 s."""
_FLOOR: Final = 1e-10
"""Mean square below which nothing is told apart."""
_ALIKE: Final = 1.5
"""Decibels: where microphones tell less, all hear everybody alike."""
_CLOSE: Final = 4
"""Bins by which the last syllable before a pause may mislead."""
_LEAD: Final = steps(0.2)
"""Steps by which a turn begins before its first word."""

Powers = NDArray[np.float64]


def turns_of(powers: Powers, spoken: Flags) -> list[tuple[int, int]]:
    """First steps of turns and the microphone that hears each best; none where all hear alike.

    A microphone is held against its own mean and against what all hear at that time, so neither its
    gain nor a raised voice matters. Which is nearest is the cheapest way through all words (Viterbi):
    to change costs as much as a short turn tells.

    Parameters
    ----------
    powers
        Mean squares, shape (microphones, steps of 10 ms).
    spoken
        Whether anybody speaks, for each step.
    """
    count = len(spoken) // BIN
    said = spoken[: count * BIN].reshape(count, BIN).mean(axis=1) >= 0.5
    bins = np.flatnonzero(said)
    if len(powers) < 2 or not len(bins):
        return []
    from scipy.ndimage import uniform_filter1d  # slow to load

    means = powers[:, : count * BIN].reshape(len(powers), count, BIN).mean(axis=2)[:, bins]
    levels = 10 * np.log10(uniform_filter1d(means, _AROUND, axis=1, mode="nearest") + _FLOOR)
    nearer = levels - levels.mean(axis=0)
    nearer -= nearer.mean(axis=1, keepdims=True)
    if nearer.std(axis=1).max() < _ALIKE:
        return []
    path = _cheapest(nearer)
    firsts = np.flatnonzero(np.diff(path, prepend=-1))
    pauses = np.flatnonzero(np.diff(bins) > 1) + 1
    return [
        (_begin(spoken, bins, _at_pause(first, pauses)), int(path[first]))
        for first in firsts.tolist()
    ]


def _at_pause(first: int, pauses: NDArray[np.int64]) -> int:
    """The bin after a pause that is close, since turns change there; else the same one."""
    if not first or not len(pauses):
        return first
    close = int(pauses[np.abs(pauses - first).argmin()])
    return close if abs(close - first) <= _CLOSE else first


def _cheapest(nearer: Powers) -> NDArray[np.int64]:
    """The microphone of each bin, so that what they tell, less what changes cost, is most."""
    count = nearer.shape[1]
    came = np.empty((count, len(nearer)), np.int64)
    best, stay = nearer[:, 0].copy(), np.arange(len(nearer))
    for at in range(1, count):
        leader = int(best.argmax())
        changes = best[leader] - _COST > best
        came[at] = np.where(changes, leader, stay)
        best = np.where(changes, best[leader] - _COST, best) + nearer[:, at]
    path = np.empty(count, np.int64)
    path[-1] = best.argmax()
    for at in range(count - 1, 0, -1):
        path[at - 1] = came[at, path[at]]
    return path


def _begin(spoken: Flags, bins: NDArray[np.int64], first: int) -> int:
    """A little before its first word, but not before the last one of another."""
    if not first:
        return 0
    begin = int(bins[first]) * BIN
    ended = (int(bins[first - 1]) + 1) * BIN
    words = np.flatnonzero(spoken[ended : begin + BIN])
    return max(ended, ended + int(words[0]) - _LEAD) if len(words) else begin
