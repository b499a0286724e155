from __future__ import annotations

import numpy as np

from kitecore.document.transitions.push import Push
from kitecore.picture.composite import lay
from kitecore.picture.layer import Layer, Rgba, moved
from kitecore.picture.transitions._base import transition_drawings, way


@transition_drawings.register("push")
def push(a: Rgba, b: Rgba, share: float, transition: Push, density: float) -> Rgba:
    height, width = a.shape[:2]
    x, y = way(transition.angle, width, height)
    out = np.zeros_like(a)
    lay(out, Layer(a, moved(x * share, y * share)))
    lay(out, Layer(b, moved(x * (share - 1), y * (share - 1))))
    return out
