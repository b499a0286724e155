from __future__ import annotations

import math
from dataclasses import replace
from typing import Final

import cv2
import numpy as np
from numpy.typing import NDArray

from kitecore.document.effects.lens import Lens
from kitecore.motion.plain import number, pair
from kitecore.picture.effects._base import effect_drawings
from kitecore.picture.effects._bending import (
    MOST_ROOM,
    Maps,
    bent,
    border_of,
    distances,
    middle_of,
    radial,
    room_for,
)
from kitecore.picture.layer import Layer

_OUTWARDS: Final = 0.6
_INWARDS: Final = 0.3
"""Of the square of the distance, at 100 %: below a third no two places look the same."""
_RIM: Final = 0.05


@effect_drawings.register("lens")
def lens(layer: Layer, effect: Lens, tick: int) -> Layer:
    """Each pixel from r (1 + k r²), r = 1 at the corner; a lens breaks red less than blue."""
    bend = min(max(number(effect.bend) / 100, -1.0), 1.0)
    rim = min(max(number(effect.rim) / 100, 0.0), 1.0)
    size = min(max(number(effect.size) / 100, 0.05), 20.0)
    if bend == 0 and rim == 0 and size == 1:
        return layer
    corner = math.hypot(*layer.pixels.shape[:2]) / 2

    def maps(grown: Layer, colours: float) -> Maps:
        centre = middle_of(grown, pair(effect.centre))
        far = distances(grown, centre)
        return radial(grown, centre, factors_of(bend, size, colours, far / corner))

    if rim == 0:
        return bent(layer, effect, MOST_ROOM, lambda grown: maps(grown, 0.0))
    grown, border = room_for(layer, effect, MOST_ROOM), border_of(layer, effect)
    drawn = [
        cv2.remap(grown.pixels, *maps(grown, by), cv2.INTER_LINEAR, borderMode=border)
        for by in (rim * _RIM, 0.0, -rim * _RIM)
    ]
    pixels = np.dstack([one[..., channel] for channel, one in enumerate(drawn)])
    alpha = np.maximum.reduce([one[..., 3] for one in drawn])
    return replace(grown, pixels=np.dstack([pixels, alpha]))


def factors_of(
    bend: float, size: float, colours: float, far: NDArray[np.float32]
) -> NDArray[np.float32]:
    """How much farther from the middle a pixel comes from, by its distance (1 at the corner)."""
    there = far / size
    square = there * there
    k = bend * (_OUTWARDS if bend > 0 else _INWARDS)
    # Beyond where an inward bend would turn round it goes straight on.
    most = min(1 / (3 * -k), 1e6) if k < 0 else 1e6
    bent = 1 + k * np.minimum(square, most)
    return np.asarray(bent * (1 + colours * np.minimum(square, 4)) / size, np.float32)
