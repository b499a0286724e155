"""How a thing looks, made comparable: patches, and how much two of them are alike."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final

import cv2
import numpy as np
from numpy.typing import NDArray

from kitecore.tracking.flow import Grey, points_in
from kitecore.tracking.quads import Change, Matrix, Points, Quad, between, carried, inverse

LONG: Final = 96
"""Pixels of the longer side of the thing in a patch."""
_AROUND: Final = 0.1
"""Share of that which is seen around it: its edge helps to find it."""
_CELLS: Final = 4


@dataclass(frozen=True)
class View:
    """A thing in one picture: where it was, the 3 × 3 from the picture to the patch, the patch,
    points in it that are worth following, and the patch with even light.
    """

    quad: Quad
    into: Matrix
    patch: Grey
    points: Points
    evened: Grey

    def from_now(self, change: Change, quad: Quad) -> Matrix:
        """From a picture in which the thing is at ``quad`` to this patch."""
        return np.asarray(self.into @ inverse(between(change, self.quad, quad)))

    def to_now(self, change: Change, quad: Quad) -> Matrix:
        """The way back."""
        return inverse(self.from_now(change, quad))


def view_of(picture: Grey, quad: Quad) -> View:
    low, high = quad.min(axis=0), quad.max(axis=0)
    wide = float(max(*(high - low), 1.0))
    scale = LONG / wide
    edge = _AROUND * wide
    size = np.ceil((high - low + 2 * edge) * scale).astype(int)
    into = np.array(
        [
            [scale, 0.0, (edge - low[0]) * scale],
            [0.0, scale, (edge - low[1]) * scale],
            [0.0, 0.0, 1.0],
        ]
    )
    patch = patch_of(picture, into, (int(size[1]), int(size[0])))
    mask = np.zeros_like(patch)
    cv2.fillConvexPoly(mask, np.rint(carried(into, quad)).astype(np.int32), 255)
    evened = even(patch)
    return View(quad, into, patch, points_in(evened, mask), evened)


def patch_of(picture: Grey, into: Matrix, shape: tuple[int, ...]) -> Grey:
    """What of a picture a matrix brings into a patch; beyond its edge it goes on as it is there."""
    scale = float(np.sqrt(abs(np.linalg.det(into[:2, :2]))))
    if scale < 0.5:
        # Sampled as it is, a much smaller picture would glitter.
        smaller = 1 / round(1 / scale)
        picture = cv2.resize(picture, None, fx=smaller, fy=smaller, interpolation=cv2.INTER_AREA)  # type: ignore[assignment]
        into = into @ np.diag([1 / smaller, 1 / smaller, 1.0])
    flags, border = cv2.INTER_LINEAR, cv2.BORDER_REPLICATE
    size = (shape[1], shape[0])
    return np.asarray(cv2.warpPerspective(picture, into, size, flags=flags, borderMode=border))


def even(patch: Grey) -> Grey:
    """With the same middle and contrast everywhere, so that light does not count."""
    low = cv2.GaussianBlur(patch.astype(np.float32), (0, 0), 9)
    detail = patch - low
    strong = np.sqrt(cv2.GaussianBlur(detail * detail, (0, 0), 9)) + 4.0
    return np.asarray(np.clip(128 + 40 * detail / strong, 0, 255), np.uint8)


def alike(one: Grey, other: Grey) -> float:
    """Correlation of the better half of two patches, -1..1: the other half may be covered."""
    return halves(one, other)[0]


def halves(one: Grey, other: Grey) -> tuple[float, float]:
    """Correlation of the better half of two patches, and of the other half."""
    a, b = (_cells(patch) for patch in (one, other))
    power = np.sqrt((a * a).mean(axis=1))
    both = power * np.sqrt((b * b).mean(axis=1))
    told = (a * b).mean(axis=1) / (both + 1.0)
    order = np.argsort(told)[::-1]
    heavy = np.cumsum(power[order])
    if heavy[-1] < 1.0:
        return 0.0, 0.0
    half = int(np.searchsorted(heavy, heavy[-1] / 2)) + 1
    better, worse = (
        float(np.average(told[part], weights=power[part] + 1e-6)) if len(part) else 0.0
        for part in (order[:half], order[half:])
    )
    return better, worse


def _cells(patch: Grey) -> NDArray[np.float32]:
    """A patch in parts, each a row about its own mean."""
    high, wide = (side // _CELLS for side in patch.shape)
    whole = patch[: high * _CELLS, : wide * _CELLS].astype(np.float32)
    rows = whole.reshape(_CELLS, high, _CELLS, wide).swapaxes(1, 2).reshape(_CELLS**2, -1)
    return np.asarray(rows - rows.mean(axis=1, keepdims=True))
