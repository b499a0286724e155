from __future__ import annotations

import numpy as np

from kitecore.document.transitions.push import Push
from kitecore.picture.composite import lay
from kitecore.picture.layer import Layer, Rgba, moved
from kitecore.picture.transitions._base import transition_drawings, way


@transition_drawings.register("push")
def push(a: Rgba, b: Rgba, share: float, transition: Push, density: float) -> Rgba:
    height, width = a.shape[:2]
    x, y = (round(side) for side in way(transition.angle, width, height))
    # Whole pixels, so that no seam shows where the two meet.
    right, down = round(x * share), round(y * share)
    out = np.zeros_like(a)
    lay(out, Layer(a, moved(right, down)))
    lay(out, Layer(b, moved(right - x, down - y)))
    return out
