from __future__ import annotations

from kitecore.document.strokes import FillStroke
from kitecore.picture.layer import Rgba
from kitecore.picture.retouch._base import Spot, retouches, rims
from kitecore.picture.retouch.heal import around
from kitecore.picture.retouch.membrane import in_light


@retouches.register("fill_stroke")
def fill(stroke: FillStroke, spot: Spot) -> Rgba:
    """What closes the hole, in the light of this moment."""
    return spot.pixels if spot.patch is None else in_light(spot.pixels, spot.patch, spot.taken)


rims.register("fill_stroke")(around)
