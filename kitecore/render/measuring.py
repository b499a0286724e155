"""What the colours of a clip say: for its balance, for matching it to another."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from typing import Any, Final

import numpy as np
from numpy.typing import NDArray

from kitecore.colour.chain import adjusted, graded
from kitecore.colour.cube import Cube
from kitecore.colour.cubefile import write_cube
from kitecore.colour.lattice import lattice
from kitecore.colour.measure import (
    match_of,
    neutral_balance,
    range_of_hues,
    suggested_balance,
)
from kitecore.colour.scopes import distance_from_neutral
from kitecore.document import AdjustmentClip, ClipBase, Document, Grade, Pictured
from kitecore.errors import BadInput
from kitecore.media.pixels import fitting
from kitecore.motion import still_at
from kitecore.picture.layer import Layer, moved
from kitecore.picture.screens import screens_in
from kitecore.render.frame import stage_of
from kitecore.render.painters import paint
from kitecore.render.sources import Sources

SIDE: Final = 320
"""Pixels of the longer side of a picture that is measured."""
SPOT: Final = 3
"""Pixels around a tapped one that count as the spot."""
CUBE_SIZE: Final = 33

Colours = NDArray[np.float64]


def neutral_spot(
    document: Document, clip_id: str, tick: int, spot: tuple[float, float], sources: Sources
) -> dict[str, Any]:
    """The balance that makes what lies at ``spot`` (canvas pixels) of a clip neutral.

    Returns
    -------
    ``warmth`` and ``tint``; ``distance`` from neutral as the clip is graded now, and ``after`` as
    it would be with them; ``rgb`` as it is now, 0..255.
    """
    clip, local = _shown(document, clip_id, tick)
    colours = _spot_of(document, clip, local, spot, sources)
    grade = _grade(clip, local)
    before = adjusted(colours, grade, sources.tables.find, before="balance")
    warmth, tint = neutral_balance(before)
    balance = grade.balance.model_copy(update={"on": True, "warmth": warmth, "tint": tint})
    now = graded(colours, grade, sources.tables.find).mean(axis=0)
    then = graded(colours, grade.model_copy(update={"balance": balance}), sources.tables.find)
    return {
        "warmth": round(warmth),
        "tint": round(tint),
        "distance": distance_from_neutral(now),
        "after": distance_from_neutral(then.mean(axis=0)),
        "rgb": np.rint(np.clip(now, 0, 1) * 255).astype(int).tolist(),
    }


def suggestion(document: Document, clip_id: str, tick: int, sources: Sources) -> dict[str, Any]:
    """A balance for the light of a clip's picture, to be taken or refused."""
    clip, local = _shown(document, clip_id, tick)
    colours = _colours(_plain_layer(document, clip, local, sources).pixels)
    before = adjusted(colours, _grade(clip, local), sources.tables.find, before="balance")
    warmth, tint = suggested_balance(before)
    return {"warmth": round(warmth), "tint": round(tint)}


def screens(document: Document, clip_id: str, tick: int, sources: Sources) -> dict[str, Any]:
    """Colours of a clip that may be a screen (see `kitecore.picture.screens`)."""
    clip, local = _shown(document, clip_id, tick)
    pixels = _plain_layer(document, clip, local, sources).pixels
    rgb = pixels[..., :3] / np.maximum(pixels[..., 3:], 1)
    return {"screens": [vars(found) for found in screens_in(rgb)]}


def colour_at(
    document: Document, clip_id: str, tick: int, spot: tuple[float, float], sources: Sources
) -> dict[str, Any]:
    """The colour of a clip's own picture at a spot of the canvas, as ``#rrggbb``."""
    clip, local = _shown(document, clip_id, tick)
    colour = np.median(_spot_of(document, clip, local, spot, sources), axis=0)
    return {"colour": "#" + "".join(f"{round(float(c) * 255):02x}" for c in np.clip(colour, 0, 1))}


def hue_at(
    document: Document, clip_id: str, tick: int, spot: tuple[float, float], sources: Sources
) -> dict[str, Any]:
    """The hues at a spot of the canvas, as a zone's range means them (see `HueRange`).

    ``graded`` and ``original``: of the clip after its grade without zones, and before it; each
    ``middle`` and ``width`` in degrees and ``weakest`` in per cent.
    """
    clip, local = _shown(document, clip_id, tick)
    colours = _spot_of(document, clip, local, spot, sources)
    grade = _grade(clip, local)
    return {
        "graded": range_of_hues(np.clip(adjusted(colours, grade, sources.tables.find), 0, 1)),
        "original": range_of_hues(adjusted(colours, Grade(input=grade.input), sources.tables.find)),
    }


