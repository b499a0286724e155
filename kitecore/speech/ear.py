"""What pose a mouth has, from the sound alone.

A small network (one hidden layer) looks at the sound around each hundredth of a second. It was taught by
``tools/make_ear.py`` with speech made by a machine in many voices, whose sounds are known.
"""

from __future__ import annotations

from functools import cache
from pathlib import Path
from typing import Final

import numpy as np

from kitecore.document.poses import POSES, REST
from kitecore.speech.features import FLOOR, Floats, features_of

WEIGHTS: Final = Path(__file__).with_name("ear.npz")
AROUND: Final = (-16, -11, -7, -4, -2, -1, 0, 1, 2, 4, 7, 11, 16)
"""Looks before and after that are looked at, too."""


def context_of(features: Floats) -> Floats:
    """Features with those around them side by side; at the ends the last ones go on."""
    looks = np.arange(len(features))
    columns = [features[np.clip(looks + by, 0, len(features) - 1)] for by in AROUND]
    return np.concatenate(columns, axis=1)


@cache
def _weights() -> tuple[Floats, ...]:
    with np.load(WEIGHTS) as kept:
        return tuple(kept[name].astype(np.float32) for name in ("w1", "b1", "w2", "b2"))


def likely_poses(energies: Floats) -> Floats:
    """How likely each pose of `POSES` is at each look: shape (looks, poses), sums are 1.

    Where there is no sound at all it rests.
    """
    if not len(energies):
        return np.zeros((0, len(POSES)), np.float32)
    w1, b1, w2, b2 = _weights()
    hidden = np.maximum(context_of(features_of(energies)) @ w1 + b1, 0)
    likely = softened(hidden @ w2 + b2)
    likely[(energies <= FLOOR + 1).all(axis=1)] = np.eye(len(POSES))[list(POSES).index(REST)]
    return likely


def softened(scores: Floats) -> Floats:
    """Shares from scores (softmax)."""
    grown = np.exp(scores - scores.max(axis=1, keepdims=True))
    return np.asarray(grown / grown.sum(axis=1, keepdims=True))
