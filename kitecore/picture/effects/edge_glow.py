from __future__ import annotations

from dataclasses import replace

import cv2
import numpy as np

from kitecore.arrays import Coverage
from kitecore.document.effects.edge_glow import EdgeGlow
from kitecore.motion.plain import colour, number
from kitecore.oklab import rgb_of
from kitecore.picture.effects._base import bounded, effect_drawings, length_of
from kitecore.picture.effects._lighting import with_light
from kitecore.picture.layer import Layer
from kitecore.picture.softening import softened

_SEEN = 1.5
"""Canvas pixels over which a line is looked for."""
_STEEP = 0.25
"""Levels, of 1, to a canvas pixel that count as a whole line."""


@effect_drawings.register("edge_glow")
def edge_glow(layer: Layer, effect: EdgeGlow, tick: int) -> Layer:
    """Light where colours change, and around it; added to the picture."""
    strength = bounded(effect.strength, 0.0, 100.0)
    rest = bounded(effect.rest, 0.0, 1.0)
    width = max(0.0, length_of(effect.width, layer, 400))
    lines = softened(lines_of(layer, number(effect.threshold) / 100), width / 2)
    # What is wide is spread thin; as bright as it was, it is wide and bright.
    light = lines.astype(np.float32) * np.float32(strength * (1 + width / 4 / layer.density))
    tint = [level / 255 for level in rgb_of(colour(effect.colour))]
    return replace(layer, pixels=with_light(layer.pixels, light, tint, rest))


def lines_of(layer: Layer, threshold: float) -> Coverage:
    """0..255: how steeply the picture's light changes, to a pixel of the canvas."""
    grey = cv2.cvtColor(layer.pixels, cv2.COLOR_RGBA2GRAY)
    grey = softened(grey, _SEEN * layer.density).astype(np.float32)
    across, down = (cv2.Sobel(grey, cv2.CV_32F, *way, scale=1 / 8) for way in ((1, 0), (0, 1)))
    steep = cv2.magnitude(across, down) * np.float32(layer.density / 255 / _STEEP)
    share = np.clip((steep - threshold) / max(1 - threshold, 1e-3), 0, 1)
    return np.asarray(np.rint(share * 255), np.uint8)
