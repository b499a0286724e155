"""What all modes share: a kernel is called with whole pictures and a place, and works row by row.

A row taken within a kernel from a whole, C-contiguous picture has a stride that the compiler knows,
and without branches it does eight pixels and more at a time; a slice of columns handed in costs six
times as much. Each mode has a kernel of its own: one that is handed a formula cannot be kept on disk.
"""

from __future__ import annotations

from collections.abc import Callable

import numpy as np
from numba import njit
from numpy.typing import NDArray

from kitecore.picture.layer import packed
from kitecore.registry import Registry

Rgba = NDArray[np.uint8]
Packed = NDArray[np.uint32]
Corner = tuple[int, int]
Draw = Callable[..., None]
"""``draw(below, above, level, corner=(0, 0))``; see the package."""
Kernel = Callable[[Packed, Packed, int, int, np.uint32], None]
"""``kernel(below, above, left, top, level)``."""

blends: Registry[Draw] = Registry("blend mode")


def register(name: str, kernel: Kernel) -> None:
    """Make a kernel known as a blend mode."""

    def draw(below: Rgba, above: Rgba, level: int, corner: Corner = (0, 0)) -> None:
        above = np.ascontiguousarray(above)
        kernel(packed(below), packed(above), *corner, np.uint32(level))

    blends.register(name)(draw)


@njit(inline="always")
def over_255(x):  # type: ignore[no-untyped-def]
    """``x / 255`` rounded, exact for all products of two bytes."""
    y = np.uint32(x + np.uint32(128))
    return np.uint32(np.uint32(y + (y >> np.uint32(8))) >> np.uint32(8))


@njit(inline="always")
def pair_over_255(x):  # type: ignore[no-untyped-def]
    """The same for two products, in the halves of a word."""
    low, eight = np.uint32(0x00FF00FF), np.uint32(8)
    y = np.uint32(x + np.uint32(0x00800080))
    return np.uint32((np.uint32(y + ((y >> eight) & low)) >> eight) & low)


@njit(inline="always")
def unit_of(byte):  # type: ignore[no-untyped-def]
    """0..255 as a share."""
    return np.float32(np.int32(byte)) * np.float32(1 / 255)


@njit(inline="always")
def byte_of(share):  # type: ignore[no-untyped-def]
    """The other way, rounded."""
    return np.uint32(np.int32(share * np.float32(255) + np.float32(0.5)))


@njit(inline="always")
def mix_channels(below, above, left, top, level, channel):  # type: ignore[no-untyped-def]
    """A separable mode, from its formula for one channel.

    ``channel(s, d, sa, da)`` gets bytes, both sides premultiplied, and gives a byte. Alpha goes
    source-over.
    """
    byte, one, two, high = np.uint32(255), np.uint32(8), np.uint32(16), np.uint32(24)
    rows, columns = above.shape
    for y in range(rows):
        line, own = below[top + y, left : left + columns], above[y, :]
        for x in range(columns):
            p, q = own[x], line[x]
            sa, da = over_255(np.uint32(np.uint32(p >> high) * level)), np.uint32(q >> high)
            sr = over_255(np.uint32((p & byte) * level))
            sg = over_255(np.uint32(((p >> one) & byte) * level))
            sb = over_255(np.uint32(((p >> two) & byte) * level))
            r = channel(sr, np.uint32(q & byte), sa, da)
            g = channel(sg, np.uint32((q >> one) & byte), sa, da)
            b = channel(sb, np.uint32((q >> two) & byte), sa, da)
            a = np.uint32(sa + da - over_255(np.uint32(sa * da)))
            line[x] = np.uint32(
                np.uint32(r | np.uint32(g << one)) | np.uint32(np.uint32(b << two) | a << high)
            )
