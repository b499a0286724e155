"""Making a layer clear by its colour or its brightness.

The chroma key measures how much of the screen's colour is in a pixel by its chroma (BT.709 Cb, Cr),
along the screen's own direction; what deviates from that direction counts against it. Under the
light L on the screen and the matte a, a pixel is C = F + (1 - a)·L·K, with the premultiplied
foreground F and the screen's colour K: so F is had by taking the rest away, and no rim is left
(P. Vlahos, "Comprehensive electronic compositing system", US patent 4 344 085, 1982, which limits
the screen's colour in F likewise for spill).
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any, Final

import cv2
import numpy as np
from numba import njit
from numpy.typing import NDArray

from kitecore.bt709 import CB_SPAN, CR_SPAN, KB, KG, KR
from kitecore.document.keying import ChromaKey, KeyBase, LumaKey
from kitecore.motion.curve import curve_at
from kitecore.motion.plain import colour, number, points
from kitecore.oklab import rgb_of
from kitecore.picture.layer import Rgba, packed
from kitecore.picture.mixing import luma_of, masked

Array = NDArray[Any]
Matte = NDArray[np.uint8]
Packed = NDArray[np.uint32]

DEVIATION: Final = 0.5
"""How much a deviation from the screen's direction counts, of what a lack of its colour does."""
SPILL_FREE: Final = 0.3
"""Deviation, to the screen's colour, from which on a colour is no spill."""
_TOLERANCE: Final = 1.25
"""How much the foreground may differ around a place before that counts."""
_STRAND: Final = 5
"""Canvas pixels from the screen within which strands are looked for."""
_SMALL_SIDE: Final = 128
"""Pixels of the longer side of the picture from which surroundings are measured."""


@dataclass(frozen=True)
class Surroundings:
    """What a pixel's neighbourhood tells; float32, of the picture's size.

    ``light``: how bright the screen is there, 1 where it is as its colour says. ``solid``: the
    distance in chroma of the foreground there, at least 1.
    """

    light: Array
    solid: Array


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
        return masked(pixels, refined(_inverted(_luma_matte(pixels, key), key), key, density))
    assert isinstance(key, ChromaKey)
    around = surroundings(pixels, key)
    matte = refined(_inverted(_chroma(pixels, key, around, density), key), key, density)
    return masked(pixels, matte) if key.invert else _unmixed(pixels, matte, key, around)


def _inverted(matte: Matte, key: KeyBase) -> Matte:
    return 255 - matte if key.invert else matte


def _luma_matte(pixels: Rgba, key: LumaKey) -> Matte:
    luma = luma_of(pixels)
    return np.asarray(cv2.LUT(luma, _luma_table(key)))


def _chroma(pixels: Rgba, key: ChromaKey, around: Surroundings, density: float) -> Matte:
    """0..255 for each pixel, before its edge is shrunk or softened."""
    far = np.empty(pixels.shape[:2], np.float32)
    _distances(packed(pixels), _direction(key), around.light, far)
    low = number(key.clear_below)
    solid = _with_strands(far, around.solid, low, density)
    levels = np.array([low, 1 / max(number(key.solid_above) - low, 1e-3)], np.float32)
    matte = np.empty(far.shape, np.uint8)
    _levelled(far, solid, levels, _response(key), matte)
    return matte


def _with_strands(far: Array, solid: Array, low: float, density: float) -> Array:
    """The distance that counts as solid, near the screen at least the greatest one around.

    What is thin, such as hair, is seen as far from the screen only in its middle.
    """
    reach = max(1, round(_STRAND * density))
    square = np.ones((2 * reach + 1, 2 * reach + 1), np.uint8)
    near = cv2.dilate((far < low).astype(np.uint8), square)
    return np.where(near, np.maximum(solid, cv2.dilate(far, square)), solid)


def refined(matte: Matte, key: KeyBase, density: float) -> Matte:
    """A matte with its edge shrunk (or grown) and softened."""
    shrink, soften = number(key.shrink) * density, number(key.soften) * density
    if abs(shrink) > 0.05:
        matte = _shrunk(matte, shrink)
    if soften > 0.1:
        matte = cv2.GaussianBlur(matte, (0, 0), soften, borderType=cv2.BORDER_REPLICATE)
    return np.asarray(matte)


