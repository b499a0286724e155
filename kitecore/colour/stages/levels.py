from __future__ import annotations

import numpy as np

from kitecore.colour.cube import FindLook
from kitecore.colour.rgb import Rgb, signed_power
from kitecore.colour.stages._base import stage
from kitecore.document.grade import Levels
from kitecore.motion.plain import number


@stage("levels")
def levels(rgb: Rgb, settings: Levels, find: FindLook) -> Rgb:
    """``black`` and ``white`` go to 0 and 1, each channel is multiplied, bent, and set between

    ``lowest`` and ``highest``.
    """
    black, white, low, high = (
        number(percent) / 100
        for percent in (settings.black, settings.white, settings.lowest, settings.highest)
    )
    gains = np.array(
        [number(settings.red), number(settings.green), number(settings.blue)], rgb.dtype
    )
    spread = (rgb - black) / max(white - black, 1e-3) * gains
    gamma = max(number(settings.gamma), 0.05)
    bent = spread if gamma == 1 else signed_power(spread, 1 / gamma)
    return np.asarray(low + bent * (high - low))
