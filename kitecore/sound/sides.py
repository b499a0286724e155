"""Left and right."""

from __future__ import annotations

from typing import Any

import numpy as np
from numpy.typing import NDArray

from kitecore.sound.ramps import Samples


def chosen(samples: Samples, channels: str) -> Samples:
    """The sides that are heard: ``both``, ``left`` or ``right`` on both, ``swapped``, or ``mono``."""
    if channels == "left":
        return np.repeat(samples[:, :1], 2, axis=1)
    if channels == "right":
        return np.repeat(samples[:, 1:], 2, axis=1)
    if channels == "swapped":
        return samples[:, ::-1]
    if channels == "mono":
        return np.repeat(samples.mean(axis=1, keepdims=True), 2, axis=1)
    return samples


def panned(samples: Samples, pan: float | NDArray[np.float64], *, mono: bool) -> Samples:
    """Sound moved to a side, with equal power; in the middle it stays as it is.

    Reference: W3C Web Audio API, StereoPannerNode. What is the same on both sides keeps its power
    on the way; of what is not, the side that it goes away from is added to the other.

    Parameters
    ----------
    pan
        From -1, left, to 1, right; one number, or one for each sample.
    mono
        Whether both sides are the same.
    """
    way = np.asarray(pan, np.float64)
    if not way.any():
        return samples
    left, right = samples[:, 0], samples[:, 1]
    if mono:
        angle = (way + 1) * np.pi / 4
        root = 2**0.5
        return _sides(left * np.cos(angle) * root, right * np.sin(angle) * root)
    to_left, to_right = np.clip(-way, 0, 1) * np.pi / 2, np.clip(way, 0, 1) * np.pi / 2
    return _sides(
        left * np.cos(to_right) + right * np.sin(to_left),
        right * np.cos(to_left) + left * np.sin(to_right),
    )


def _sides(left: NDArray[Any], right: NDArray[Any]) -> Samples:
    return np.stack([left, right], axis=1).astype(np.float32)
