from __future__ import annotations

from kitecore.document.strokes import CloneStroke
from kitecore.picture.layer import Rgba
from kitecore.picture.retouch._base import Spot, retouches


@retouches.register("clone_stroke")
def clone(stroke: CloneStroke, spot: Spot) -> Rgba:
    return spot.source
