"""A hole in a picture closed by what the rest of it looks like.

Y. Wexler, E. Shechtman, M. Irani, "Space-Time Completion of Video", 2007, for one picture: from coarse
to fine, each patch that reaches into the hole is matched to one that does not, and the patches vote
for the pixels of the hole. Matches are found as in C. Barnes and others, "PatchMatch", 2009. Chance is
seeded: the same hole is always closed in the same way.
"""

from __future__ import annotations

from typing import Any, Final

import cv2
import numpy as np
from numba import njit
from numpy.typing import NDArray

from kitecore.arrays import box_of
from kitecore.picture.layer import Rgba
from kitecore.picture.retouch.membrane import in_light

_HALF: Final = 3
"""Pixels of a patch on each side of its middle."""
_THINNEST: Final = 3.0
"""Pixels from the edge of the hole to its middle at which it is coarse enough to begin."""
_VOTES: Final = 5
"""Rounds of matching and voting on each level but the finest, which needs fewer."""
_VOTES_FINE: Final = 2
_AROUND: Final = 1.2
_LEAST_AROUND: Final = 48
"""How far around the hole its like is looked for: in sizes of the hole, and in pixels at least."""

Array = NDArray[Any]


def completed(picture: Rgba, hole: NDArray[np.bool_]) -> Rgba:
    """A picture with its hole closed; one that is all hole stays as it is.

    Parameters
    ----------
    picture
        Premultiplied RGBA, shape (height, width, 4).
    hole
        Which pixels are to be made anew, shape (height, width).
    """
    box = box_of(hole)
    if box is None or hole.all():
        return picture
    left, top, right, bottom = box
    more = round(max(_LEAST_AROUND, _AROUND * max(right - left, bottom - top)))
    height, width = hole.shape
    part = np.s_[
        max(top - more, 0) : min(bottom + more, height),
        max(left - more, 0) : min(right + more, width),
    ]
    out = picture.copy()
    out[part] = _closed(picture[part], hole[part])
    return out


def _closed(picture: Rgba, hole: NDArray[np.bool_]) -> Rgba:
    """From coarse to fine."""
    levels = [(picture.astype(np.float32), hole)]
    while _deep(levels[-1][1]) > _THINNEST and min(levels[-1][1].shape) >= 8 * _HALF:
        levels.append(_halved(*levels[-1]))
    finer, hole = levels[-1]
    smooth = in_light(finer, np.zeros(finer.shape, np.uint8), hole.astype(np.uint8))
    guess = np.where(hole[..., None], smooth, finer).astype(np.float32)
    matches = None
    for number in range(len(levels) - 1, -1, -1):
        level, hole = levels[number]
        larger = cv2.resize(guess, hole.shape[::-1], interpolation=cv2.INTER_LINEAR)
        guess = np.where(hole[..., None], larger, level).astype(np.float32)
        guess, matches = _voted(guess, hole, matches, finest=number == 0)
    return np.rint(np.clip(guess, 0, 255)).astype(np.uint8)


def _deep(hole: NDArray[np.bool_]) -> float:
    """Pixels from the edge of a hole to the middle of it."""
    return float(cv2.distanceTransform(hole.astype(np.uint8), cv2.DIST_L2, 3).max())


def _halved(picture: Array, hole: NDArray[np.bool_]) -> tuple[Array, NDArray[np.bool_]]:
    """Half as large, from what is not hole; a pixel is hole if half of what it stands for is."""
    height, width = hole.shape
    size = (width + 1) // 2, (height + 1) // 2
    known = (~hole).astype(np.float32)
    share = cv2.resize(known, size, interpolation=cv2.INTER_AREA)
    small = cv2.resize(picture * known[..., None], size, interpolation=cv2.INTER_AREA)
    return small / np.maximum(share, 1e-3)[..., None], share < 0.5


def _voted(
    guess: Array, hole: NDArray[np.bool_], before: Array | None, *, finest: bool
) -> tuple[Array, Array | None]:
    """A level's hole after some rounds, and the match of each of its patches.

    No matches if no whole patch lies outside of the hole.
    """
    side = np.ones((2 * _HALF + 1, 2 * _HALF + 1), np.uint8)
    reaches = cv2.dilate(hole.astype(np.uint8), side) > 0
    usable = ~reaches
    usable[:_HALF], usable[-_HALF:], usable[:, :_HALF], usable[:, -_HALF:] = (False,) * 4
    places = np.argwhere(usable).astype(np.int32)
    if not len(places):
        return guess, None
    matches = _first_matches(reaches, usable, places, before)
    costs = np.zeros(hole.shape, np.float32)
    for turn in range(_VOTES_FINE if finest else _VOTES):
        _match(guess, reaches, usable, matches, costs, turn)
        guess = _vote(guess, hole, reaches, matches, costs)
    if finest:
        _match(guess, reaches, usable, matches, costs, _VOTES_FINE)
        _take(guess, hole, matches)
    return guess, matches


