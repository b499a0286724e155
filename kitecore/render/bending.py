"""Layers bent by their pins or their grid, at a moment."""

from __future__ import annotations

from collections.abc import Hashable
from dataclasses import dataclass, replace
from typing import Any, Final

import numpy as np

from kitecore.arrays import box_of
from kitecore.document import Pictured
from kitecore.document.warps import Area, GridWarp, PinWarp
from kitecore.kept import Kept
from kitecore.motion import value_at
from kitecore.picture.layer import Layer
from kitecore.picture.warps.drawing import on_mesh
from kitecore.picture.warps.grid import Sheet, bent_grid, grid_lines, grid_mesh
from kitecore.picture.warps.mesh import Mesh, Points, outline_mesh, outlined
from kitecore.picture.warps.rigid import RigidMesh
from kitecore.render.stage import Stage

_meshes: Kept[RigidMesh] = Kept(48)
_STILL: Final = 1e-9
_SEEN: Final = 8
"""Of 255: an alpha that counts as something."""


@dataclass(frozen=True)
class Bent:
    """A mesh at rest, where its points are, and which pairs of them show its lines."""

    mesh: Mesh
    points: Points
    lines: Any

    @property
    def at_rest(self) -> bool:
        return bool(np.abs(self.points - self.mesh.points).max() < _STILL)


def bent(layer: Layer, clip: Pictured, moment: int, aspect: float, stage: Stage) -> Layer:
    """The layer after its clip's warp at a tick of the clip; itself where nothing is bent.

    Parameters
    ----------
    aspect
        Width of its picture for a height of 1.
    """
    found = bending(layer, clip, moment, aspect)
    if found is None or found.at_rest or not len(found.mesh.triangles):
        return layer

    def draw() -> Layer:
        return on_mesh(layer, found.mesh, found.points, aspect)

    if layer.constant is None:
        return draw()
    return replace(draw(), constant=(layer.constant, found.points.tobytes()))


def bending(layer: Layer, clip: Pictured, moment: int, aspect: float) -> Bent | None:
    """How a clip's warp bends its picture; None if it has none."""
    warp = clip.warp
    if warp is None or not warp.on:
        return None
    if isinstance(warp, GridWarp):
        offsets = np.array(value_at(warp.points, moment), float)
        sheet = Sheet(warp.columns, warp.rows, aspect, warp.area)
        return Bent(grid_mesh(sheet), bent_grid(offsets, sheet), grid_lines(sheet))
    if not warp.pins:
        return None
    rigid = _rigid(layer, warp, aspect)
    return Bent(rigid.mesh, rigid.bent(pins_at(warp, moment)), rigid.mesh.edges)


def seen_of(layer: Layer) -> Area | None:
    """Left, top, right and bottom of what is seen of a layer, in its heights from its middle."""
    alpha = np.asarray(layer.pixels[..., 3])
    box = box_of(alpha > _SEEN)
    if box is None:
        return None
    high, wide = alpha.shape
    left, right = ((at - wide / 2) / high for at in box[::2])
    top, bottom = (at / high - 0.5 for at in box[1::2])
    return left, top, right, bottom


def pins_at(warp: PinWarp, moment: int) -> Points:
    """Where its pins are, shape (pins, 2): a chain goes along with its top, each pin later."""
    spots = {pin.id: np.array(value_at(pin.at, moment), float) for pin in warp.pins}
    by_id = {pin.id: pin for pin in warp.pins}
    if len(warp.chain) > 1:
        top = by_id[warp.chain[0]]
        for place, name in enumerate(warp.chain[1:], start=1):
            then = np.array(value_at(top.at, moment - place * warp.later), float)
            spots[name] = spots[name] + then - np.array(top.rest)
    return np.array([spots[pin.id] for pin in warp.pins])


def _rigid(layer: Layer, warp: PinWarp, aspect: float) -> RigidMesh:
    """The mesh of a layer's outline; of a picture that changes, as it is at the moment."""
    rests = tuple(pin.rest for pin in warp.pins)
    alpha = np.ascontiguousarray(layer.pixels[..., 3])
    everywhere = layer.constant is None and (not alpha.any() or bool(alpha.min() == 255))
    if everywhere:
        picture: Hashable = ("all of it", aspect)
    else:
        picture = layer.constant or (outlined(alpha).tobytes(), aspect)

    def make() -> RigidMesh:
        seen = np.full_like(alpha, 255) if everywhere or not alpha.any() else alpha
        mesh = outline_mesh(seen, aspect, np.array(rests, float))
        return RigidMesh(mesh, len(rests), warp.stiffness)

    return _meshes.get((picture, rests, warp.stiffness), make)
