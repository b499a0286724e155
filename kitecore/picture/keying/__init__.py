"""Making a layer clear by its colour or its brightness."""

from __future__ import annotations

from kitecore.document.keying import ChromaKey, KeyBase, LumaKey
from kitecore.picture.keying.chroma import unscreened
from kitecore.picture.keying.edges import refined
from kitecore.picture.keying.luma import luma_matte
from kitecore.picture.keying.screen import distance_from
from kitecore.picture.layer import Rgba
from kitecore.picture.mixing import masked

__all__ = ["distance_from", "keyed", "refined"]


def keyed(pixels: Rgba, key: KeyBase, density: float) -> Rgba:
    """The picture with what a key makes clear taken away.

    Parameters
    ----------
    pixels
        Premultiplied RGBA.
    key
        Without keys over time.
    density
        Pixels to one of the canvas, by which the lengths of the key are meant.
    """
    if isinstance(key, LumaKey):
        return masked(pixels, refined(luma_matte(pixels, key), key, density))
    assert isinstance(key, ChromaKey)
    return unscreened(pixels, key, density)
