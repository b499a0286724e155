from __future__ import annotations

import numpy as np

from kitecore.colour.cube import FindLook
from kitecore.colour.rgb import Rgb, luma
from kitecore.colour.stages._base import stage
from kitecore.document.grade import Cdl
from kitecore.motion.plain import number


@stage("cdl")
def cdl(rgb: Rgb, settings: Cdl, find: FindLook) -> Rgb:
    """ASC Color Decision List, release 1.2: slope, offset, clamp, power, saturation, clamp."""
    slope, offset, power = (
        np.array(triple, rgb.dtype) for triple in (settings.slope, settings.offset, settings.power)
    )
    bent = np.clip(rgb * slope + offset, 0, 1) ** power
    grey = luma(bent)[..., None]
    return np.asarray(np.clip(grey + number(settings.saturation) * (bent - grey), 0, 1))
