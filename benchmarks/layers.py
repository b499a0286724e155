"""Rows of layers: the reference piece, keys, blends, effects."""

from __future__ import annotations

from collections.abc import Callable

import numpy as np

from benchmarks.core import Workshop, bare_loop
from benchmarks.grade import FULL
from benchmarks.graph import export_by_graph
from benchmarks.rows import Row, seconds, side_by_side
from kitecore import edits
from kitecore.document import (
    AdjustmentClip,
    ClipBase,
    Document,
    Place,
    SolidClip,
    TextClip,
    VideoClip,
    empty_document,
)
from kitecore.document.effects import effect_kinds
from kitecore.document.fills import PlainFill
from kitecore.document.keying import ChromaKey
from kitecore.document.masks import EdgeMask, EllipseMask
from kitecore.document.properties import PointKeys, SpotKey
from kitecore.edits import edit_kinds
from kitecore.picture.blend import blends
from kitecore.picture.effects import apply_effects
from kitecore.picture.keying import keyed
from kitecore.picture.layer import Layer, moved
from kitecore.render.compose import solitary
from kitecore.render.export import ExportSettings, plan
from kitecore.render.frame import stage_of
from kitecore.render.measuring import as_cube
from kitecore.render.painters import paint
from kitecore.render.pieces import picture_piece
from kitecore.render.sources import Sources
from kitecore.ticks import TICKS_PER_SECOND

LENGTH = 3 * TICKS_PER_SECOND


def layers(shop: Workshop) -> list[Row]:
    piece = reference_piece(shop)
    return [_export(shop, piece), _preview(shop, piece), *_kernels(shop)]


def reference_piece(shop: Workshop) -> Document:
    """3 s: a graded ground, a keyed and turned second clip, feathered light in screen mode, moving

    text, a blur over the lower part.
    """
    across = PointKeys(
        keys=(SpotKey(at=0, value=(-300.0, 400.0)), SpotKey(at=LENGTH, value=(300.0, 400.0)))
    )
    blur = effect_kinds["soft_blur"](id="blur", sigma=12.0)
    above: tuple[ClipBase, ...] = (
        _video(
            shop, "pip-green", key=ChromaKey(colour="#2f9f4c"), place=Place(size=(0.6, 0.6), turn=8)
        ),
        SolidClip(
            name="light",
            length=LENGTH,
            fill=PlainFill(colour="#ffb060"),
            blend="screen",
            masks=(EllipseMask(id="m", centre=(-0.2, -0.2), size=(0.15, 0.2), outwards=0.2),),
        ),
        TextClip(name="words", length=LENGTH, text="Four folds up", place=Place(position=across)),
        AdjustmentClip(
            name="soft",
            length=LENGTH,
            effects=(blur,),
            masks=(EdgeMask(id="e", centre=(0, 0.3), invert=True, inwards=0.05, outwards=0.05),),
        ),
    )
    document = edits.apply(
        empty_document(), edit_kinds["place"](clip=_video(shop, "launch", grade=FULL))
    )
    for clip in above:
        document = edits.apply(document, edit_kinds["place"](clip=clip, mode="above", at=0))
    return document


def _video(shop: Workshop, media: str, **more: object) -> VideoClip:
    whole = shop.find(media).info.length
    return VideoClip(name=media, media=media, length=LENGTH, source_length=whole, **more)  # type: ignore[arg-type]


def _export(shop: Workshop, piece: Document) -> Row:
    settings = ExportSettings()

    def export() -> None:
        sources = Sources(shop.find, threads=2)
        work = settings.work(piece)
        for number, frames in enumerate(plan(work)):
            settings.recipe.encode_piece(work, frames, shop.root / f"piece-{number}", sources)
        sources.close()

    export()
    graph = _by_graph(shop, piece)
    graph()
    loop, ours, theirs = side_by_side(3, lambda: bare_loop(shop, settings), export, graph)
    # The loop runs over 6 s of the ground's take, the piece lasts 3.
    ratio, against = 2 * ours / loop, ours / theirs
    how = f"{loop / 2:.2f} s, {ours:.2f} s and {theirs:.2f} s for 3 s at 1080 × 1920"
    what = "export of the reference piece, against a bare loop over its ground; a filter graph"
    good = ratio <= 2 and against < 1
    return Row(what, f"{ratio:.2f} ×; {against:.2f} ×", "≤ 2 ×; < 1 ×", how, good)


def _by_graph(shop: Workshop, piece: Document) -> Callable[[], None]:
    sources = Sources(shop.find)
    stage = stage_of(piece, (1080, 1920), sources)
    light, words = (
        next(clip for _, clip in piece.clips() if clip.name == name) for name in ("light", "words")
    )
    assert isinstance(light, SolidClip) and isinstance(words, TextClip)
    cube = shop.root / "grade.cube"
    cube.write_text(as_cube(piece, piece.main.clips[0].id, 0, sources))
    takes = [shop.find(name).original for name in ("launch", "pip-green")]
    lit = solitary(light, 0, stage)
    text = paint(words, 0, stage).pixels
    return lambda: export_by_graph(*takes, cube, lit, text, shop.root / "graph.mp4")


def _preview(shop: Workshop, piece: Document) -> Row:
    def play() -> None:
        sources = Sources(shop.find, draft=True)
        for first in range(0, piece.frames, 15):
            picture_piece(piece, first, min(first + 15, piece.frames), (360, 640), sources)
        sources.close()

    play()
    [taken] = side_by_side(5, play)
    pace = piece.length / TICKS_PER_SECOND / taken
    how = f"{taken:.2f} s for 3 s at 640 px, with proxies"
    return Row("preview of the reference piece", f"{pace:.1f} × real time", "≥ 2 ×", how, pace >= 2)


def _kernels(shop: Workshop) -> list[Row]:
    sources = Sources(shop.find)
    green = sources.video("pip-green", 10, "", (1080, 1920))
    ground = sources.video("launch", 10, "", (1080, 1920))
    half = Layer(green[::2, ::2].copy(), moved(0, 0), 0.5)
    works: tuple[tuple[str, int, Callable[[], object]], ...] = (
        (
            "chroma key of 1080 × 1920, spill and uneven light included",
            40,
            lambda: keyed(green, ChromaKey(), 1.0),
        ),
        ("multiply over 1080 × 1920", 20, lambda: blends["multiply"](ground.copy(), green, 255)),
        ("add over 1080 × 1920", 20, lambda: blends["add"](ground.copy(), green, 255)),
        (
            "glow on 540 × 960",
            60,
            lambda: apply_effects(half, (effect_kinds["glow"](id="g"),), 0),
        ),
    )
    rows = []
    for what, aim, work in works:
        work()
        taken = float(np.median([seconds(work) for _ in range(9)])) * 1e3
        rows.append(Row(what, f"{taken:.0f} ms", f"≤ {aim} ms", "one thread", taken <= aim))
    return rows
