from __future__ import annotations

from kitecore.document.strokes import LightStroke
from kitecore.picture.effects.exposure import exposed
from kitecore.picture.layer import Rgba
from kitecore.picture.retouch._base import Spot, retouches


@retouches.register("light_stroke")
def light(stroke: LightStroke, spot: Spot) -> Rgba:
    return exposed(spot.pixels, stroke.stops)
