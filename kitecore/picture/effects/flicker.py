from __future__ import annotations

from dataclasses import replace

import cv2
import numpy as np

from kitecore.document.effects.flicker import Flicker
from kitecore.motion.noise import wave
from kitecore.motion.running import run_by
from kitecore.picture.effects._base import bounded, effect_drawings, effect_reaches
from kitecore.picture.layer import Layer


@effect_drawings.register("flicker")
def flicker(layer: Layer, effect: Flicker, tick: int) -> Layer:
    share = 1 - bounded(effect.strength, 0.0, 1.0) * lost_at(effect, tick)
    gains = (share, share, share, share if effect.what == "opacity" else 1.0)
    return replace(layer, pixels=np.asarray(cv2.multiply(layer.pixels, gains)))


@effect_reaches.register("flicker")
def reach(layer: Layer, effect: Flicker) -> float:
    return 0


def lost_at(effect: Flicker, tick: int) -> float:
    """Share of the strength that is lost at a tick: 0..1, on average a half."""
    return (wave(run_by(effect.rate, effect.since, tick), effect.seed) + 1) / 2
