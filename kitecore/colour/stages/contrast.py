from __future__ import annotations

import numpy as np

from kitecore.colour.cube import FindLook
from kitecore.colour.rgb import Array, Rgb, luma
from kitecore.colour.stages._base import stage
from kitecore.document.grade import Contrast
from kitecore.motion.plain import number

_ENDS, _PARTS = 0.15, 0.12
"""How far blacks and whites, and shadows and highlights, go at 100. Chosen so that no mixture of

them makes something darker brighter than what was brighter before.
"""

_PEAK = (1 / 3) ** 2 * (2 / 3) ** 4


def tones(y: Array, settings: Contrast) -> Array:
    """What the four tone sliders add at luma ``y``."""
    y = np.clip(y, 0, 1)
    dark = 1 - y
    blacks, shadows, highlights, whites = (
        number(value) / 100
        for value in (settings.blacks, settings.shadows, settings.highlights, settings.whites)
    )
    ends = _ENDS * (blacks * dark**4 + whites * y**4)
    parts = shadows * y**2 * dark**4 + highlights * dark**2 * y**4
    return np.asarray(ends + _PARTS / _PEAK * parts)


@stage("contrast")
def contrast(rgb: Rgb, settings: Contrast, find: FindLook) -> Rgb:
    """Each channel away from the pivot or towards it; tones by luma, so that hues stay."""
    pivot = number(settings.pivot) / 100
    factor = 2.0 ** (number(settings.contrast) / 100)
    steep = pivot + (rgb - pivot) * factor if factor != 1 else rgb
    if not any((settings.blacks, settings.shadows, settings.highlights, settings.whites)):
        return np.asarray(steep)
    return np.asarray(steep + tones(luma(steep), settings)[..., None])
