from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from kitecore.document.effects.displace import Displace
from kitecore.picture.effects._base import Other, length_of, paired_drawings
from kitecore.picture.effects._bending import Maps, bent
from kitecore.picture.layer import Layer, Rgba

_LUMA = np.array([0.2126, 0.7152, 0.0722], np.float32)
"""Shares of red, green and blue (BT.709)."""


@paired_drawings.register("displace")
def displace(layer: Layer, effect: Displace, tick: int, other: Other) -> Layer:
    """Middle grey leaves a pixel where it is, white moves it all the way, black as far the other way.

    Where the other layer is clear nothing moves.
    """
    across, down = (length_of(one, layer) for one in (effect.across, effect.down))
    if max(abs(across), abs(down)) < 0.02:
        return layer

    def whence(grown: Layer) -> Maps:
        shares = _shares(other(grown), effect)
        height, width = grown.pixels.shape[:2]
        x, y = np.arange(width, dtype=np.float32), np.arange(height, dtype=np.float32)
        return x[None, :] - across * shares[0], y[:, None] - down * shares[1]

    return bent(layer, effect, max(abs(across), abs(down)), whence)


def _shares(other: Rgba, effect: Displace) -> tuple[NDArray[np.float32], NDArray[np.float32]]:
    """-1..1 for each pixel, across and down."""
    # Premultiplied: what half covers moves half as far.
    alpha = other[..., 3].astype(np.float32) / 255
    colours = other[..., :3].astype(np.float32) / 255
    if effect.read == "light":
        shares = np.asarray(2 * (colours @ _LUMA) - alpha, np.float32)
        return shares, shares
    red, green = (np.asarray(2 * colours[..., n] - alpha, np.float32) for n in (0, 1))
    return red, green
