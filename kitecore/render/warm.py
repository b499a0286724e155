"""Compile the kernels before anybody waits for them (they are kept on disk after the first time)."""

from __future__ import annotations

import numpy as np

from kitecore.colour.looks import shipped
from kitecore.colour.scopes import histogram, vectorscope, waveform
from kitecore.colour.table import DRAFT, bake
from kitecore.document import Grade
from kitecore.document.grade import Light
from kitecore.document.keying import ChromaKey
from kitecore.media.coding import to_planes
from kitecore.media.premultiply import premultiply
from kitecore.picture.composite import lay
from kitecore.picture.keying import keyed
from kitecore.picture.layer import Layer, moved, solid, turned
from kitecore.picture.mixing import mixed_by


def warm() -> None:
    """Run every kernel once on a few pixels."""
    canvas = solid(32, 32, (0, 0, 0))
    picture = premultiply(np.full((16, 16, 4), 128, np.uint8))
    # Whole rows and parts of rows are different memory layouts, compiled separately.
    lay(canvas, Layer(solid(32, 32, (9, 9, 9)), moved(0, 0)), 0.5)
    for layer in (
        Layer(picture, moved(4, 4)),
        Layer(picture, turned(10)),
        Layer(picture, moved(30, 30)),
    ):
        lay(canvas, layer)
    lay(canvas, Layer(solid(64, 64, (9, 9, 9)), moved(-16.5, -16.5)))
    table = bake(Grade(light=Light(exposure=1)), shipped, DRAFT)
    table.over(canvas)
    table.over_deep(np.zeros((4, 4, 3), np.uint16))
    mixed_by(canvas, canvas, np.zeros((32, 32), np.uint8))
    for blend in ("multiply", "add", "hue", "colour_dodge", "holdout_luma"):
        lay(canvas, Layer(solid(32, 32, (9, 9, 9)), moved(0, 0)), 0.5, blend)
        lay(canvas, Layer(picture, moved(4, 4)), 0.5, blend)
    keyed(canvas, ChromaKey(), 1.0)
    for scope in (histogram, vectorscope, lambda pixels: waveform(pixels, 8)):
        scope(canvas)
    luma, cb, cr = (np.zeros((side, side), np.uint8) for side in (32, 16, 16))
    to_planes(canvas, luma, cb, cr)
