from __future__ import annotations

import numpy as np

from kitecore.colour.cube import FindLook
from kitecore.colour.rgb import Rgb
from kitecore.colour.stages._base import stage
from kitecore.document.grade import Match
from kitecore.motion.plain import number
from kitecore.oklab import from_lab, to_lab

MOST_STRETCH = 2.0


@stage("match", linear=True)
def match(rgb: Rgb, settings: Match, find: FindLook) -> Rgb:
    """Mean and spread of each axis carried over (Reinhard et al., "Color transfer between

    images", 2001; here in OKLab), spreads at most doubled or halved; after gains of the channels.
    """
    lab = to_lab(rgb)
    gained = to_lab(rgb * np.array(settings.gains, rgb.dtype))
    own, wanted = np.array(settings.own_mean), np.array(settings.wanted_mean)
    ratio = np.array(settings.wanted_spread) / np.maximum(settings.own_spread, 1e-4)
    ratio = np.clip(ratio, 1 / MOST_STRETCH, MOST_STRETCH)
    amount = number(settings.amount) / 100
    moved = (gained - own.astype(rgb.dtype)) * ratio.astype(rgb.dtype) + wanted.astype(rgb.dtype)
    return from_lab(lab + (moved - lab) * amount)
