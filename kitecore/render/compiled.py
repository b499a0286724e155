"""Compile every kernel there is, at set-up: nobody waits for one at work.

What is compiled is kept on disk. Processes that draw load the common ones when they start (`warm`).
"""

from __future__ import annotations

from typing import Final

import numpy as np

from kitecore.colour.looks import shipped
from kitecore.colour.planes import DRAFT_CHROMA, bake_planes, bake_rgba
from kitecore.colour.scopes import shares
from kitecore.colour.table import DRAFT, bake
from kitecore.document import (
    Canvas,
    Document,
    Grade,
    ShapeClip,
    SolidClip,
    cutouts,
    empty_document,
)
from kitecore.document.effects import effect_kinds
from kitecore.document.grade import Light
from kitecore.document.inserts.compressor import Compressor
from kitecore.document.inserts.equaliser import Cut, Equaliser
from kitecore.document.masks import EllipseMask
from kitecore.document.strokes import CloneStroke, HealStroke
from kitecore.document.transitions.wipe import Wipe
from kitecore.document.warps import GridWarp, Pin, PinWarp
from kitecore.errors import MediaMissing
from kitecore.media.averaging import averaged
from kitecore.media.folder import MediaFolder
from kitecore.media.pixels import cut_to_8
from kitecore.picture.between import flows, moved_between
from kitecore.picture.block_means import block_means
from kitecore.picture.cutting import cut_found
from kitecore.picture.effects import apply_effects
from kitecore.picture.layer import Layer, Rgba, moved, solid
from kitecore.picture.mixing import add_levels, lay_over_deep, luma_of, widen_mean
from kitecore.picture.outline import Grid
from kitecore.picture.retouch import retouch, still_seen, touched
from kitecore.picture.retouch.completing import completed
from kitecore.picture.retouch.revealing import revealed
from kitecore.render.cutting import lifted
from kitecore.render.deep import TURNS
from kitecore.render.frame import render
from kitecore.render.sources import Sources
from kitecore.render.warm import warm
from kitecore.sound.beats import beats_of
from kitecore.sound.inserts import chained
from kitecore.sound.loudness import LEAD, powers
from kitecore.sound.ramps import RATE
from kitecore.sound.stretch import followed
from kitecore.sound.truepeak import true_levels
from kitecore.sound.varispeed import interpolated
from kitecore.speech.aligning import aligned
from kitecore.speech.features import energies_of
from kitecore.ticks import TICKS_PER_SECOND

_SIZE: Final = (48, 64)


def compile_all() -> None:
    """Run everything that has a kernel once, on a few pixels and samples."""
    warm()
    _film_drawn()
    grade = Grade(light=Light(exposure=1))
    planes = tuple(np.zeros((side, side), np.uint8) for side in (32, 16, 16))
    bake_planes(grade, shipped, DRAFT_CHROMA).over(planes, planes, (32, 32))  # type: ignore[arg-type]
    bake_rgba(grade, shipped, DRAFT_CHROMA).over(planes, (32, 32))  # type: ignore[arg-type]
    bake(grade, shipped, DRAFT).at(np.zeros((4, 3), np.float32))
    picture = solid(64, 64, (9, 9, 9))
    clear = np.zeros_like(picture)
    shares(picture, np.ones((64, 64), np.bool_))
    luma_of(picture)
    deep = np.zeros((64, 64, 3), np.uint16)
    lay_over_deep(deep, clear)
    add_levels(deep, clear)
    widen_mean(deep, TURNS)
    bake(grade, shipped, DRAFT).over(clear)
    bake(grade, shipped, DRAFT).over_deep(np.zeros((4, 4, 3), np.uint16))
    cut_to_8(np.zeros((4, 4, 3), np.uint16))
    block_means(picture, 4)
    averaged(picture, (40, 40))
    _mended(picture)
    _cut_out()
    for kind in effect_kinds.values():
        apply_effects(Layer(picture, moved(0, 0)), (kind.model_validate({}),), 1)
    moved_between(picture, picture, 0.5, flows(picture, picture))
    sound, places = np.zeros((9600, 2), np.float32), np.linspace(2000, 4000, 3000)
    followed(sound, places)
    interpolated(sound, places, np.ones_like(places))
    chain = (Equaliser(low_cut=Cut(on=True)), Compressor())
    true_levels(sound)
    powers(sound[:LEAD])
    aligned(*(energies_of(sound[..., 0].copy(), RATE) for _ in range(2)))
    beats_of(np.tile(np.eye(1, 24_000, dtype=np.float32)[0], 6))
    chained(chain, lambda first, count: np.zeros((count, 2), np.float32), 0, 480)


def _mended(picture: Rgba) -> None:
    """What strokes do."""
    canvas, grid = picture.copy(), Grid(64, 64, 1.0)
    for kind in (HealStroke, CloneStroke):
        stroke = kind(points=((0.0, 0.0),), width=0.2)
        if found := touched(stroke, grid):
            retouch(canvas, stroke, grid, found)
    kept = picture.copy()
    kept.flags.writeable = False
    for then in (picture, kept):
        still_seen(canvas, then)
    hole = np.zeros((64, 64), np.bool_)
    hole[30:34, 30:34] = True
    completed(picture, hole)
    revealed(np.stack([picture, picture]), np.stack([hole, ~hole]))


def _cut_out() -> None:
    """A bright square before a dark ground, with a soft edge: the matting is not ours, but compiled too."""
    luck = np.random.default_rng(1).integers(0, 50, (64, 64, 4), np.uint8)
    luck[16:48, 16:48] += 150
    luck[..., 3] = 255
    kept = cutouts.CutStroke(points=((0.0, 0.0),), width=0.3)
    found = cut_found(luck, cutouts.Cut(strokes=(kept,), edge=0.1), 1.0)
    for clean in (0.0, 1.0):
        lifted(luck, found, cutouts.CutOut(clean=clean))


def _film_drawn() -> None:
    def nothing(media: str) -> MediaFolder:
        raise MediaMissing("There is no take of that name.")

    film, sources = _film(), Sources(nothing)
    for tick in (3 * TICKS_PER_SECOND // 4, 5 * TICKS_PER_SECOND // 4):
        render(film, tick, _SIZE, sources)
    sources.close()


def _film() -> Document:
    """Two colours that cross, and above them what is masked, and bent by pins and by a grid."""
    second = TICKS_PER_SECOND
    document = empty_document(Canvas(width=_SIZE[0] * 10, height=_SIZE[1] * 10))
    wipe = Wipe(length=second)
    below = (
        SolidClip(length=second),
        SolidClip(start=second, length=second, transition=wipe),
    )
    pins = PinWarp(pins=(Pin(rest=(0, -0.2), at=(0, -0.2)), Pin(rest=(0, 0.2), at=(0.1, 0.2))))
    grid = GridWarp(columns=1, rows=1, points=((0.1, 0), (0, 0), (0, 0), (0, 0)))
    above = (
        ShapeClip(length=second, warp=pins),
        ShapeClip(start=second, length=second, warp=grid, masks=(EllipseMask(id="m"),)),
    )
    main, picture = document.main.with_clips(below), document.tracks[1].with_clips(above)
    return document.with_track(main).with_track(picture)


if __name__ == "__main__":
    compile_all()
