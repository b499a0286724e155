"""Motions that go on all the time."""

from __future__ import annotations

import math
from collections.abc import Callable
from typing import Final

from kitecore.document.moves import Meanwhile
from kitecore.document.properties import Vector
from kitecore.motion.noise import wave
from kitecore.motion.pose import Away
from kitecore.motion.value import value_at
from kitecore.registry import Registry
from kitecore.ticks import TICKS_PER_SECOND

Motion = Callable[[Meanwhile, float, float, Vector], Away]
"""``motion(one, turns, strength, canvas)``; ``turns`` counts how often it went round so far."""
meanwhiles: Registry[Motion] = Registry("motion that goes on")

SWAY: Final = 6.0
"""Degrees to either side at strength 1."""
FLOAT: Final = 0.012
"""Of the canvas's height, up and down."""
PULSE: Final = 0.06
_GOLDEN: Final = (math.sqrt(5) - 1) / 2


def go_on(one: Meanwhile, tick: int, canvas: Vector) -> Away:
    """What a motion does at a tick of its clip."""
    turns = (tick - one.since) / TICKS_PER_SECOND * one.rate
    strength = max(value_at(one.strength, tick), 0.0)
    return meanwhiles[one.kind](one, turns, strength, canvas)


def swing(one: Meanwhile, turns: float) -> float:
    """A sine, -1..1, which begins at 0 for the first pattern and elsewhere for others."""
    return math.sin(math.tau * (turns + (one.seed - 1) * _GOLDEN))


@meanwhiles.register("sway")
def sway(one: Meanwhile, turns: float, strength: float, canvas: Vector) -> Away:
    return Away(turn=SWAY * strength * swing(one, turns))


@meanwhiles.register("float")
def afloat(one: Meanwhile, turns: float, strength: float, canvas: Vector) -> Away:
    return Away(shift=(0.0, FLOAT * canvas[1] * strength * swing(one, turns)))


@meanwhiles.register("pulse")
def pulse(one: Meanwhile, turns: float, strength: float, canvas: Vector) -> Away:
    factor = max(0.0, 1 + PULSE * strength * swing(one, turns))
    return Away(size=(factor, factor))


@meanwhiles.register("flicker")
def flicker(one: Meanwhile, turns: float, strength: float, canvas: Vector) -> Away:
    lost = (wave(turns, one.seed) + 1) / 2 * min(strength, 1.0)
    return Away(opacity=1 - lost)
