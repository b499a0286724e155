"""From what is said to what a mouth does: poses that last, and lips that meet."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from itertools import groupby
from typing import Final

import numpy as np
from numpy.typing import NDArray

from kitecore.document.poses import POSES
from kitecore.speech.aligning import aligned, pauses_of
from kitecore.speech.ear import RESTING, likely_poses, listened
from kitecore.speech.features import FLOOR, LOOKS, Floats, energies_of
from kitecore.speech.phonemes import lips_meet, posed_within
from kitecore.speech.reading import Reading

_NAMES: Final = tuple(POSES)
_SHORTEST: Final = 0.06
"""Seconds that a pose lasts at least, and two frames."""
_CHANGE: Final = 0.7
"""What a change of pose costs: the logarithm of how much likelier it has to make things."""
_MUST: Final = 60.0
_MET: Final = 0.3
"""How likely closed lips are where they are sure to have met."""
_ABOVE, _DEEPEST, _LEAST = 9.0, 35.0, 18.0
"""Decibels above the noise, and below the loudest, from which on something is said."""
_TOUCH: Final = 1
"""Looks that lips are together at least."""

Scores = NDArray[np.float64]


@dataclass(frozen=True)
class Posed:
    """A pose from one frame up to another, and how surely (0..1)."""

    pose: str
    begin: int
    end: int
    sure: float


def by_sound(energies: Floats, frames: int, rate: float) -> list[Posed]:
    """Poses for the frames of a film, from the sound alone.

    Parameters
    ----------
    energies
        Of the sound from the first frame on, as `energies_of` makes them.
    frames
        How many.
    rate
        Frames a second.
    """
    heard = listened(energies)
    return _posed(heard.poses, heard.poses, _touches(heard.touch), frames, rate)


def by_words(energies: Floats, reading: Reading, frames: int, rate: float) -> list[Posed]:
    """Poses for the frames of a film, from the words that are said in its sound and their reading."""
    likely, there = likely_poses(energies), laid_over(energies, reading)
    if there is None:
        return _posed(likely, likely, [], frames, rate)
    told, touches = np.zeros_like(likely), []
    told[:, RESTING] = 1
    for said in reading.said:
        begin, end = there(said.begin), there(said.end)
        if lips_meet(said.sign):
            touches.append((begin, end))
        for pose, at, to in posed_within(said.sign, begin, end):
            told[round(at) : round(to)] = 0
            told[round(at) : round(to), _NAMES.index(pose)] = 1
    told[pauses_of(energies)] = np.eye(len(_NAMES))[RESTING]
    return _posed(told, likely, touches, frames, rate)


def laid_over(energies: Floats, reading: Reading) -> Callable[[float], float] | None:
    """Where in a recording, in looks, is said what a reading says at a second.

    None if one of them says nothing.
    """
    low, high = _spoken(energies)
    read = energies_of(reading.sound, reading.rate)
    first, last = _spoken(read)
    if high - low < 2 or last - first < 2:
        return None
    places = low + aligned(read[first:last], energies[low:high])
    return lambda seconds: float(np.interp(seconds * LOOKS - first, np.arange(len(places)), places))


def _spoken(energies: Floats) -> tuple[int, int]:
    """The first look that is louder than what is heard all the while, and the one after the last."""
    if not len(energies):
        return 0, 0
    level = energies.max(axis=1)
    quiet, loud = np.percentile(level, 5), np.percentile(level, 95)
    if loud <= FLOOR + 1:
        return 0, 0
    heard = np.flatnonzero(level > np.clip(quiet + _ABOVE, loud - _DEEPEST, loud - _LEAST))
    return (int(heard[0]), int(heard[-1]) + 1) if len(heard) else (0, 0)


def _touches(touch: Floats) -> list[tuple[float, float]]:
    """Where lips meet for long enough, in looks."""
    found, at = [], 0
    for closed, run in groupby(touch > _MET):
        count = len(list(run))
        if closed and count >= _TOUCH:
            found.append((float(at), float(at + count)))
        at += count
    return found


def _posed(
    told: Floats,
    likely: Floats,
    touches: Sequence[tuple[float, float]],
    frames: int,
    rate: float,
) -> list[Posed]:
    """Runs of poses, by what is told of each look; ``likely`` says how surely they fit the sound."""
    least = max(2, round(_SHORTEST * rate))
    shares = _by_frames(told, frames, rate)
    scores = np.log(shares + 0.01)
    for begin, end in touches:
        middle = (begin + end) / 2 / LOOKS * rate
        at = min(max(round(middle - least / 2), 0), max(frames - least, 0))
        scores[at : at + least] -= _MUST
        scores[at : at + least, RESTING] += _MUST
    surely = _by_frames(likely, frames, rate)
    found, at = [], 0
    for pose, run in groupby(best_runs(scores, least)):
        end = at + len(list(run))
        found.append(Posed(_NAMES[pose], at, end, round(float(surely[at:end, pose].mean()), 3)))
        at = end
    return found


def _by_frames(looks: Floats, frames: int, rate: float) -> Scores:
    """Means over the looks of each frame; beyond the last look the mouth rests."""
    edges = np.arange(frames + 1) / rate * LOOKS
    sums = np.concatenate([np.zeros((1, len(_NAMES))), np.cumsum(looks, axis=0, dtype=np.float64)])
    rest = np.eye(len(_NAMES))[RESTING]
    places = np.arange(len(sums))
    at = np.stack([np.interp(edges, places, column) for column in sums.T], axis=1)
    at += np.clip(edges - places[-1], 0, None)[:, None] * rest
    return np.asarray(np.diff(at, axis=0) / (LOOKS / rate))


def best_runs(scores: Scores, least: int) -> list[int]:
    """The best row of choices where each lasts ``least`` places or more (all of it, if it is shorter).

    Parameters
    ----------
    scores
        Shape (places, choices): what each choice adds at each place.
    """
    count, many = scores.shape
    if count < 2 * least:
        return [int(scores.sum(axis=0).argmax())] * count if count else []
    sums = np.concatenate([np.zeros((1, many)), np.cumsum(scores, axis=0)])
    best = np.full((count + 1, many), -np.inf)
    came = np.full((count + 1, many), -1, np.int64)
    best[least] = sums[least]
    for end in range(least + 1, count + 1):
        stay = best[end - 1] + scores[end - 1]
        fresh = np.full(many, -np.inf)
        earlier = best[end - least]
        order = np.argsort(earlier)
        from_best = np.full(many, order[-1])
        from_best[order[-1]] = order[-2]
        fresh = earlier[from_best] - _CHANGE + sums[end] - sums[end - least]
        anew = fresh > stay
        best[end] = np.where(anew, fresh, stay)
        came[end] = np.where(anew, from_best, -1)
    return _back(came, int(best[count].argmax()), least)


def _back(came: NDArray[np.int64], choice: int, least: int) -> list[int]:
    """The row that led to a last choice."""
    row: list[int] = []
    end = len(came) - 1
    while end > 0:
        before = int(came[end, choice])
        if before < 0:
            row.append(choice)
            end -= 1
        else:
            row += [choice] * least
            end, choice = end - least, before
    return row[::-1]
