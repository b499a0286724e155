"""Tables of colours: three curves (1D) or a lattice (3D) over a domain."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import NDArray

from kitecore.colour.lattice import sampled
from kitecore.colour.rgb import Rgb

Spot3 = tuple[float, float, float]


@dataclass(frozen=True, eq=False)
class Cube:
    """A table of colours.

    Parameters
    ----------
    values
        float32. 3D: shape (n, n, n, 3), indexed by red, green, blue. 1D: shape (n, 3), a curve for
        each channel.
    low, high
        The colours at the first and the last entry of each axis; beyond them the ends hold.
    """

    values: NDArray[np.float32]
    low: Spot3 = (0.0, 0.0, 0.0)
    high: Spot3 = (1.0, 1.0, 1.0)
    title: str = ""

    @property
    def size(self) -> int:
        return len(self.values)

    @property
    def is_curves(self) -> bool:
        return self.values.ndim == 2

    def apply(self, rgb: Rgb) -> Rgb:
        """Interpolated: along straight lines in 1D, in tetrahedra in 3D. Same shape and precision."""
        low, high = np.array(self.low, rgb.dtype), np.array(self.high, rgb.dtype)
        at: NDArray[Any] = np.clip((rgb - low) / (high - low), 0, 1)
        if not self.is_curves:
            return sampled(self.values, at)
        grid = np.linspace(0, 1, self.size)
        curves = [np.interp(at[..., k], grid, self.values[:, k]) for k in range(3)]
        return np.stack(curves, axis=-1).astype(rgb.dtype)


FindLook = Callable[[str], Cube]
"""From the name of a look to its table."""
