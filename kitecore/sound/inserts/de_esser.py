from __future__ import annotations

from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from kitecore.document.inserts.de_esser import DeEsser
from kitecore.sound.following import (
    GRAIN,
    followed_down,
    loudest,
    over_threshold,
    settling,
    turned_down,
)
from kitecore.sound.inserts._base import Numbers, Over, Processing, insert_sounds
from kitecore.sound.ramps import RATE, Samples

_TAPS = 255
_ATTACK, _RELEASE = 1.0, 60.0
_RATIO, _KNEE = 6.0, 6.0


@lru_cache(32)
def _sharp(frequency: float) -> NDArray[np.float32]:
    """Lets through what is above; delays nothing when centred."""
    from scipy.signal import firwin  # a second of starting, for those who need it

    return np.asarray(firwin(_TAPS, frequency, pass_zero=False, fs=RATE), np.float32)


def _high(insert: DeEsser, samples: Samples) -> Samples:
    """The part that hisses."""
    from scipy.signal import oaconvolve

    sharp = oaconvolve(samples, _sharp(insert.frequency)[:, None], mode="same", axes=0)
    return np.ascontiguousarray(sharp, np.float32)


def _less(insert: DeEsser, sharp: Samples, over: Over) -> Numbers:
    level = loudest(sharp, over.lead)
    wanted = over_threshold(level, over.grains(insert.threshold), _RATIO, _KNEE)
    return followed_down(np.minimum(wanted, over.grains(insert.most)), _ATTACK, _RELEASE)


def _softened(insert: DeEsser, samples: Samples, over: Over) -> Samples:
    sharp = _high(insert, samples)
    less = _less(insert, sharp, over)
    return np.asarray(samples - sharp + turned_down(sharp, less, over.lead))


insert_sounds.register("de_esser")(
    Processing(
        _softened,
        lambda insert: _TAPS + settling(_ATTACK, _RELEASE),
        lambda insert: _TAPS + GRAIN,
        reduction=lambda insert, samples, over: _less(insert, _high(insert, samples), over),
    )
)