def surroundings(pixels: Rgba, key: ChromaKey) -> Surroundings:
    """Measured in small: the screen where it is seen, the foreground where it is, spread beyond."""
    height, width = pixels.shape[:2]
    factor = max(1.0, max(width, height) / _SMALL_SIDE)
    size = max(1, round(width / factor)), max(1, round(height / factor))
    small = cv2.resize(pixels, size, interpolation=cv2.INTER_AREA).astype(np.float32) / 255
    direction = _direction(key)
    along, aside = _chroma_parts(small[..., :3], direction)
    # Less light makes the screen darker and less coloured alike; what veils it does not.
    luma = small[..., :3] @ np.array([KR, KG, KB], np.float32) / max(direction[6], 0.02)
    bare = (along > 0.35) & (aside < 0.35 * along) & (np.abs(luma - along) < 0.1)
    screen = np.where(bare, along, 0).astype(np.float32)
    light = np.clip(_spread(screen, 1.0), 0.3, 2.0)
    share = np.float32(min(max(number(key.even_out), 0.0), 1.0))
    light = 1 + share * (light - 1)
    far = 1 - (along - DEVIATION * aside) / light
    solid = _spread(np.where(far > 0.9, far, 0).astype(np.float32), 1.0)
    solid = np.clip(solid / _TOLERANCE, 1.0, 6.0)
    return Surroundings(_enlarged(light, width, height), _enlarged(solid, width, height))


def _enlarged(values: Array, width: int, height: int) -> Array:
    small = np.asarray(values, np.float32)
    return np.asarray(cv2.resize(small, (width, height), interpolation=cv2.INTER_LINEAR))


def distance_from(rgb: Array, key: ChromaKey) -> Array:
    """Distance in chroma of straight colours 0..1 from the screen, its light taken as even."""
    along, aside = _chroma_parts(rgb, _direction(key))
    return np.asarray(1 - (along - DEVIATION * aside))


def _spread(values: Array, otherwise: float) -> Array:
    """Values where they are nearly as large as any around them, carried to everywhere else.

    Those that are less are mixed with something else. 0 means none.
    """
    most = cv2.dilate(values, np.ones((5, 5), np.uint8))
    known = (values > 0.85 * most) & (values > 0)
    filled, there = np.where(known, values, 0).astype(np.float32), known.astype(np.float32)
    for sigma in (1.5, 4.0, 12.0):
        near = cv2.GaussianBlur(there, (0, 0), sigma)
        mean = cv2.GaussianBlur(filled, (0, 0), sigma) / np.maximum(near, 1e-6)
        new = (there < 0.5) & (near > 0.01)
        filled = np.where(new, mean, filled).astype(np.float32)
        there = np.where(new, 1, there).astype(np.float32)
    rest = filled[there > 0.5].mean() if (there > 0.5).any() else otherwise
    filled = np.where(there > 0.5, filled, rest).astype(np.float32)
    return np.asarray(cv2.GaussianBlur(filled, (0, 0), 1.0))


def _chroma_parts(rgb: Array, direction: Array) -> tuple[Array, Array]:
    """Share of the screen's colour along its direction, and aside from it."""
    luma = rgb @ np.array([KR, KG, KB], np.float32)
    cb, cr = (rgb[..., 2] - luma) / CB_SPAN, (rgb[..., 0] - luma) / CR_SPAN
    x, y, length = direction[:3]
    return (cb * x + cr * y) / length, np.abs(cb * y - cr * x) / length


def _direction(key: ChromaKey) -> Array:
    """Unit direction (2) and length (1) of the screen's chroma, its colour (3) and luma (1)."""
    red, green, blue = (channel / 255 for channel in rgb_of(colour(key.colour)))
    luma = KR * red + KG * green + KB * blue
    cb, cr = (blue - luma) / CB_SPAN, (red - luma) / CR_SPAN
    length = max(float(np.hypot(cb, cr)), 0.01)
    return np.array([cb / length, cr / length, length, red, green, blue, luma], np.float32)


def _response(key: ChromaKey) -> NDArray[np.uint8]:
    shown = np.clip(curve_at(points(key.response), np.linspace(0, 1, 256)), 0, 1)
    return np.asarray(np.rint(shown * 255), np.uint8)


def _luma_table(key: LumaKey) -> NDArray[np.uint8]:
    luma = np.arange(256) / 2.55
    low, high, soft = number(key.low), number(key.high), max(number(key.softness), 1e-3)
    rise = np.clip((luma - low + soft) / soft, 0, 1) if low > 0 else np.ones(256)
    fall = np.clip((high + soft - luma) / soft, 0, 1) if high < 100 else np.ones(256)
    share = np.minimum(rise, fall)
    return np.asarray(np.rint(share * share * (3 - 2 * share) * 255), np.uint8)


def _shrunk(matte: Matte, by: float) -> Matte:
    """Grey-scale erosion by a disc; by a part of a pixel, what lies between two discs."""
    change = cv2.erode if by > 0 else cv2.dilate
    whole, part = int(abs(by)), abs(by) % 1
    less = change(matte, _disc(whole)) if whole else matte
    if part < 0.05:
        return np.asarray(less)
    return np.asarray(cv2.addWeighted(less, 1 - part, change(matte, _disc(whole + 1)), part, 0))


def _disc(radius: int) -> NDArray[np.uint8]:
    side = 2 * radius + 1
    return np.asarray(cv2.getStructuringElement(cv2.MORPH_ELLIPSE, (side, side)))


