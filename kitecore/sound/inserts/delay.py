from __future__ import annotations

from collections.abc import Iterator

import numpy as np

from kitecore.document.inserts.delay import Delay
from kitecore.sound.inserts._base import Over, Processing, insert_sounds
from kitecore.sound.ramps import RATE, Samples

_FAINT = 1e-4
"""Level at which no further one is heard."""
_MOST = 80


def _levels(insert: Delay) -> Iterator[float]:
    level = 1.0
    for _ in range(_MOST):
        yield level
        level *= insert.again / 100
        if level < _FAINT:
            return


def _step(insert: Delay) -> int:
    return max(1, round(insert.seconds * RATE))


def _again(insert: Delay, samples: Samples, over: Over) -> Samples:
    back = np.zeros_like(samples)
    for number, level in enumerate(_levels(insert), 1):
        off = number * _step(insert)
        if off >= len(samples):
            break
        turned = insert.across and number % 2 == 1
        come = samples[: len(samples) - off]
        back[off:] += (come[:, ::-1] if turned else come) * np.float32(level)
    mix = np.asarray(over.each(insert.mix)) / 100
    return np.asarray(samples + back * (mix[:, None] if mix.ndim else mix), np.float32)


insert_sounds.register("delay")(
    Processing(
        _again,
        lambda insert: sum(1 for _ in _levels(insert)) * _step(insert),
        idle=lambda insert: insert.mix == 0,
    )
)
