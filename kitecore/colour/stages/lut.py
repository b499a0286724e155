from __future__ import annotations

from kitecore.colour.cube import FindLook
from kitecore.colour.rgb import Rgb
from kitecore.colour.stages._base import stage
from kitecore.document.grade import Lut
from kitecore.motion.plain import number


@stage("lut")
def lut(rgb: Rgb, settings: Lut, find: FindLook) -> Rgb:
    """A table of colours, mixed with what comes in."""
    if not settings.look:
        return rgb
    looked = find(settings.look).apply(rgb)
    amount = number(settings.mix) / 100
    return looked if amount == 1 else rgb + (looked - rgb) * amount
