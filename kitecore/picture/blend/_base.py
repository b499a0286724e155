from __future__ import annotations

from collections.abc import Callable

import numpy as np
from numba import njit
from numpy.typing import NDArray

from kitecore.registry import Registry

Rgba = NDArray[np.uint8]
Draw = Callable[[Rgba, Rgba, int], None]
Formula = Callable[[float, float, float, float], float]

blends: Registry[Draw] = Registry("blend mode")


def separable(formula: Formula) -> Draw:
    """A blend mode from its formula for one channel.

    ``formula(s, d, sa, da)``: premultiplied source and destination and their alphas, all 0..1;
    alpha itself always goes source-over.
    """
    inlined = njit(inline="always")(formula)

    @njit(nogil=True)
    def draw(below: Rgba, above: Rgba, level: int) -> None:
        scale = np.float32(level / (255.0 * 255.0))
        unit = np.float32(1 / 255.0)
        rows, columns, _ = below.shape
        for y in range(rows):
            for x in range(columns):
                sa = above[y, x, 3] * scale
                if sa == 0:
                    continue
                da = below[y, x, 3] * unit
                for k in range(3):
                    mixed = inlined(above[y, x, k] * scale, below[y, x, k] * unit, sa, da)
                    below[y, x, k] = np.uint8(min(max(mixed * 255.0 + 0.5, 0.0), 255.0))
                below[y, x, 3] = np.uint8((sa + da - sa * da) * 255.0 + 0.5)

    kernel: Draw = draw
    return kernel
