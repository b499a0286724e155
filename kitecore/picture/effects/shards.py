from __future__ import annotations

import math
from dataclasses import replace
from typing import Final

import numpy as np

from kitecore.document.effects.shards import Shards
from kitecore.motion.plain import number, pair
from kitecore.picture.effects._base import bounded, effect_drawings, length_of
from kitecore.picture.layer import Layer, moved
from kitecore.picture.shards import Breaking, Faces, Flight, draw_faces, faces_of, flown, pieces_of
from kitecore.picture.shards.faces import View

MOST_ROOM: Final = 800
"""Canvas pixels around a picture into which its pieces are seen to fly."""
_NEAREST_EYE: Final = 0.8
_FARTHEST_EYE: Final = 1e4
"""Heights of the picture before it: there all lines are parallel."""


@effect_drawings.register("shards")
def shards(layer: Layer, effect: Shards, tick: int) -> Layer:
    """Pieces on their ways, the nearest in front; at an amount of 0 the picture itself."""
    amount = bounded(effect.amount, 0.0, 1.0)
    if amount == 0:
        return layer
    height, width = layer.pixels.shape[:2]
    breaking, flight = _breaking(layer, effect), _flight(layer, effect, amount)
    pieces = pieces_of(breaking)
    poses = flown(pieces, breaking, flight)
    view = View(
        scale=height,
        middle=(width / 2, height / 2),
        eye=_eye(bounded(effect.perspective, 0.0, 1.0)),
        thickness=max(0.0, length_of(effect.thickness, layer)) / height,
        light=bounded(effect.light, 0.0, 1.0),
    )
    faces = faces_of(pieces, poses, layer.pixels, view.middle, view)
    border = 0 if layer.endless else _room(faces, layer)
    canvas = np.zeros((height + 2 * border, width + 2 * border, 4), np.uint8)
    draw_faces(canvas, layer.pixels, _shifted(faces, border))
    return replace(layer, pixels=canvas, matrix=layer.matrix @ moved(-border, -border))


def _breaking(layer: Layer, effect: Shards) -> Breaking:
    height, width = layer.pixels.shape[:2]
    x, y = (side * layer.density / height for side in pair(effect.centre))
    return Breaking(
        aspect=width / height,
        count=round(bounded(effect.count, 2, 1200)),
        seed=effect.seed,
        unlike=bounded(effect.variety, 0.0, 1.0),
        near=bounded(effect.near, 0.0, 1.0),
        centre=(round(x, 4), round(y, 4)),
    )


def _flight(layer: Layer, effect: Shards, amount: float) -> Flight:
    height = layer.pixels.shape[0]
    distance, fall, depth = (
        length_of(one, layer, 2e4) / height for one in (effect.distance, effect.fall, effect.depth)
    )
    return Flight(
        amount=amount,
        distance=distance,
        scatter=number(effect.scatter),
        fall=fall,
        direction=number(effect.direction),
        depth=depth,
        spin=number(effect.spin),
        delay=bounded(effect.delay, 0.0, 0.95),
    )


def _eye(perspective: float) -> float:
    return min(_NEAREST_EYE / perspective, _FARTHEST_EYE) if perspective > 0 else _FARTHEST_EYE


def _room(faces: Faces, layer: Layer) -> int:
    """Pixels by which the pieces reach beyond the picture."""
    height, width = layer.pixels.shape[:2]
    low, high = faces.corners.min(axis=0), faces.corners.max(axis=0)
    far = float(max(-low.min(), high[0] - width, high[1] - height, 0.0))
    return math.ceil(min(far + 1, MOST_ROOM * layer.density))


def _shifted(faces: Faces, by: int) -> Faces:
    """The same on a canvas with a border."""
    return replace(
        faces, corners=faces.corners + by, whence=np.asarray(faces.whence @ moved(-by, -by))
    )
