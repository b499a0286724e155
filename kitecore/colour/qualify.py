"""Which colours a zone means: by brightness, by hue."""

from __future__ import annotations

import numpy as np

from kitecore.colour.rgb import Array, Rgb, chroma
from kitecore.document import Zone
from kitecore.document.grade import BrightnessRange, HueRange
from kitecore.motion.plain import number


def matte_of(rgb: Rgb, zone: Zone) -> Array:
    """0..1 for each colour, shape (...): how far the zone's ranges mean it.

    Not turned round: where there are masks that is done for both together.
    """
    y, cb, cr = chroma(np.clip(rgb, 0, 1))
    matte = np.ones_like(y)
    if zone.brightness is not None and zone.brightness.on:
        matte = matte * _brightness(y, zone.brightness)
    if zone.hues is not None and zone.hues.on:
        matte = matte * _hues(cb, cr, zone.hues)
    return matte


def smooth(x: Array) -> Array:
    """0 up to 0, 1 from 1 on, with soft turns between (smoothstep)."""
    x = np.clip(x, 0, 1)
    return np.asarray(x * x * (3 - 2 * x))


def _brightness(y: Array, wanted: BrightnessRange) -> Array:
    low, high = number(wanted.low) / 100, number(wanted.high) / 100
    soft = max(number(wanted.softness) / 100, 1e-4)
    return smooth((y - low) / soft + 1) * smooth((high - y) / soft + 1)


def _hues(cb: Array, cr: Array, wanted: HueRange) -> Array:
    angle = np.degrees(np.arctan2(cr, cb))
    away = np.abs((angle - number(wanted.middle) + 180) % 360 - 180)
    soft = max(number(wanted.softness), 0.1)
    near = smooth((number(wanted.width) / 2 - away) / soft + 1)
    weakest = number(wanted.weakest) / 100
    if weakest <= 0:
        return near
    # Colour difference reaches 0.5; half of ``weakest`` is where it begins to count.
    strong = smooth((np.hypot(cb, cr) * 2 - weakest / 2) / (weakest / 2))
    return near * strong
