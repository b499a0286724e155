from __future__ import annotations

import math
from typing import Final

from kitecore.document.effects.hold import FASTEST, SLOWEST, Hold
from kitecore.document.properties import Keys
from kitecore.motion.running import run_by, when_run
from kitecore.picture.effects._base import At, bounded, timed_drawings
from kitecore.picture.layer import Layer
from kitecore.ticks import TICKS_PER_SECOND, Span

_NEAR: Final = 1e-6
"""Of a picture: what a moment may lack to count as that of the next."""


@timed_drawings.register("hold")
def hold(layer: Layer, effect: Hold, tick: int, at: At) -> Layer:
    """The layer as it was at the last of the moments that are shown, and where it was."""
    return at(held_since(effect, tick), 0)


def held_since(effect: Hold, tick: int) -> int:
    """When the picture that is seen at a tick came; ticks count from the start of the clip."""
    rate, since = effect.rate, effect.since
    if not isinstance(rate, Keys):
        rate = bounded(rate, SLOWEST, FASTEST)
        number = math.floor((tick - since) * rate / TICKS_PER_SECOND + _NEAR)
        return since + round(number * TICKS_PER_SECOND / rate)
    number = math.floor(run_by(rate, since, tick) + _NEAR)
    return when_run(rate, since, number - _NEAR, Span(tick - effect.looks_back, tick))
