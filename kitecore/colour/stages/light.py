from __future__ import annotations

import numpy as np

from kitecore.colour.cube import FindLook
from kitecore.colour.rgb import Rgb
from kitecore.colour.stages._base import stage
from kitecore.document.grade import Light
from kitecore.motion.plain import number


@stage("light", linear=True)
def light(rgb: Rgb, settings: Light, find: FindLook) -> Rgb:
    """Twice the light for every stop."""
    return np.asarray(rgb * 2.0 ** number(settings.exposure))
