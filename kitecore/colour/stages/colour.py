from __future__ import annotations

import math

import numpy as np

from kitecore.colour.cube import FindLook
from kitecore.colour.rgb import Rgb, chroma, from_chroma
from kitecore.colour.stages._base import stage
from kitecore.document.grade import Colour
from kitecore.motion.plain import number

FULL = 0.35
"""Distance from neutral, in colour difference, from which vibrance leaves a colour alone."""


@stage("colour")
def colour(rgb: Rgb, settings: Colour, find: FindLook) -> Rgb:
    """Saturation, then vibrance, then hue; luma is kept by all three."""
    y, cb, cr = chroma(rgb)
    factor: Rgb | float = 1 + number(settings.saturation) / 100
    vibrance = number(settings.vibrance) / 100
    if vibrance:
        room = np.clip(1 - np.hypot(cb, cr) * factor / FULL, 0, 1)
        factor = factor * (1 + vibrance * room * room)
    turn = math.radians(number(settings.hue))
    cos, sin = math.cos(turn) * factor, math.sin(turn) * factor
    return from_chroma(y, cb * cos - cr * sin, cb * sin + cr * cos)
