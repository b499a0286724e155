"""Takes as cameras with other settings would have recorded them: log, and a wrong white."""

from __future__ import annotations

from functools import cache

import numpy as np

from kitecore.colour.looks import shipped
from kitecore.colour.table import Table, bake
from kitecore.colour.transfer import linear_of
from kitecore.document import Grade
from kitecore.document.grade import Balance

Pixels = np.ndarray

_TO_AP1 = np.array([[0.6131, 0.3395, 0.0474], [0.0702, 0.9164, 0.0134], [0.0206, 0.1096, 0.8698]])
"""Linear BT.709 to ACES AP1 (Bradford), rounded."""
_STEPS = 4096


def as_log(pixels: Pixels) -> Pixels:
    """RGB or RGBA of 8 bits as ACEScct (Academy S-2016-001): RGB, 0..65535."""
    linear = linear_of(np.arange(256, dtype=np.float32) / 255)[pixels[..., :3]]
    scene = linear @ _TO_AP1.T.astype(np.float32)
    # Even steps of the square root are fine enough in the dark as well.
    return _coded()[np.rint(np.sqrt(np.clip(scene, 0, 1)) * (_STEPS - 1)).astype(np.int32)]


@cache
def _coded() -> Pixels:
    scene = (np.arange(_STEPS) / (_STEPS - 1)) ** 2
    bent = (np.log2(np.maximum(scene, 1e-6)) + 9.72) / 17.52
    coded = np.where(scene <= 0.0078125, 10.5402377416545 * scene + 0.0729055341958355, bent)
    return np.rint(coded * 65535).astype(np.uint16)


def wrong_white(pixels: Pixels) -> Pixels:
    """RGBA of 8 bits as if the camera had been set for lamps and stood at a window."""
    return _lamps().over(np.ascontiguousarray(pixels))


@cache
def _lamps() -> Table:
    return bake(Grade(balance=Balance(warmth=-58, tint=-14)), shipped)
