from __future__ import annotations

from dataclasses import dataclass
from typing import Final

import numpy as np
from numba import njit
from numpy.typing import NDArray

from kitecore.picture.layer import Rgba
from kitecore.picture.shards.flight import Poses
from kitecore.picture.shards.pieces import Polygon

Array = NDArray[np.float64]

_LIGHT: Final = np.array([-0.42, -0.55, 0.72]) / np.linalg.norm([-0.42, -0.55, 0.72])
"""Where the light comes from: the left, above, before the picture."""
_BRIGHTEST: Final = 1.6
_BEHIND: Final = 0.75
"""Light on the back of a piece."""
_EDGE: Final = 0.55
"""And on its sides."""
_SHADE: Final = 0.2
"""By so much less where light makes a difference."""
_WITHIN: Final = 0.1
"""Of the way to its middle: there a piece has the colour of its side."""
_SOLID: Final = 127
"""Alpha above which a side is seen."""
_NEAREST: Final = 0.9
"""Of the way to the eye: nothing comes nearer."""


@dataclass(frozen=True)
class Faces:
    """Convex faces on the screen, the farthest first.

    ``corners`` of all of them, in pixels; face i has those from ``starts[i]`` to ``starts[i + 1]``.
    A face that shows the picture has in ``whence`` the map from the screen to the picture's pixels
    and in ``tints`` its light, three times; any other has there its colour, and nothing in ``whence``.
    """

    corners: Array
    starts: NDArray[np.int64]
    whence: Array
    tints: Array


@dataclass(frozen=True)
class View:
    """``scale`` is pixels to a height of the picture, ``middle`` where its middle is; ``eye`` how many
    heights before it the eye is; ``thickness`` in heights, ``light`` 0..1.
    """

    scale: float
    middle: tuple[float, float]
    eye: float
    thickness: float
    light: float


def faces_of(
    pieces: tuple[Polygon, ...], poses: Poses, picture: Rgba, rest: tuple[float, float], view: View
) -> Faces:
    """What is seen of the pieces.

    Parameters
    ----------
    picture, rest
        Whose pieces they are, and where its middle is in its own pixels.
    """
    counts = np.array([len(piece) for piece in pieces])
    starts = np.cumsum([0, *counts])
    owner = np.repeat(np.arange(len(pieces)), counts)
    at_rest = np.concatenate(pieces)
    flat = np.zeros((len(at_rest), 3))
    flat[:, :2] = at_rest - poses.rest[owner]
    thick = np.where(poses.gone > 0, view.thickness, 0.0)
    fronts = _on_screen(_turned(flat, poses, owner), view)
    flat[:, 2] = -thick[owner]
    backs = _on_screen(_turned(flat, poses, owner), view)
    sides = _side_tints(at_rest, poses.rest[owner], starts, picture, rest, view)
    order = np.argsort(poses.now[:, 2], kind="stable")
    corners, begins, shown, towards = _in_order(order, starts, fronts, backs, sides[:, 3], thick)
    whence = np.zeros((len(begins) - 1, 3, 3))
    tints = sides[np.where(shown < 0, -shown - 1, 0), :3]
    depth = np.where(towards, 0.0, thick)
    flats = shown >= 0
    whence[flats] = _whence(poses, depth, rest, view)[shown[flats]]
    lights = _lit(poses.turns[:, :, 2], view.light)
    tints[flats] = lights[shown[flats]][:, None]
    return Faces(corners, begins, whence, tints)


def _turned(flat: Array, poses: Poses, owner: NDArray[np.int64]) -> Array:
    turned = np.einsum("nij,nj->ni", poses.turns[owner], flat)
    return np.asarray(turned + poses.now[owner])


def _on_screen(points: Array, view: View) -> Array:
    near = view.eye / (view.eye - np.minimum(points[:, 2:], _NEAREST * view.eye))
    return np.asarray(points[:, :2] * near * view.scale + view.middle)


