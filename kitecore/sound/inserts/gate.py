from __future__ import annotations

import numpy as np

from kitecore.document.inserts.gate import Gate
from kitecore.sound.following import (
    GRAIN,
    followed_down,
    grains_of,
    loudest,
    settling,
    turned_down,
)
from kitecore.sound.inserts._base import Numbers, Over, Processing, insert_sounds
from kitecore.sound.ramps import Samples, gains_of

_WAVE = 20.0
"""Milliseconds within which even a low wave is once at its height."""


def _ahead(insert: Gate) -> int:
    """Grains by which it opens before the sound comes: as long as that takes."""
    return grains_of(insert.attack) + 1


def _held(insert: Gate) -> int:
    return grains_of(insert.hold + _WAVE)


def _reduction(insert: Gate, samples: Samples, over: Over) -> Numbers:
    from scipy.ndimage import maximum_filter1d  # slow to load

    ahead, held = _ahead(insert), _held(insert)
    # The loudest from `held` grains ago to `ahead` grains from now.
    level = maximum_filter1d(
        loudest(samples, over.lead),
        ahead + held + 1,
        origin=(held - ahead) // 2,
        mode="nearest",
    )
    depth = over.grains(insert.depth)
    # It closes slowly and opens fast: what is followed is how far it is open.
    wanted = np.where(level < gains_of(over.grains(insert.threshold)), 0.0, depth)
    opened = followed_down(wanted, insert.attack, insert.release)
    return np.asarray(depth - opened)


def _gated(insert: Gate, samples: Samples, over: Over) -> Samples:
    return turned_down(samples, _reduction(insert, samples, over), over.lead)


insert_sounds.register("gate")(
    Processing(
        _gated,
        lambda insert: (_held(insert) + 2) * GRAIN + settling(insert.attack, insert.release),
        lambda insert: (_ahead(insert) + 2) * GRAIN,
        reduction=_reduction,
    )
)