def _first_matches(
    reaches: Array, usable: Array, places: NDArray[np.int32], before: Array | None
) -> NDArray[np.int32]:
    """By chance; or as on the coarser level."""
    chance = np.random.default_rng(7)
    height, width = usable.shape
    drawn = places[chance.integers(0, len(places), (height, width))]
    if before is None:
        return np.ascontiguousarray(drawn, dtype=np.int32)
    y, x = np.mgrid[0:height, 0:width]
    rows, columns = np.minimum(y // 2, len(before) - 1), np.minimum(x // 2, before.shape[1] - 1)
    found = 2 * before[rows, columns] + np.dstack([y % 2, x % 2])
    found = np.clip(found, 0, [height - 1, width - 1])
    good = usable[found[..., 0], found[..., 1]]
    return np.ascontiguousarray(np.where(good[..., None], found, drawn), dtype=np.int32)


@njit(cache=True, nogil=True)
def _cost(picture: Array, y: int, x: int, to_y: int, to_x: int, most: Any) -> Any:
    """Mean squared difference of two patches, of what lies within the picture; ``most`` if not less."""
    rows, columns, _ = picture.shape
    total, count = np.float32(0), 0
    for down in range(-_HALF, _HALF + 1):
        for across in range(-_HALF, _HALF + 1):
            row, column = y + down, x + across
            if row < 0 or column < 0 or row >= rows or column >= columns:
                continue
            count += 1
            for c in range(4):
                gap = picture[row, column, c] - picture[to_y + down, to_x + across, c]
                total += gap * gap
        if total > most * np.float32(49):
            return most
    return total / np.float32(count)


@njit(cache=True, nogil=True)
def _match(
    picture: Array, reaches: Array, usable: Array, matches: Array, costs: Array, turn: int
) -> None:
    """Better matches: those of neighbours, shifted, and some by chance ever nearer."""
    rows, columns = reaches.shape
    far = max(rows, columns)
    seed = np.uint32(2463534242 + 7919 * turn)
    for y in range(rows):
        for x in range(columns):
            if reaches[y, x]:
                one = matches[y, x]
                costs[y, x] = _cost(picture, y, x, one[0], one[1], np.float32(1e12))
    for sweep in range(2):
        step = 1 if (sweep + turn) % 2 == 0 else -1
        for j in range(rows):
            y = j if step > 0 else rows - 1 - j
            for i in range(columns):
                x = i if step > 0 else columns - 1 - i
                if not reaches[y, x]:
                    continue
                best_y, best_x, best = matches[y, x, 0], matches[y, x, 1], costs[y, x]
                for side in range(2):
                    ny, nx = (y - step, x) if side else (y, x - step)
                    if ny < 0 or nx < 0 or ny >= rows or nx >= columns or not reaches[ny, nx]:
                        continue
                    ty, tx = matches[ny, nx, 0] + y - ny, matches[ny, nx, 1] + x - nx
                    if ty < 0 or tx < 0 or ty >= rows or tx >= columns or not usable[ty, tx]:
                        continue
                    cost = _cost(picture, y, x, ty, tx, best)
                    if cost < best:
                        best_y, best_x, best = ty, tx, cost
                reach = far
                while reach >= 1:
                    seed ^= seed << np.uint32(13)
                    seed ^= seed >> np.uint32(17)
                    seed ^= seed << np.uint32(5)
                    ty = best_y - reach + np.int64(seed % np.uint32(2 * reach + 1))
                    seed ^= seed << np.uint32(13)
                    seed ^= seed >> np.uint32(17)
                    seed ^= seed << np.uint32(5)
                    tx = best_x - reach + np.int64(seed % np.uint32(2 * reach + 1))
                    reach //= 2
                    if ty < 0 or tx < 0 or ty >= rows or tx >= columns or not usable[ty, tx]:
                        continue
                    cost = _cost(picture, y, x, ty, tx, best)
                    if cost < best:
                        best_y, best_x, best = ty, tx, cost
                matches[y, x, 0], matches[y, x, 1], costs[y, x] = best_y, best_x, best


@njit(cache=True, nogil=True)
def _vote(picture: Array, hole: Array, reaches: Array, matches: Array, costs: Array) -> Array:
    """Each pixel of the hole as the patches over it say, the better the more."""
    rows, columns, channels = picture.shape
    out = picture.copy()
    for y in range(rows):
        for x in range(columns):
            if not hole[y, x]:
                continue
            total = np.zeros(channels, np.float32)
            weight = np.float32(0)
            for down in range(-_HALF, _HALF + 1):
                for across in range(-_HALF, _HALF + 1):
                    row, column = y + down, x + across
                    if row < 0 or column < 0 or row >= rows or column >= columns:
                        continue
                    if not reaches[row, column]:
                        continue
                    share = np.float32(1) / (np.float32(1) + costs[row, column]) ** 2
                    from_y = matches[row, column, 0] - down
                    from_x = matches[row, column, 1] - across
                    weight += share
                    for c in range(channels):
                        total[c] += share * picture[from_y, from_x, c]
            for c in range(channels):
                out[y, x, c] = total[c] / weight
    return out


@njit(cache=True, nogil=True)
def _take(picture: Array, hole: Array, matches: Array) -> None:
    """Each pixel of the hole as the middle of its match: an average would have lost the grain."""
    rows, columns = hole.shape
    for y in range(rows):
        for x in range(columns):
            if hole[y, x]:
                for c in range(picture.shape[2]):
                    picture[y, x, c] = picture[matches[y, x, 0], matches[y, x, 1], c]
