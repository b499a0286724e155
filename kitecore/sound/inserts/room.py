from __future__ import annotations

from functools import lru_cache

import numpy as np

from kitecore.document.inserts.room import RoomSound
from kitecore.sound import biquad
from kitecore.sound.inserts._base import Over, Processing, insert_sounds
from kitecore.sound.ramps import RATE, Samples

_DEEP = 72.0
"""dB by which the walls have died away when they are cut off."""
_BRIGHT_FROM = 2500.0


def _length(insert: RoomSound) -> int:
    return int((insert.ahead / 1000 + insert.seconds * _DEEP / 60) * RATE) + 1


@lru_cache(8)
def _walls(seconds: float, ahead: float, dull: float) -> Samples:
    """What comes back of a click: noise that dies away, its high part sooner; energy 1 a side.

    Reference: J. A. Moorer, About this reverberation business, Computer Music Journal 3 (1979).
    """
    count = int(seconds * _DEEP / 60 * RATE)
    noise = np.random.default_rng(7).standard_normal((count, 2)).astype(np.float32)
    low = biquad.filtered(noise, [biquad.low_pass(np.array([_BRIGHT_FROM]))], count, 0)
    time = np.arange(count)[:, None] / RATE
    fall = np.log(1000.0) / seconds
    sooner = fall / (1 - 0.85 * dull / 100)
    walls = low * np.exp(-fall * time) + (noise - low) * np.exp(-sooner * time)
    walls /= np.sqrt(np.square(walls).sum(axis=0))
    return np.vstack([np.zeros((int(ahead / 1000 * RATE), 2)), walls]).astype(np.float32)


def _in_a_room(insert: RoomSound, samples: Samples, over: Over) -> Samples:
    walls = _walls(insert.seconds, insert.ahead, insert.dull)
    from scipy.signal import oaconvolve  # a second of starting, for those who need it

    back = oaconvolve(samples, walls, axes=0)[: len(samples)]
    angle = np.asarray(over.each(insert.mix)) / 100 * np.pi / 2
    dry, wet = np.cos(angle), np.sin(angle)
    if angle.ndim:
        dry, wet = dry[:, None], wet[:, None]
    return np.asarray(samples * dry + back * wet, np.float32)


insert_sounds.register("room")(Processing(_in_a_room, _length, idle=lambda insert: insert.mix == 0))
