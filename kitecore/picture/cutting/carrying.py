"""What is cut out of one frame, carried on to the next, where it has moved and looks a little otherwise."""

from __future__ import annotations

from dataclasses import dataclass, replace
from functools import cached_property
from typing import Any, Final

import cv2
import numpy as np
from numpy.typing import NDArray

from kitecore.picture.cutting.leading import Matte
from kitecore.picture.cutting.likeness import Colours, colours_met
from kitecore.picture.cutting.marking import Marked, Mask, levels_of
from kitecore.picture.cutting.matting import matte_from, matte_of
from kitecore.picture.cutting.selecting import selected
from kitecore.tracking.people import around, people_in

_BAND: Final = 0.05
"""Of the picture's height, to both sides of where the edge is expected: there it is looked for."""
_NEAR: Final = 0.15
"""Of the height: so far around it the ground counts as what it stands before."""
_SMALLEST: Final = 24
"""Pixels of the sides of pictures in which motion is looked for."""
_DOUBTED: Final = 1.5
"""Pixels by which the ways there and back may disagree."""
_TRUSTED: Final = 0.75
"""Share of a look at persons, against what comes from the frame before."""
_ALIKE: Final = 0.6
"""Of both together, what a look and the frame before have to agree on: below, nobody is seen there."""
_SOFT: Final = 0.03
"""Alpha from which on, and up to which from 1, hair was seen in the frame before."""
_OF_HAIR: Final = 0.1
_OF_COLOURS: Final = 0.3
_LEAST: Final = 0.02
"""How much counts, against what was moved on: what was hair, what colours say, and what they say least."""
_LIKE: Final = 0.12
"""Of the range of a colour: nearer than that a pixel looks as before."""
_LOST: Final = 0.4
"""Share of what is kept that has to look as before."""
_LATELY: Final = 0.05
"""Share of a frame in what is taken for its usual size."""

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
        What strokes put right, here or before, where it has gone by now.
    colours
        Those met so far.
    size
        How much of the picture was kept lately, 0..1.
    person
        Whether it is a person that is looked for in each frame.
    """

    picture: Picture
    inside: Mask
    alpha: Matte
    keep: Mask
    drop: Mask
    colours: Colours
    size: float
    person: bool

    @cached_property
    def levels(self) -> NDArray[np.uint8]:
        return levels_of(self.picture)

    @cached_property
    def grey(self) -> NDArray[np.uint8]:
        return np.asarray(cv2.cvtColor(self.levels, cv2.COLOR_RGB2GRAY))

    @property
    def met(self) -> Colours:
        """Colours of what is kept, and of what lies around."""
        return colours_met(self.levels, self.inside, _grown(self.inside, _NEAR))


def begun(marked: Marked, edge: float) -> Carried:
    """What marks on a frame mean; ``edge`` in heights of the picture, as in a `Cut`."""
    inside = selected(marked.levels, marked.keep, marked.drop, marked.within, marked.likely)
    wide = edge * inside.shape[0]
    alpha = matte_of(marked.picture, inside, marked.keep, marked.drop, wide, marked.hair)
    # The ground does not go along with it, and what is kept needs no more than that.
    none = np.zeros_like(inside)
    colours = colours_met(marked.levels, inside, _grown(inside, _NEAR))
    size, person = float(alpha.mean()), marked.likely is not None
    return Carried(marked.picture, inside, alpha, none, none, colours, size, person)


def corrected(now: Carried, marked: Marked, edge: float) -> Carried:
    """What was carried to a frame, after marks on that frame that say otherwise here and there."""
    keep = (now.keep & ~marked.drop) | marked.keep
    drop = (now.drop & ~marked.keep) | marked.drop
    likely = _band(now.inside)
    if marked.likely is not None:
        likely = np.maximum(likely, marked.likely)
    inside = selected(now.levels, keep, drop, marked.within, likely)
    alpha = matte_of(now.picture, inside, keep, drop, edge * inside.shape[0], marked.hair)
    one = replace(now, inside=inside, alpha=alpha)
    return replace(
        one,
        # Only what is put right goes along.
        keep=keep & (now.keep | (marked.keep & ~now.inside)),
        drop=drop & (now.drop | (marked.drop & now.inside)),
        colours=now.colours.after(one.met),
        size=float(alpha.mean()),
        person=now.person or marked.likely is not None,
    )


def carried(before: Carried, picture: Picture, edge: float) -> tuple[Carried, int]:
    """What is kept of the next frame, and how surely.

    Returns
    -------
    255 if it is all of what was to be expected from the frame before, 0 if it is gone: then nothing is kept.
    """
    blank = np.zeros_like(before.inside)
    clear = np.zeros_like(before.alpha)
    bare = replace(before, picture=picture, inside=blank, alpha=clear, keep=blank, drop=blank)
    way, known = _way(bare.grey, before.grey)
    inside, alpha = _moved(before.inside, way) > 0.5, _moved(before.alpha, way)
    alike = _alike(picture - _moved(before.picture, way), inside)
    same = float(alike[inside].mean()) if inside.any() else 0.0
    if same < _LOST:
        return bare, 0
    prior, trust, sure = _expected(bare, inside, alpha, known & alike, edge)
    keep, drop = ((_moved(one, way) > 0.5) & known for one in (before.keep, before.drop))
    prior[keep], prior[drop] = 1, 0
    found = matte_from(picture, prior, trust, sure | keep | drop)
    now = replace(bare, inside=found > 0.5, alpha=found, keep=keep, drop=drop)
    large = float(found.mean())
    size = before.size + _LATELY * (large - before.size)
    now = replace(now, colours=before.colours.after(now.met), size=size)
    steady = min(large, size) / max(large, size, 1e-6)
    return now, round(255 * min(same, steady, _overlap(now.inside, inside)))


def _expected(
    bare: Carried, inside: Mask, alpha: Matte, known: Mask, edge: float
) -> tuple[Matte, Matte, Mask]:
    """What is to be expected of a frame, how much that counts, and where it is sure.

    Where hair was the picture decides, where something has come to light its colours.
    """
    soft = (alpha > _SOFT) & (alpha < 1 - _SOFT)
    prior = _looked_at(bare.levels, inside) if bare.person else inside.astype(np.float32)
    trust = np.ones_like(alpha)
    trust[soft] = _OF_HAIR
    fresh = ~known & _grown(inside, 2 * _BAND)
    likely = bare.colours.likely(bare.levels)[fresh]
    prior[fresh] = likely
    trust[fresh] = np.maximum(_LEAST, np.abs(2 * likely - 1) * _OF_COLOURS)
    far = _from_edge(inside) > max(2.0, max(_BAND, edge) * inside.shape[0])
    sure = far & known & ~soft & ((prior < _SOFT) | (prior > 1 - _SOFT))
    return prior, trust, sure


def _alike(change: Picture, inside: Mask) -> Mask:
    """Where a picture looks as before, in whatever light; from how it has changed."""
    light = np.median(change[inside], axis=0) if inside.any() else 0
    return np.asarray(np.abs(change - light).max(axis=2) < _LIKE)


def _overlap(a: Mask, b: Mask) -> float:
    return float((a & b).sum() / max(int((a | b).sum()), 1))


def _way(now: Array, before: Array) -> tuple[Array, Mask]:
    """From where each pixel came, in pixels, shape (h, w, 2); and where that is to be believed."""
    height, width = now.shape
    grid = np.dstack(np.meshgrid(np.arange(width), np.arange(height))).astype(np.float32)
    if min(height, width) < _SMALLEST:
        return grid, np.ones(now.shape, np.bool_)
    search = cv2.DISOpticalFlow.create(cv2.DISOPTICAL_FLOW_PRESET_FAST)
    there, back = search.calc(now, before, None), search.calc(before, now, None)
    way = grid + there
    again = cv2.remap(back, way, None, cv2.INTER_LINEAR, borderMode=cv2.BORDER_REPLICATE)
    off = np.hypot(*cv2.split(there + again))
    return way, np.asarray(off < _DOUBTED)


def _moved(one: Array, way: Array) -> NDArray[np.float32]:
    values = one.astype(np.float32)
    moved = cv2.remap(values, way, None, cv2.INTER_LINEAR, borderMode=cv2.BORDER_REPLICATE)
    return np.asarray(moved, np.float32)


def _from_edge(inside: Mask) -> Array:
    """Pixels to the edge of what is kept, on both sides of it."""
    within, without = (
        cv2.distanceTransform(one.astype(np.uint8), cv2.DIST_L2, 3) for one in (inside, ~inside)
    )
    return np.asarray(np.maximum(within, without))


def _band(inside: Mask) -> Matte:
    """From 0 well outside to 1 well inside; 0.5 at the edge."""
    half = _from_edge(inside) / (2 * max(2.0, _BAND * inside.shape[0]))
    return np.asarray(np.clip(0.5 + np.where(inside, half, -half), 0, 1), np.float32)


def _looked_at(levels: NDArray[np.uint8], inside: Mask) -> Matte:
    """Where a person is seen, and a little of what was expected, if it is that one."""
    seen = np.where(_grown(inside, 2 * _BAND), people_in(levels, around(inside)), 0)
    expected = inside.astype(np.float32)
    if _overlap(seen > 0.5, inside) < _ALIKE:
        return expected
    return np.asarray(_TRUSTED * seen + (1 - _TRUSTED) * expected, np.float32)


def _grown(inside: Mask, by: float) -> Mask:
    """With what lies around, as far as so many heights of the picture."""
    side = 2 * round(by * inside.shape[0]) + 1
    disc = cv2.getStructuringElement(cv2.MORPH_ELLIPSE, (side, side))
    return np.asarray(cv2.dilate(inside.astype(np.uint8), disc) > 0)
