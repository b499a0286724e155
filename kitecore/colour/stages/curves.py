from __future__ import annotations

import numpy as np

from kitecore.colour.cube import FindLook
from kitecore.colour.rgb import Rgb, chroma, from_chroma, hue_of, luma
from kitecore.colour.stages._base import stage
from kitecore.document.grade import Curves
from kitecore.motion.curve import around, curve_at
from kitecore.motion.plain import points

MOST_TURN = 1 / 3
"""Share of the circle by which the ends of the hue curve turn a hue."""

_PLAIN = Curves()


@stage("curves")
def curves(rgb: Rgb, settings: Curves, find: FindLook) -> Rgb:
    """Luma first (added to all channels, so that hues stay), then channels, then hues."""
    if settings.luma != _PLAIN.luma:
        y = luma(rgb)
        rgb = rgb + (curve_at(points(settings.luma), y) - y)[..., None]
    channels = (settings.red, settings.green, settings.blue)
    if any(curve != _PLAIN.red for curve in channels):
        bent = [curve_at(points(curve), rgb[..., at]) for at, curve in enumerate(channels)]
        rgb = np.stack(bent, axis=-1)
    if (settings.hue_to_hue, settings.hue_to_saturation) == (
        _PLAIN.hue_to_hue,
        _PLAIN.hue_to_saturation,
    ):
        return rgb
    return _by_hue(rgb, settings)


def _by_hue(rgb: Rgb, settings: Curves) -> Rgb:
    """Hue curves, with luma kept: 0 and 1 turn back and on, and take away or double colour."""
    y, cb, cr = chroma(rgb)
    hue = hue_of(cb, cr)
    turn = (around(points(settings.hue_to_hue), hue) - 0.5) * (4 * np.pi * MOST_TURN)
    strong = np.maximum(around(points(settings.hue_to_saturation), hue) * 2, 0)
    cos, sin = np.cos(turn) * strong, np.sin(turn) * strong
    return from_chroma(y, cb * cos - cr * sin, cb * sin + cr * cos)
