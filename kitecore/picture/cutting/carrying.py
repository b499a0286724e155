"""What is cut out of one frame, carried on to the next, where it has moved and looks a little otherwise."""

from __future__ import annotations

from dataclasses import dataclass, replace
from functools import cached_property
from typing import Any, Final

import cv2
import numpy as np
from numpy.typing import NDArray

from kitecore.picture.cutting.leading import Matte
from kitecore.picture.cutting.marking import Marked, Mask, levels_of
from kitecore.picture.cutting.matting import matte_of
from kitecore.picture.cutting.selecting import selected
from kitecore.tracking.people import around, people_in

_BAND: Final = 0.05
"""Of the picture's height, to both sides of where the edge is expected: there it is looked for."""
_DOUBTED: Final = 1.5
"""Pixels by which the ways there and back may disagree."""
_TRUSTED: Final = 0.75
"""Share of a look at persons, against what comes from the frame before."""
_ALIKE: Final = 0.6
"""Of both together, what a look and the frame before have to agree on: below, nobody is seen there."""
_SOFT: Final = 0.05
"""Alpha from which on, and up to which from 1, hair was seen in the frame before."""
_LIKE: Final = 0.12
"""Of the range of a colour: nearer than that a pixel looks as before."""
_LOST: Final = 0.4
_STEADY: Final = 0.15
"""Share of the frame before in soft edges, where it is known what has moved how."""

Array = NDArray[Any]
Picture = NDArray[np.float32]


@dataclass(frozen=True)
class Carried:
    """What is kept of a frame.

    Attributes
    ----------
    picture
        Its straight colours, 0..1, shape (height, width, 3).
    inside
        What is kept.
    alpha
        How much of each pixel is kept, 0..1.
    keep, drop
        What strokes said, here or before, where it has gone by now.
    person
        Whether it is a person that is looked for in each frame.
    """

    picture: Picture
    inside: Mask
    alpha: Matte
    keep: Mask
    drop: Mask
    person: bool

    @cached_property
    def levels(self) -> NDArray[np.uint8]:
        return levels_of(self.picture)

    @cached_property
    def grey(self) -> NDArray[np.uint8]:
        return np.asarray(cv2.cvtColor(self.levels, cv2.COLOR_RGB2GRAY))


def begun(marked: Marked, edge: float) -> Carried:
    """What marks on a frame mean; ``edge`` in heights of the picture, as in a `Cut`."""
    inside = selected(marked.levels, marked.keep, marked.drop, marked.within, marked.likely)
    person = marked.likely is not None
    return _matted(marked.picture, inside, marked.keep, marked.drop, edge, person)


def corrected(now: Carried, marked: Marked, edge: float) -> Carried:
    """What was carried to a frame, after marks on that frame that say otherwise here and there."""
    keep = (now.keep & ~marked.drop) | marked.keep
    drop = (now.drop & ~marked.keep) | marked.drop
    likely = _band(now.inside)
    if marked.likely is not None:
        likely = np.maximum(likely, marked.likely)
    inside = selected(now.levels, keep, drop, marked.within, likely)
    person = now.person or marked.likely is not None
    return _matted(now.picture, inside, keep, drop, edge, person)


def carried(before: Carried, picture: Picture, edge: float) -> tuple[Carried, int]:
    """What is kept of the next frame, and how surely.

    Returns
    -------
    255 if it is all of what was to be expected from the frame before, 0 if it is gone: then nothing is kept.
    """
    blank = np.zeros(before.inside.shape, np.bool_)
    bare = Carried(picture, blank, np.zeros_like(before.alpha), blank, blank, before.person)
    way, known = _way(bare.grey, before.grey)
    inside, alpha = _moved(before.inside, way) > 0.5, _moved(before.alpha, way)
    keep, drop = ((_moved(one, way) > 0.5) & known for one in (before.keep, before.drop))
    same = _same(picture, before.picture, way, inside)
    if same < _LOST:
        return bare, 0
    likely = _band(inside)
    if before.person:
        likely = _looked_at(bare.levels, inside, likely)
    found = selected(bare.levels, keep, drop, None, likely)
    soft = (alpha > _SOFT) & (alpha < 1 - _SOFT)
    now = _matted(picture, found, keep, drop, edge, before.person, soft)
    now = replace(now, alpha=_steadied(now.alpha, alpha, known))
    return now, round(255 * min(same, _overlap(found, inside)))