def _unmixed(pixels: Rgba, matte: Matte, key: ChromaKey, around: Surroundings) -> Rgba:
    out = np.empty_like(pixels)
    spill = np.float32(min(max(number(key.spill), 0.0), 1.0))
    _unmix(packed(pixels), matte, _direction(key), around.light, spill, packed(out))
    return out


@njit(cache=True, nogil=True, fastmath=True)
def _distances(pixels: Packed, direction: Array, light: Array, out: Array) -> None:
    """Of each pixel from the screen's colour under the light that is there."""
    height, width = out.shape
    dx, dy, length = direction[0], direction[1], direction[2]
    unit, byte = np.float32(1 / 255), np.uint32(255)
    # Cb and Cr turned so that one axis is the screen's: two rows of weights for R, G, B.
    kr, kg, kb = np.float32(KR), np.float32(KG), np.float32(KB)
    one = np.float32(1)
    b, r = np.float32(1 / CB_SPAN) / length * unit, np.float32(1 / CR_SPAN) / length * unit
    ar = -kr * b * dx + (one - kr) * r * dy
    ag = -kg * b * dx - kg * r * dy
    ab = (one - kb) * b * dx - kb * r * dy
    sr = -kr * b * dy - (one - kr) * r * dx
    sg = -kg * b * dy + kg * r * dx
    sb = (one - kb) * b * dy + kb * r * dx
    for y in range(height):
        for x in range(width):
            word = pixels[y, x]
            p0, p1 = np.float32(word & byte), np.float32((word >> np.uint32(8)) & byte)
            p2 = np.float32((word >> np.uint32(16)) & byte)
            along = p0 * ar + p1 * ag + p2 * ab
            aside = abs(p0 * sr + p1 * sg + p2 * sb)
            out[y, x] = one - (along - np.float32(DEVIATION) * aside) / light[y, x]


@njit(cache=True, nogil=True, fastmath=True)
def _levelled(
    far: Array, solid: Array, levels: Array, table: NDArray[np.uint8], out: Matte
) -> None:
    """Distances to alpha. What is nearly the screen stays so, however far the foreground is."""
    low, slope = levels[0], levels[1]
    zero, one, most = np.float32(0), np.float32(1), np.float32(255)
    height, width = far.shape
    for y in range(height):
        for x in range(width):
            at = far[y, x]
            at = at / solid[y, x] if at > low else at
            share = min(max((at - low) * slope, zero), one)
            out[y, x] = table[int(share * most + np.float32(0.5))]


@njit(cache=True, nogil=True, fastmath=True)
def _unmix(
    pixels: Packed, matte: Matte, direction: Array, light: Array, spill: np.float32, out: Packed
) -> None:
    height, width = matte.shape
    dx, dy, length = direction[0], direction[1], direction[2]
    k0, k1, k2, luma = direction[3], direction[4], direction[5], direction[6]
    zero, full, byte = np.float32(0), np.float32(255), np.uint32(255)
    for y in range(height):
        for x in range(width):
            a = matte[y, x]
            word = pixels[y, x]
            if a == 0 or word == np.uint32(0):
                out[y, x] = np.uint32(0)
                continue
            f0, f1 = np.float32(word & byte), np.float32((word >> np.uint32(8)) & byte)
            f2 = np.float32((word >> np.uint32(16)) & byte)
            if a != 255:
                rest = np.float32(255 - a) * light[y, x]
                f0, f1, f2 = f0 - rest * k0, f1 - rest * k1, f2 - rest * k2
            most = np.float32(a) * np.float32(word >> np.uint32(24)) / full
            f0, f1 = min(max(f0, zero), most), min(max(f1, zero), most)
            f2 = min(max(f2, zero), most)
            if spill > 0:
                grey = np.float32(KR) * f0 + np.float32(KG) * f1 + np.float32(KB) * f2
                cb, cr = (f2 - grey) / np.float32(CB_SPAN), (f0 - grey) / np.float32(CR_SPAN)
                along = (cb * dx + cr * dy) / length
                aside = abs(cb * dy - cr * dx) / length
                over = (along - np.float32(SPILL_FREE) * aside) * spill
                if over > 0:
                    f0 = min(max(f0 - over * (k0 - luma), zero), most)
                    f1 = min(max(f1 - over * (k1 - luma), zero), most)
                    f2 = min(max(f2 - over * (k2 - luma), zero), most)
            half = np.float32(0.5)
            low = np.uint32(np.uint32(f0 + half) | np.uint32(np.uint32(f1 + half) << np.uint32(8)))
            high = np.uint32(np.uint32(f2 + half) << np.uint32(16))
            high |= np.uint32(np.uint32(most + half) << np.uint32(24))
            out[y, x] = np.uint32(low | high)
