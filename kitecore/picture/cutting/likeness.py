"""Colours that were met in what is kept, and around it, over the frames so far."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any, Final

import cv2
import numpy as np
from numpy.typing import NDArray

Array = NDArray[Any]
Mask = NDArray[np.bool_]

_BINS: Final = 24
_SPREAD: Final = 0.8
_RARE: Final = 1e-3
_KEPT_FOR: Final = 0.95
"""What remains of colours of what is kept from frame to frame: it may come out again from behind something."""
_GROUND_FOR: Final = 0.8


@dataclass(frozen=True)
class Colours:
    """How often each colour was met: float32, shape (24, 24, 24), over L, a and b."""

    kept: NDArray[np.float32]
    ground: NDArray[np.float32]

    def after(self, fresh: Colours) -> Colours:
        """With those of another frame."""
        return Colours(
            self.kept * np.float32(_KEPT_FOR) + fresh.kept,
            self.ground * np.float32(_GROUND_FOR) + fresh.ground,
        )

    def likely(self, levels: NDArray[np.uint8]) -> NDArray[np.float32]:
        """How surely the colour of each pixel is of what is kept, 0..1."""
        kept, ground = _share(self.kept), _share(self.ground)
        places = _places(levels)
        return np.asarray(kept[places] / (kept[places] + ground[places]), np.float32)


def colours_met(levels: NDArray[np.uint8], inside: Mask, near: Mask) -> Colours:
    """Those of a frame: inside, and of what is near but not inside."""
    places = _places(levels)

    def counted(mask: Mask) -> NDArray[np.float32]:
        counts = np.zeros((_BINS,) * 3, np.float32)
        np.add.at(counts, tuple(axis[mask] for axis in places), 1)
        return counts

    return Colours(counted(inside), counted(near & ~inside))


def _share(counts: Array) -> Array:
    from scipy.ndimage import gaussian_filter  # slow to load

    spread = gaussian_filter(counts, _SPREAD) + _RARE
    return np.asarray(spread / spread.sum())


def _places(levels: NDArray[np.uint8]) -> tuple[Array, ...]:
    lab = cv2.cvtColor(levels, cv2.COLOR_RGB2LAB).astype(int) * _BINS // 256
    return tuple(lab.transpose(2, 0, 1))
