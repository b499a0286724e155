from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Final

import numpy as np
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
    corners: list[Array] = []
    whence: list[Array] = []
    tints: list[Array] = []
    for index in np.argsort(poses.now[:, 2], kind="stable"):
        piece, turn, now = pieces[index], poses.turns[index], poses.now[index]
        flat = np.zeros((len(piece), 3))
        flat[:, :2] = piece - poses.rest[index]
        thick = view.thickness if poses.gone[index] > 0 else 0.0
        front, back = (
            _on_screen((flat - [0, 0, depth]) @ turn.T + now, view) for depth in (0, thick)
        )
        towards = _area(front) > 0
        if thick > 0:
            for side, tint in _sides(front, back, piece, picture, rest, view):
                corners.append(side)
                whence.append(np.zeros((3, 3)))
                tints.append(tint)
        face, depth = (front, 0.0) if towards else (back, thick)
        corners.append(face)
        whence.append(_whence(turn, now, poses.rest[index], depth, rest, view))
        tints.append(np.full(3, _lit(turn[:, 2], view.light)))
    starts = np.cumsum([0, *(len(face) for face in corners)])
    return Faces(np.concatenate(corners), starts, np.array(whence), np.array(tints))


def _on_screen(points: Array, view: View) -> Array:
    near = view.eye / (view.eye - np.minimum(points[:, 2:], _NEAREST * view.eye))
    return np.asarray(points[:, :2] * near * view.scale + view.middle)


def _area(polygon: Array) -> float:
    following = np.roll(polygon, -1, axis=0)
    return float((polygon[:, 0] * following[:, 1] - following[:, 0] * polygon[:, 1]).sum())


def _sides(
    front: Array, back: Array, piece: Polygon, picture: Rgba, rest: tuple[float, float], view: View
) -> Iterator[tuple[Array, Array]]:
    """The sides between front and back that look at the eye, and their colours."""
    following = np.roll(np.arange(len(piece)), -1)
    middle = piece.mean(axis=0)
    for one, other in enumerate(following):
        side = np.array([front[one], back[one], back[other], front[other]])
        if _area(side) <= 0:
            continue
        spot = (piece[one] + piece[other]) / 2 * (1 - _WITHIN) + middle * _WITHIN
        x, y = spot * view.scale + rest
        row = min(max(int(y), 0), picture.shape[0] - 1)
        column = min(max(int(x), 0), picture.shape[1] - 1)
        pixel = picture[row, column].astype(np.float64)
        if pixel[3] > _SOLID:
            yield side, pixel[:3] * (_EDGE - view.light * _SHADE)


def _lit(normal: Array, light: float) -> float:
    """The light on a face, 1 if it looks at the eye, by the cosine to where the light comes from."""
    share = float(normal @ _LIGHT) / float(_LIGHT[2])
    if normal[2] < 0:
        share = _BEHIND * -share
    return min(max(1 + light * (share - 1), 0.0), _BRIGHTEST)


def _whence(
    turn: Array, now: Array, middle: Array, depth: float, rest: tuple[float, float], view: View
) -> Array:
    """From the screen to the picture's pixels: the way of a flat face to the screen, turned back."""
    origin = now - turn @ np.array([*middle, depth])
    plane = np.column_stack([turn[:, 0], turn[:, 1], origin])
    # x = eye · X / (eye - Z), in heights.
    lens = np.array([[view.eye, 0, 0], [0, view.eye, 0], [0, 0, -1.0]]) @ plane
    lens[2, 2] += view.eye
    screen = _placed(view.scale, view.middle)
    own = _placed(view.scale, rest)
    return np.asarray(own @ np.linalg.pinv(screen @ lens))


def _placed(scale: float, middle: tuple[float, float]) -> Array:
    return np.array([[scale, 0, middle[0]], [0, scale, middle[1]], [0, 0, 1.0]])
