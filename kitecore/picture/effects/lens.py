from __future__ import annotations

import math
from dataclasses import replace
from typing import Final

import cv2
import numpy as np
from numpy.typing import NDArray

from kitecore.document.effects.lens import Lens
from kitecore.motion.plain import pair
from kitecore.picture.effects._base import bounded, effect_drawings
from kitecore.picture.effects._bending import (
    MOST_ROOM,
    Channel,
    Maps,
    bent,
    border_of,
    distances,
    middle_of,
    parted,
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
    bend = bounded(effect.bend, -100.0, 100.0) / 100
    rim = bounded(effect.rim, 0.0, 100.0) / 100
    size = bounded(effect.size, 5.0, 2000.0) / 100
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
    ways = {way: maps(grown, way * rim * _RIM) for way in (1, 0, -1)}

    def gone(channel: Channel, way: int) -> Channel:
        return np.asarray(cv2.remap(channel, *ways[way], cv2.INTER_LINEAR, borderMode=border))

    return replace(grown, pixels=parted(grown.pixels, border, gone))


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
