from __future__ import annotations

import numpy as np
from scipy.ndimage import maximum_filter1d

from kitecore.document.inserts.gate import Gate
from kitecore.sound.following import followed_down, level_db, settling
from kitecore.sound.inserts._base import Over, Processing, insert_sounds
from kitecore.sound.ramps import RATE, Samples

_WAVE = RATE // 50
"""Samples within which even a low wave is once at its height."""


def _ahead(insert: Gate) -> int:
    """It opens before the sound comes, by as long as that takes."""
    return int(insert.attack / 1000 * RATE)


def _held(insert: Gate) -> int:
    return int(insert.hold / 1000 * RATE) + _WAVE


def _gated(insert: Gate, samples: Samples, over: Over) -> Samples:
    ahead, held = _ahead(insert), _held(insert)
    size = ahead + held + 1
    # The loudest from `held` samples ago to `ahead` samples from now.
    loudest = maximum_filter1d(level_db(samples), size, origin=(held - ahead) // 2, mode="nearest")
    depth = over.each(insert.depth)
    closed = np.where(loudest < over.each(insert.threshold), depth, 0.0)
    # It closes slowly and opens fast: what is followed is how far it is open.
    opened = followed_down(depth - closed, insert.attack, insert.release)
    return samples * np.power(10.0, (opened - depth) / 20).astype(np.float32)[:, None]


insert_sounds.register("gate")(
    Processing(
        _gated,
        lambda insert: _held(insert) + settling(insert.attack, insert.release) + 2,
        lambda insert: _ahead(insert) + 2,
    )
)
