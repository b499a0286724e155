"""Why a thing was lost, as far as pictures tell: compared where it was last seen for sure, and after."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from typing import Final, Literal, get_args

import cv2
import numpy as np
from numpy.typing import NDArray

from kitecore.tracking.flow import Grey
from kitecore.tracking.quads import Quad
from kitecore.tracking.views import patch_of, view_of

Reason = Literal["left", "empty", "light", "blurred", "hidden"]
"""It goes out of the picture; nothing is to be seen there; the light changes; it is blurred; or it is not
seen as it was: something is before it, or it has turned away.
"""
REASONS: Final[tuple[Reason, ...]] = get_args(Reason)

MOST: Final = 64
"""Stretches of which it is found out."""
_WITHIN: Final = 0.8
"""Share of a thing that has to be in the picture."""
_FLAT: Final = 0.25
"""Share of its contrast below which next to nothing is to be seen."""
_LIT: Final = 1.4
"""By how much all around it is brighter, or darker, where the light has changed."""
_SOFT: Final = 0.55
"""Share of its detail below which it is blurred, if it is still like itself when both are softened."""
_LIKE: Final = 0.4
"""Correlation of softened pictures from which on they are the same."""
_SOFTENED: Final = (2.0, 4.0)
"""Sigmas: without grain, to tell how much detail there is; and to tell whether it is the same."""

Read = Callable[[int], Grey]


def reasons(
    read: Read, quads: NDArray[np.float64], sure: NDArray[np.float64], least: float
) -> NDArray[np.uint8]:
    """For each picture of a way in which a thing is not found for sure, a reason.

    Parameters
    ----------
    read
        The grey picture of an index of the way.
    quads, sure
        As in `ways.Way`; below ``least`` it is lost or a guess.

    Returns
    -------
    An index of `REASONS` and one more, the same for a whole stretch; 0 where it is sure, or not told.
    """
    found = np.zeros(len(quads), np.uint8)
    for count, (begin, end) in enumerate(_stretches(sure < least)):
        if count == MOST:
            break
        # Followed forwards as a rule; at the beginning of the way it was followed back.
        near, step = (begin - 1, 1) if begin else (end, -1)
        if not 0 <= near < len(quads):
            continue
        first = begin if begin else end - 1
        moved = quads[near] - quads[near - step] if 0 <= near - step < len(quads) else 0.0
        seen = read(near)
        reason = why(seen, quads[near], read(first), quads[near] + moved)
        if reason == "hidden":
            reason = why(seen, quads[near], read((begin + end) // 2), quads[near] + moved)
        found[begin:end] = REASONS.index(reason) + 1
    return found


def why(seen: Grey, quad: Quad, picture: Grey, ahead: Quad) -> Reason:
    """Why what was at ``quad`` in one picture is not found in another, where it may be ``ahead``."""
    if _share_within(ahead, picture) < _WITHIN:
        return "left"
    view = view_of(seen, quad)
    now = patch_of(picture, view.from_now("moves", ahead), view.patch.shape)
    if now.std() < _FLAT * max(float(view.patch.std()), 4.0):
        return "empty"
    before, after = (1.0 + float(one.mean()) for one in (seen, picture))
    if not 1 / _LIT < after / before < _LIT:
        return "light"
    return "blurred" if _is_softer(_inner(now), _inner(view.patch)) else "hidden"


def _is_softer(now: Grey, then: Grey) -> bool:
    """Whether it is the same with less detail."""
    fine, coarse = (
        [cv2.GaussianBlur(one, (0, 0), sigma) for one in (now, then)] for sigma in _SOFTENED
    )
    detail = [float(np.abs(cv2.Laplacian(one, cv2.CV_32F)).mean()) for one in fine]
    with np.errstate(invalid="ignore", divide="ignore"):
        like = np.corrcoef(coarse[0].ravel(), coarse[1].ravel())[0, 1]
    return bool(detail[0] < _SOFT * detail[1] and like > _LIKE)


def _inner(patch: Grey) -> Grey:
    """Without what lies around the thing."""
    high, wide = (side // 10 for side in patch.shape)
    rows, columns = patch.shape
    return np.ascontiguousarray(patch[high : rows - high, wide : columns - wide])


def _stretches(doubtful: NDArray[np.bool_]) -> Iterator[tuple[int, int]]:
    """Of indices in a row: the first, and the one after the last."""
    edges = np.flatnonzero(np.diff(np.concatenate([[False], doubtful, [False]])))
    yield from zip(edges[::2].tolist(), edges[1::2].tolist(), strict=True)


def _share_within(quad: Quad, picture: Grey) -> float:
    """Of a thing in the picture, by its upright box."""
    (left, top), (right, bottom) = quad.min(axis=0), quad.max(axis=0)
    height, width = picture.shape
    wide = max(min(right, width) - max(left, 0), 0)
    high = max(min(bottom, height) - max(top, 0), 0)
    return float(wide * high / max((right - left) * (bottom - top), 1e-6))
