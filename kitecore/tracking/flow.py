"""Points worth following, and where they are in the next picture."""

from __future__ import annotations

from typing import Any, Final

import cv2
import numpy as np
from numpy.typing import NDArray

from kitecore.tracking.quads import Points

Grey = NDArray[np.uint8]
"""Shape (height, width)."""

_MOST: Final = 64
_FLOW: Final[dict[str, Any]] = {
    "winSize": (17, 17),
    "maxLevel": 3,
    "criteria": (cv2.TERM_CRITERIA_EPS | cv2.TERM_CRITERIA_COUNT, 20, 0.01),
}
_BACK: Final = 0.7
"""Pixels by which a point may miss where it came from."""


def points_in(picture: Grey, mask: Grey) -> Points:
    """Corners within a mask (Shi and Tomasi 1994), spread over it."""
    area = int(np.count_nonzero(mask))
    apart = max(2.0, np.sqrt(area / _MOST) * 0.6)
    found = cv2.goodFeaturesToTrack(picture, _MOST, 0.01, apart, mask=mask, blockSize=5)
    return np.zeros((0, 2), np.float32) if found is None else found.reshape(-1, 2)


def flowed(before: Grey, after: Grey, points: Points) -> tuple[Points, NDArray[np.bool_]]:
    """Where points of one picture are in another, and which were found (Bouguet 2001)."""
    if not len(points):
        return points, np.zeros(0, np.bool_)
    start = np.ascontiguousarray(points[:, None], np.float32)
    there, seen, _ = cv2.calcOpticalFlowPyrLK(before, after, start, None, **_FLOW)
    return there.reshape(-1, 2), seen.reshape(-1) > 0


def matched(before: Grey, after: Grey, points: Points) -> tuple[Points, NDArray[np.bool_]]:
    """The same, with those alone that come back from there (forward–backward error, Kalal 2010)."""
    there, seen = flowed(before, after, points)
    back, again = flowed(after, before, there)
    return there, seen & again & (np.hypot(*(back - points).T) < _BACK)
