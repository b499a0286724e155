from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from kitecore.document.effects.ripple import Ripple
from kitecore.motion.plain import number, pair
from kitecore.motion.running import run_by
from kitecore.picture.effects._base import effect_drawings, length_of
from kitecore.picture.effects._bending import Maps, bent, distances, middle_of, radial
from kitecore.picture.layer import Layer
from kitecore.ticks import TICKS_PER_SECOND

_EASED = 0.5
"""Rings over which the first and the last of them grow and fade."""


@effect_drawings.register("ripple")
def ripple(layer: Layer, effect: Ripple, tick: int) -> Layer:
    """Rings around a point move the picture outwards and inwards by a sine over the distance."""
    height = _height(layer, effect, tick)
    if abs(height) < 0.02:
        return layer
    spot = pair(effect.centre)

    def whence(grown: Layer) -> Maps:
        centre = middle_of(grown, spot)
        far = distances(grown, centre)
        shift = height * shape_of(effect, far / grown.density, tick)
        factors = 1 - shift / np.maximum(far, 0.5)
        return radial(grown, centre, np.asarray(factors, np.float32))

    return bent(layer, effect, abs(height), whence)


def shape_of(effect: Ripple, far: NDArray[np.float32], tick: int) -> NDArray[np.float32]:
    """-1..1 for each distance in canvas pixels: how far a ring moves the picture outwards there."""
    seconds = (tick - effect.since) / TICKS_PER_SECOND
    width = max(number(effect.width), 1.0)
    # Rings that have passed a distance.
    passed = (run_by(effect.speed, effect.since, tick) - far) / width
    if effect.speed == 0:
        passed = seconds - far / width + 1e4
    shown = _smooth(passed / _EASED)
    rings = number(effect.rings)
    if rings > 0:
        shown = shown * _smooth((rings - passed) / _EASED)
    near = np.minimum(far / (width / 4), 1)
    within = np.clip(1 - far / max(number(effect.reach), 1.0), 0, 1)
    return np.asarray(np.sin(2 * np.pi * passed) * shown * near * np.sqrt(within), np.float32)


def _height(layer: Layer, effect: Ripple, tick: int) -> float:
    half = number(effect.fading)
    seconds = max(0.0, (tick - effect.since) / TICKS_PER_SECOND)
    return length_of(effect.height, layer) * (0.5 ** min(seconds / half, 60.0) if half > 0 else 1)


def _smooth(share: NDArray[np.float32]) -> NDArray[np.float32]:
    kept = np.clip(share, 0, 1)
    return np.asarray(kept * kept * (3 - 2 * kept))
