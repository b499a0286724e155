from __future__ import annotations

import numpy as np

from kitecore.document.transitions.dip import Dip
from kitecore.oklab import rgb_of
from kitecore.picture.layer import Rgba
from kitecore.picture.transitions._base import mixed, transition_drawings


@transition_drawings.register("dip")
def dip(a: Rgba, b: Rgba, share: float, transition: Dip, density: float) -> Rgba:
    """To the colour in the first half, from it in the second; only where there is a picture."""
    picture, amount = (a, share * 2) if share < 0.5 else (b, 2 - share * 2)
    colour = np.array([*rgb_of(transition.colour), 255], np.uint16)
    covered = picture[..., 3:].astype(np.uint16) * colour + 127
    return mixed(picture, (covered // 255).astype(np.uint8), amount)
