from __future__ import annotations

from kitecore.document.transitions.slide import Slide
from kitecore.picture.composite import lay
from kitecore.picture.layer import Layer, Rgba, moved
from kitecore.picture.transitions._base import transition_drawings, way


@transition_drawings.register("slide")
def slide(a: Rgba, b: Rgba, share: float, transition: Slide, density: float) -> Rgba:
    height, width = a.shape[:2]
    x, y = way(transition.angle, width, height)
    out = a.copy()
    lay(out, Layer(b, moved(x * (share - 1), y * (share - 1))))
    return out
