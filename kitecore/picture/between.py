"""Pictures between two frames, by what moved.

Dense inverse search: T. Kroeger et al., Fast Optical Flow using Dense Inverse Search, ECCV 2016
(OpenCV's implementation).
"""

from __future__ import annotations

from typing import Final

import cv2
import numpy as np
from numpy.typing import NDArray

from kitecore.picture.layer import Rgba

Flow = NDArray[np.float32]

FLOW_SIDE: Final = 360
"""Pixels of the longer side at which motion is looked for."""

_TRUSTED: Final = 1.5
"""Pixels (at flow size) by which there and back may disagree; more counts as covered."""


def flows(a: Rgba, b: Rgba) -> Flow:
    """Motion from ``a`` to ``b`` and back, at a size of at most `FLOW_SIDE`.

    Returns
    -------
    float32, shape (h, w, 4): x and y there, x and y back, in pixels of that size.
    """
    height, width = a.shape[:2]
    factor = min(1.0, FLOW_SIDE / max(width, height))
    size = max(16, round(width * factor)), max(16, round(height * factor))
    first, second = (_grey(picture, size) for picture in (a, b))
    search = cv2.DISOpticalFlow.create(cv2.DISOPTICAL_FLOW_PRESET_FAST)
    search.setUseSpatialPropagation(True)
    there = search.calc(first, second, None)
    back = search.calc(second, first, None)
    return np.concatenate([there, back], axis=2)


def _grey(picture: Rgba, size: tuple[int, int]) -> NDArray[np.uint8]:
    small = cv2.resize(picture, size, interpolation=cv2.INTER_AREA)
    return np.asarray(cv2.cvtColor(small, cv2.COLOR_RGBA2GRAY))


def moved_between(a: Rgba, b: Rgba, share: float, motion: Flow) -> Rgba:
    """The picture at ``share`` (0..1) of the way from ``a`` to ``b``.

    Both are warped to that moment and mixed; where there and back disagree, a picture that shows
    what the other covers counts for more.

    Parameters
    ----------
    motion
        What `flows` found, for these or larger copies of the two pictures.
    """
    height, width = a.shape[:2]
    scale = np.array([width / motion.shape[1], height / motion.shape[0]], np.float32)
    there, back = motion[..., :2], motion[..., 2:]
    doubt_a, doubt_b = _doubt(there, back), _doubt(back, there)
    warped_a, doubt_a = _warped(a, there * -share, doubt_a, scale)
    warped_b, doubt_b = _warped(b, back * -(1 - share), doubt_b, scale)
    weight_a = (1 - share) * np.exp(-doubt_a / _TRUSTED)
    weight_b = share * np.exp(-doubt_b / _TRUSTED)
    total = weight_a + weight_b + 1e-6
    part = cv2.resize(weight_b / total, (width, height))
    out: Rgba = cv2.blendLinear(warped_a, warped_b, 1 - part, part)
    return out


def _doubt(there: Flow, back: Flow) -> Flow:
    """How far one lands from where one started, there and back."""
    height, width = there.shape[:2]
    y, x = np.mgrid[0:height, 0:width].astype(np.float32)
    landed = cv2.remap(
        back,
        x + there[..., 0],
        y + there[..., 1],
        cv2.INTER_LINEAR,
        borderMode=cv2.BORDER_REPLICATE,
    )
    return np.asarray(np.hypot(there[..., 0] + landed[..., 0], there[..., 1] + landed[..., 1]))


def _warped(picture: Rgba, shift: Flow, doubt: Flow, scale: Flow) -> tuple[Rgba, Flow]:
    """The picture pulled back along ``shift``, and the doubt with it (at flow size)."""
    height, width = picture.shape[:2]
    h, w = shift.shape[:2]
    y, x = np.mgrid[0:h, 0:w].astype(np.float32)
    # The motion at the place in between is about that at the place it comes from.
    pulled = cv2.remap(
        shift,
        x + shift[..., 0],
        y + shift[..., 1],
        cv2.INTER_LINEAR,
        borderMode=cv2.BORDER_REPLICATE,
    )
    unsure = cv2.remap(doubt, x + pulled[..., 0], y + pulled[..., 1], cv2.INTER_LINEAR)
    full = cv2.resize(pulled, (width, height)) * scale
    rows, columns = np.mgrid[0:height, 0:width].astype(np.float32)
    warped = cv2.remap(
        picture,
        columns + full[..., 0],
        rows + full[..., 1],
        cv2.INTER_LINEAR,
        borderMode=cv2.BORDER_REPLICATE,
    )
    return np.asarray(warped), np.asarray(unsure)