def _same(picture: Picture, before: Picture, way: Array, inside: Mask) -> float:
    """Share of what is kept that looks as it did, in whatever light."""
    if not inside.any():
        return 0.0
    change = (picture - _moved(before, way))[inside]
    return float((np.abs(change - np.median(change, axis=0)).max(axis=1) < _LIKE).mean())


def _overlap(a: Mask, b: Mask) -> float:
    return float((a & b).sum() / max(int((a | b).sum()), 1))


def _matted(
    picture: Picture,
    inside: Mask,
    keep: Mask,
    drop: Mask,
    edge: float,
    person: bool,
    soft: Mask | None = None,
) -> Carried:
    alpha = matte_of(picture, inside, keep, drop, edge * inside.shape[0], soft)
    return Carried(picture, inside, alpha, keep, drop, person)


def _way(now: Array, before: Array) -> tuple[Array, Mask]:
    """From where each pixel came, in pixels, shape (h, w, 2); and where that is to be believed."""
    search = cv2.DISOpticalFlow.create(cv2.DISOPTICAL_FLOW_PRESET_FAST)
    there, back = search.calc(now, before, None), search.calc(before, now, None)
    height, width = now.shape
    grid = np.dstack(np.meshgrid(np.arange(width), np.arange(height))).astype(np.float32)
    way = grid + there
    again = cv2.remap(back, way, None, cv2.INTER_LINEAR, borderMode=cv2.BORDER_REPLICATE)
    off = np.hypot(*cv2.split(there + again))
    return way, np.asarray(off < _DOUBTED)


def _moved(one: Array, way: Array) -> NDArray[np.float32]:
    values = one.astype(np.float32)
    moved = cv2.remap(values, way, None, cv2.INTER_LINEAR, borderMode=cv2.BORDER_REPLICATE)
    return np.asarray(moved, np.float32)


def _band(inside: Mask) -> NDArray[np.float32]:
    """From 0 well outside to 1 well inside; 0.5 at the edge."""
    wide = max(2.0, _BAND * inside.shape[0])
    within, without = (
        cv2.distanceTransform(one.astype(np.uint8), cv2.DIST_L2, 3) for one in (inside, ~inside)
    )
    return np.asarray(np.clip(0.5 + (within - without) / (2 * wide), 0, 1), np.float32)


def _looked_at(levels: NDArray[np.uint8], inside: Mask, band: Array) -> NDArray[np.float32]:
    """The band moved to where a person is seen, if it is that one."""
    seen = people_in(levels, around(inside))
    near = cv2.dilate(inside.astype(np.uint8), _disc(2 * _BAND * inside.shape[0])) > 0
    seen = np.where(near, seen, 0)
    if _overlap(seen > 0.5, inside) < _ALIKE:
        return np.asarray(band, np.float32)
    return np.asarray(_TRUSTED * seen + (1 - _TRUSTED) * band, np.float32)


def _steadied(alpha: Matte, before: Matte, known: Mask) -> Matte:
    """Soft edges that tremble less: some of the frame before, where both are nearly alike."""
    alike = known & (np.abs(alpha - before) < 0.5)
    return np.asarray(np.where(alike, alpha + _STEADY * (before - alpha), alpha), np.float32)


def _disc(radius: float) -> Array:
    side = 2 * round(radius) + 1
    return np.asarray(cv2.getStructuringElement(cv2.MORPH_ELLIPSE, (side, side)))
