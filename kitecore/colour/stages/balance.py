from __future__ import annotations

import numpy as np

from kitecore.colour.cube import FindLook
from kitecore.colour.rgb import Rgb
from kitecore.colour.stages._base import stage
from kitecore.colour.white import adaptation
from kitecore.document.grade import Balance
from kitecore.motion.plain import number


@stage("balance", linear=True)
def balance(rgb: Rgb, settings: Balance, find: FindLook) -> Rgb:
    """Chromatic adaptation (Bradford) from the white that the settings stand for to D65."""
    matrix = adaptation(number(settings.warmth), number(settings.tint))
    return np.asarray(rgb @ matrix.T.astype(rgb.dtype))
