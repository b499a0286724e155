"""What pose a mouth has, from the sound alone.

A small network (one hidden layer) looks at the sound around each hundredth of a second. It was taught by
``tools/make_ear.py`` with speech made by a machine in many voices, whose sounds are known.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import cache
from pathlib import Path
from typing import Final

import numpy as np

from kitecore.document.poses import POSES, REST
from kitecore.speech.features import FLOOR, Floats, features_of

WEIGHTS: Final = Path(__file__).with_name("ear.npz")
AROUND: Final = (-16, -11, -7, -4, -2, -1, 0, 1, 2, 4, 7, 11, 16)
"""Looks before and after that are looked at, too."""


RESTING: Final = list(POSES).index(REST)


def context_of(features: Floats) -> Floats:
    """Features with those around them side by side; at the ends the last ones go on."""
    looks = np.arange(len(features))
    columns = [features[np.clip(looks + by, 0, len(features) - 1)] for by in AROUND]
    return np.concatenate(columns, axis=1)


@dataclass(frozen=True)
class Likely:
    """How likely each pose of `POSES` is at each look: shape (looks, poses), sums are 1; and how likely

    lips meet there as for m, b and p, a part of the first.
    """

    poses: Floats
    touch: Floats


@cache
def _weights() -> tuple[Floats, ...]:
    with np.load(WEIGHTS) as kept:
        return tuple(kept[name].astype(np.float32) for name in ("w1", "b1", "w2", "b2"))


def listened(energies: Floats) -> Likely:
    """What is told of each look by the sound around it. Where there is no sound at all it rests."""
    many = len(POSES)
    if not len(energies):
        return Likely(np.zeros((0, many), np.float32), np.zeros(0, np.float32))
    w1, b1, w2, b2 = _weights()
    hidden = np.maximum(context_of(features_of(energies)) @ w1 + b1, 0)
    likely = softened(hidden @ w2 + b2)
    poses, touch = likely[:, :many].copy(), likely[:, many].copy()
    poses[:, RESTING] += touch
    silent = (energies <= FLOOR + 1).all(axis=1)
    poses[silent], touch[silent] = np.eye(many)[RESTING], 0
    return Likely(poses, touch)


def likely_poses(energies: Floats) -> Floats:
    """How likely each pose is at each look (see `Likely`)."""
    return listened(energies).poses


def softened(scores: Floats) -> Floats:
    """Shares from scores (softmax)."""
    grown = np.exp(scores - scores.max(axis=1, keepdims=True))
    return np.asarray(grown / grown.sum(axis=1, keepdims=True))
