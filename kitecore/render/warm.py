"""Compile the kernels before anybody waits for them (they are kept on disk after the first time)."""

from __future__ import annotations

import numpy as np

from kitecore.colour.looks import shipped
from kitecore.colour.scopes import histogram, vectorscope, waveform
from kitecore.colour.table import DRAFT, bake
from kitecore.document import Grade
from kitecore.document.grade import Light
from kitecore.document.keying import ChromaKey
from kitecore.media.coding import coded_deep, to_planes
from kitecore.media.hdr import HDR_TRANSFERS, shown_in_sdr
from kitecore.media.info import Colours
from kitecore.media.planes import Plane
from kitecore.media.premultiply import premultiply
from kitecore.media.rgb import factors_of, fill_rgb16, fill_rgba
from kitecore.picture.blend import blends
from kitecore.picture.composite import lay
from kitecore.picture.keying import keyed
from kitecore.picture.layer import Layer, Rgba, moved, solid, turned
from kitecore.picture.mixing import mixed_by


def warm() -> None:
    """Run every kernel once on a few pixels."""
    canvas = solid(32, 32, (0, 0, 0))
    picture = premultiply(np.full((16, 16, 4), 128, np.uint8))
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
    for draw in blends.values():
        draw(canvas.copy(), picture, 128)
    keyed(canvas, ChromaKey(), 1.0)
    for scope in (histogram, vectorscope, lambda pixels: waveform(pixels, 8)):
        scope(canvas)
    luma, cb, cr = (np.zeros((side, side), np.uint8) for side in (32, 16, 16))
    to_planes(canvas, luma, cb, cr)
    _warm_sources(canvas, luma, cb, cr)


def _warm_sources(canvas: Rgba, luma: Plane, cb: Plane, cr: Plane) -> None:
    """What leads from decoded frames to pictures and back to deep ones."""
    factors = factors_of(1, full_range=False)
    words = canvas.view(np.uint32)[..., 0]
    fill_rgba(luma, cb, cr, words, factors)
    fill_rgba(luma, luma, luma, words, factors)
    deep, rgb = luma.astype(np.uint16), np.zeros((32, 32, 3), np.uint16)
    fill_rgb16(deep, deep, deep, rgb, factors_of(1, full_range=False, deep=True))
    shown_in_sdr(rgb, Colours(transfer=HDR_TRANSFERS[0]))
    coded_deep(rgb)
