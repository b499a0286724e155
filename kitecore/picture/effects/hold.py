from __future__ import annotations

import math

from kitecore.document.effects.hold import Hold
from kitecore.picture.effects._base import At, timed_drawings
from kitecore.picture.layer import Layer
from kitecore.ticks import TICKS_PER_SECOND


@timed_drawings.register("hold")
def hold(layer: Layer, effect: Hold, tick: int, at: At) -> Layer:
    """The layer as it was at the last of the moments that are shown, and where it was."""
    return at(held_since(effect, tick), 0)


def held_since(effect: Hold, tick: int) -> int:
    """When the picture that is seen at a tick came; ticks count from the start of the clip."""
    number = math.floor((tick - effect.since) * effect.rate / TICKS_PER_SECOND + 1e-6)
    return effect.since + round(number * TICKS_PER_SECOND / effect.rate)
