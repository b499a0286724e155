from __future__ import annotations

from typing import Final

from kitecore.document.strokes import HealStroke, StrokeBase
from kitecore.picture.layer import Rgba
from kitecore.picture.outline import Grid
from kitecore.picture.retouch._base import Spot, retouches, rims
from kitecore.picture.retouch.membrane import in_light

_AROUND: Final = 0.15
"""Share of a stroke's width around it from which the light is taken."""


@retouches.register("heal_stroke")
def heal(stroke: HealStroke, spot: Spot) -> Rgba:
    return in_light(spot.pixels, spot.source, spot.taken)


def around(stroke: StrokeBase, grid: Grid) -> float:
    return _AROUND * stroke.width * grid.height


rims.register("heal_stroke")(around)
