from __future__ import annotations

import numpy as np

from kitecore.colour.cube import FindLook
from kitecore.colour.rgb import Array, Rgb, from_chroma, signed_power
from kitecore.colour.stages._base import stage
from kitecore.document.grade import Wheel, Wheels
from kitecore.motion.plain import number, pair

REACH = 0.25
"""Colour difference at the rim of a wheel."""


def offsets(wheel: Wheel) -> Array:
    """What a wheel adds to red, green and blue: its push has no luma, its level is all luma."""
    cb, cr = pair(wheel.push)
    push = from_chroma(np.zeros(()), np.array(cb * REACH), np.array(cr * REACH))
    return np.asarray(push + number(wheel.level) / 200)


@stage("wheels")
def wheels(rgb: Rgb, settings: Wheels, find: FindLook) -> Rgb:
    """``(x · gain + lift · (1 - x)) ^ (1 / gamma)``: lift leaves white where it is, gain black."""
    lift, gain = offsets(settings.lift), 1 + 2 * offsets(settings.gain)
    gamma = 2.0 ** (2 * offsets(settings.gamma))
    moved = rgb * gain.astype(rgb.dtype) + lift.astype(rgb.dtype) * (1 - rgb)
    if settings.gamma == Wheel():
        return np.asarray(moved)
    return signed_power(moved, (1 / gamma).astype(rgb.dtype))
