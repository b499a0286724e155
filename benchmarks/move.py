"""Rows of motion: many layers with keys, warps, a still while a pin is dragged."""

from __future__ import annotations

import math

import numpy as np

from benchmarks.core import Workshop
from benchmarks.rows import Row, side_by_side
from kitecore import edits
from kitecore.document import ClipBase, Document, Place, ShapeClip, StillClip, empty_document
from kitecore.document.ease import OVERSHOOT, SOFT, Ease, Spring
from kitecore.document.fills import PlainFill
from kitecore.document.moves import Meanwhile, Moves
from kitecore.document.properties import Key, LatticeKeys, NumberKeys, PointKeys, SpotKey
from kitecore.document.shapes import EllipseForm, RectangleForm
from kitecore.document.warps import GridWarp, Pin, PinWarp
from kitecore.edits import edit_kinds
from kitecore.picture.warps.mesh import outline_mesh
from kitecore.picture.warps.rigid import RigidMesh
from kitecore.render.pieces import picture_piece
from kitecore.render.sources import Sources
from kitecore.render.still import still
from kitecore.ticks import TICKS_PER_SECOND

LENGTH = 3 * TICKS_PER_SECOND
LAYERS = 30
PREVIEW = (360, 640)


def moving(shop: Workshop) -> list[Row]:
    piece = moving_piece(shop)
    return [_preview(shop, piece), _still(shop, piece), _settling()]


def moving_piece(shop: Workshop) -> Document:
    """3 s: a still as the ground, 28 small layers with keys, one bent by pins, one by a grid."""
    ground = StillClip(media="evening-sheet", length=LENGTH, place=Place(fit="fill"))
    document = edits.apply(empty_document(), edit_kinds["place"](clip=ground))
    clips: list[ClipBase] = [_leaf(number) for number in range(LAYERS - 2)]
    clips += [_pinned(), _gridded()]
    for clip in clips:
        document = edits.apply(document, edit_kinds["place"](clip=clip, mode="above", at=0))
    return document


def _leaf(number: int) -> ShapeClip:
    eases: tuple[Ease, ...] = (SOFT, OVERSHOOT, Spring())
    angle = number * 2.4
    x, y = 380 * math.cos(angle), 760 * math.sin(angle)
    way = PointKeys(
        keys=tuple(
            SpotKey(
                at=at * LENGTH // 3,
                value=(x + 90 * at, y - 60 * at * (-1) ** number),
                before=(-40.0, 30.0),
                after=(40.0, -30.0),
                ease=eases[(number + at) % 3],
            )
            for at in range(4)
        )
    )
    turn = NumberKeys(keys=(Key(at=0, value=0.0, ease=SOFT), Key(at=LENGTH, value=160.0)))
    form = EllipseForm(size=(150, 90)) if number % 2 else RectangleForm(size=(140, 110), radius=18)
    return ShapeClip(
        name=f"leaf {number}",
        length=LENGTH,
        form=form,
        fill=PlainFill(colour=("#e5604d", "#f4c15c", "#5d4384")[number % 3]),
        place=Place(position=way, turn=turn),
        moves=Moves(meanwhile=(Meanwhile(id="air", kind="float"),) if number % 3 == 0 else ()),
    )


def _pinned() -> ShapeClip:
    swing = PointKeys(
        keys=tuple(
            SpotKey(at=n * LENGTH // 6, value=(0.14 * (-1) ** n, -0.45), ease=SOFT)
            for n in range(7)
        )
    )
    pins = (
        Pin(id="top", rest=(0.0, -0.45), at=swing),
        Pin(id="middle", rest=(0.0, 0.0), at=(0.0, 0.0)),
        Pin(id="low", rest=(0.0, 0.45), at=(0.0, 0.45)),
    )
    later = TICKS_PER_SECOND // 10
    warp = PinWarp(pins=pins, chain=("top", "middle", "low"), later=later)
    form = RectangleForm(size=(160, 700), radius=60)
    return ShapeClip(name="tail", length=LENGTH, form=form, warp=warp)


def _gridded() -> ShapeClip:
    chance = np.random.default_rng(5)
    poses = [chance.uniform(-0.12, 0.12, (16, 2)) for _ in range(6)]
    keys = tuple(
        Key(at=n * LENGTH // 5, value=tuple((float(x), float(y)) for x, y in pose), ease=SOFT)
        for n, pose in enumerate(poses)
    )
    return ShapeClip(
        name="wing",
        length=LENGTH,
        form=EllipseForm(size=(420, 300)),
        place=Place(position=(150.0, 300.0)),
        warp=GridWarp(columns=3, rows=3, points=LatticeKeys(keys=keys)),
    )


def _preview(shop: Workshop, piece: Document) -> Row:
    def play() -> None:
        sources = Sources(shop.find, draft=True)
        for first in range(0, piece.frames, 15):
            picture_piece(piece, first, min(first + 15, piece.frames), PREVIEW, sources)
        sources.close()

    play()
    [taken] = side_by_side(5, play)
    pace = piece.length / TICKS_PER_SECOND / taken
    how = (
        f"{taken:.2f} s for 3 s at 640 px, encoding and start of a render process's cache included"
    )
    what = f"preview of {LAYERS} layers with keys and two warps"
    return Row(what, f"{pace:.1f} × real time", "≥ 1 ×", how, pace >= 1)


def _still(shop: Workshop, piece: Document) -> Row:
    sources = Sources(shop.find, draft=True)
    step = piece.rate.exact.frame_ticks
    clip = next(clip for _, clip in piece.clips() if clip.name == "tail")
    turn = iter(range(10**6))

    def drag() -> None:
        # A pin goes elsewhere each time, as under a finger.
        x = 0.1 * math.sin(next(turn) / 5)
        values = {"warp/pins/low/at": [x, 0.45]}
        now = edits.apply(piece, edit_kinds["adjust"](clips=(clip.id,), values=values))
        still(now, 40 * step, 640, sources)

    taken = 1000 * side_by_side(40, drag)[0]
    sources.close()
    what = "still of the same while a pin is dragged"
    return Row(what, f"{taken:.0f} ms", "≤ 100 ms", "median of 40, 640 px", taken <= 100)


def _settling() -> Row:
    alpha = np.zeros((640, 200), np.uint8)
    alpha[20:620, 40:160] = 255
    rests = np.array([[0.0, -0.4], [0.0, 0.0], [0.0, 0.4]])
    mesh = outline_mesh(alpha, 200 / 640, rests)
    rigid = RigidMesh(mesh, 3, 0.3)
    targets = rests + np.array([[0.1, 0], [0, 0], [0, 0]])
    rigid.bent(targets)
    taken = 1000 * side_by_side(40, lambda: rigid.bent(targets))[0]
    how = f"median of 40, {len(mesh.points)} points, {len(mesh.triangles)} triangles"
    return Row("settling of a pinned mesh", f"{taken:.1f} ms", "≤ 5 ms", how, taken <= 5)