def _side_tints(
    corners: Array,
    middles: Array,
    starts: NDArray[np.int64],
    picture: Rgba,
    rest: tuple[float, float],
    view: View,
) -> Array:
    """Of the side that begins at each corner its colour in shade, and whether anything is seen there."""
    following = np.arange(len(corners)) + 1
    following[starts[1:] - 1] = starts[:-1]
    spots = (corners + corners[following]) / 2 * (1 - _WITHIN) + middles * _WITHIN
    x, y = (spots * view.scale + rest).astype(np.int64).T
    height, width = picture.shape[:2]
    tints = picture[np.clip(y, 0, height - 1), np.clip(x, 0, width - 1)].astype(np.float64)
    tints[:, :3] *= _EDGE - view.light * _SHADE
    tints[:, 3] = tints[:, 3] > _SOLID
    return np.asarray(tints)


@njit(cache=True, nogil=True)
def _in_order(
    order: NDArray[np.int64],
    starts: NDArray[np.int64],
    fronts: Array,
    backs: Array,
    solid: Array,
    thick: Array,
) -> tuple[Array, NDArray[np.int64], NDArray[np.int64], NDArray[np.bool_]]:
    """Corners of all faces that look at the eye, where each begins, what it shows (a piece, or of
    which corner the side, as -1 - corner), and which pieces show their front.
    """
    total, most = len(fronts), 5 * len(fronts)
    corners, begins = np.empty((most, 2)), np.empty(total + len(order) + 1, np.int64)
    shown = np.empty(total + len(order), np.int64)
    towards = np.empty(len(order), np.bool_)
    count, faces = 0, 0
    for piece in order:
        first, last = starts[piece], starts[piece + 1]
        towards[piece] = _area(fronts[first:last]) > 0
        if thick[piece] > 0:
            for one in range(first, last):
                other = one + 1 if one + 1 < last else first
                side = corners[count : count + 4]
                side[0], side[1], side[2], side[3] = (
                    fronts[one],
                    backs[one],
                    backs[other],
                    fronts[other],
                )
                if solid[one] > 0 and _area(side) > 0:
                    begins[faces], shown[faces] = count, -1 - one
                    count, faces = count + 4, faces + 1
        begins[faces], shown[faces] = count, piece
        corners[count : count + last - first] = (fronts if towards[piece] else backs)[first:last]
        count, faces = count + last - first, faces + 1
    begins[faces] = count
    return corners[:count], begins[: faces + 1], shown[:faces], towards


@njit(cache=True, nogil=True)
def _area(polygon: Array) -> float:
    """Twice the area, positive if its corners go round as they do at rest."""
    total = 0.0
    for one in range(len(polygon)):
        other = one + 1 if one + 1 < len(polygon) else 0
        total += polygon[one, 0] * polygon[other, 1] - polygon[other, 0] * polygon[one, 1]
    return total


def _lit(normals: Array, light: float) -> Array:
    """The light on faces, 1 if they look at the eye, by the cosine to where the light comes from."""
    share = normals @ _LIGHT / float(_LIGHT[2])
    share = np.where(normals[:, 2] < 0, _BEHIND * -share, share)
    return np.asarray(np.clip(1 + light * (share - 1), 0.0, _BRIGHTEST))


def _whence(poses: Poses, depth: Array, rest: tuple[float, float], view: View) -> Array:
    """From the screen to the picture's pixels, for each piece: the way of its face to the screen,
    turned back.
    """
    inner = np.column_stack([poses.rest, depth])
    origins = poses.now - np.einsum("nij,nj->ni", poses.turns, inner)
    planes = np.stack([poses.turns[:, :, 0], poses.turns[:, :, 1], origins], axis=2)
    # x = eye · X / (eye - Z), in heights.
    lens = np.array([[view.eye, 0, 0], [0, view.eye, 0], [0, 0, -1.0]]) @ planes
    lens[:, 2, 2] += view.eye
    screen, own = _placed(view.scale, view.middle), _placed(view.scale, rest)
    return np.asarray(own @ np.linalg.pinv(screen @ lens))


def _placed(scale: float, middle: tuple[float, float]) -> Array:
    return np.array([[scale, 0, middle[0]], [0, scale, middle[1]], [0, 0, 1.0]])