def match(
    document: Document,
    clip_id: str,
    ticks: Sequence[int],
    other_id: str,
    other_ticks: Sequence[int],
    sources: Sources,
) -> dict[str, Any]:
    """The match stage that leads a clip to another, as that one is graded; over moments of both."""
    own, other = (_pictured(document, name) for name in (clip_id, other_id))
    before, wanted = [], []
    for tick in ticks:
        _, local = _shown(document, own.id, tick)
        ours = _colours(_plain_layer(document, own, local, sources).pixels)
        before.append(adjusted(ours, _grade(own, local), sources.tables.find, before="match"))
    for tick in other_ticks:
        _, local = _shown(document, other.id, tick)
        theirs = _colours(_plain_layer(document, other, local, sources).pixels)
        wanted.append(np.clip(graded(theirs, _grade(other, local), sources.tables.find), 0, 1))
    found = match_of(np.concatenate(before), np.concatenate(wanted), other.name[:200])
    return found.model_dump(mode="json")


def as_cube(document: Document, clip_id: str, tick: int, sources: Sources) -> str:
    """A clip's grade as the text of a .cube file; what masks limit cannot be in it."""
    clip, local = _shown(document, clip_id, tick)
    values = graded(lattice(CUBE_SIZE), _grade(clip, local), sources.tables.find).clip(0, 1)
    shape = (CUBE_SIZE, CUBE_SIZE, CUBE_SIZE, 3)
    return write_cube(Cube(values.reshape(shape), title=clip.name))


def layer_scale(document: Document) -> float:
    """Measured pixels to a pixel of the canvas."""
    canvas = document.canvas
    return fitting(canvas.width, canvas.height, SIDE)[0] / canvas.width


def _shown(document: Document, clip_id: str, tick: int) -> tuple[Pictured, int]:
    """The clip, and the moment of it nearest to a tick of the timeline."""
    clip = _pictured(document, clip_id)
    return clip, min(max(tick - clip.start, 0), clip.length - 1)


def _pictured(document: Document, clip_id: str) -> Pictured:
    clip: ClipBase = document.find_clip(clip_id)[1]
    if isinstance(clip, AdjustmentClip):
        raise BadInput(
            "An adjustment has no picture of its own.", todo="Take a picture below it in hand."
        )
    if not isinstance(clip, Pictured):
        raise BadInput("A sound has no colours.", todo="Take a picture in hand.")
    return clip


def _grade(clip: Pictured, local: int) -> Grade:
    return still_at(clip.grade or Grade(), local)


def _plain_layer(document: Document, clip: Pictured, local: int, sources: Sources) -> Layer:
    canvas = document.canvas
    stage = stage_of(document, fitting(canvas.width, canvas.height, SIDE), sources)
    plain = clip.model_copy(update={"grade": None, "key": None, "masks": (), "crop": None})
    if clip.cell is not None:
        left, top, wide, high = clip.cell.box(canvas.width, canvas.height)
        layer = paint(plain, local, stage.within((wide, high)))
        scale = layer_scale(document)
        return replace(layer, matrix=moved(left * scale, top * scale) @ layer.matrix)
    return paint(plain, local, stage)


def _spot_of(
    document: Document, clip: Pictured, local: int, spot: tuple[float, float], sources: Sources
) -> Colours:
    """Straight colours of a clip's own picture around a spot of the canvas."""
    layer = _plain_layer(document, clip, local, sources)
    scale = layer_scale(document)
    x, y, _ = np.linalg.inv(layer.matrix) @ (spot[0] * scale, spot[1] * scale, 1)
    height, width = layer.pixels.shape[:2]
    column, row = int(np.floor(x)), int(np.floor(y))
    if not (0 <= column < width and 0 <= row < height) or not layer.pixels[row, column, 3]:
        raise BadInput("The clip in hand is not there.", todo="Tap on its picture.")
    part = layer.pixels[
        max(row - SPOT, 0) : row + SPOT + 1, max(column - SPOT, 0) : column + SPOT + 1
    ]
    return _colours(part)


def _colours(pixels: NDArray[np.uint8]) -> Colours:
    """Straight colours 0..1 of what is not transparent, shape (n, 3)."""
    flat = pixels.reshape(-1, 4).astype(np.float64)
    solid = flat[flat[:, 3] > 127]
    if not len(solid):
        raise BadInput("There is nothing to be seen of this clip here.")
    return solid[:, :3] / solid[:, 3:]
