"""Rows of grading: what it costs in export and preview, how fast tables are baked, how exact they are."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

import numpy as np
from numpy.typing import NDArray

from benchmarks.core import Workshop
from benchmarks.rows import Row, seconds, side_by_side
from kitecore import edits
from kitecore.colour.chain import graded
from kitecore.colour.looks import shipped
from kitecore.colour.table import DRAFT, FINE, bake
from kitecore.document import Document, Grade, SolidClip, VideoClip, empty_document
from kitecore.document.fills import PlainFill
from kitecore.edits import edit_kinds
from kitecore.render.deep import render_deep
from kitecore.render.export import ExportSettings, plan
from kitecore.render.frame import render
from kitecore.render.instruments import ScopesWanted, measured
from kitecore.render.pieces import picture_piece
from kitecore.render.sources import Sources
from kitecore.ticks import TICKS_PER_SECOND

FULL = Grade.model_validate(
    {
        "light": {"exposure": 0.3},
        "balance": {"warmth": 12, "tint": -4},
        "levels": {"black": 1, "white": 98},
        "wheels": {"lift": {"push": [0.1, 0.05]}, "gain": {"push": [-0.1, 0.05]}},
        "contrast": {"contrast": 15, "shadows": 10, "highlights": -10},
        "curves": {
            "luma": [[0, 0], [0.3, 0.27], [0.7, 0.75], [1, 1]],
            "hue_to_saturation": [[0.2, 0.55], [0.6, 0.45]],
        },
        "colour": {"saturation": 8, "vibrance": 15},
        "lut": {"look": "two-papers", "mix": 60},
    }
)
"""Every stage at work, as for a finished shot."""

STEEP = Grade.model_validate(
    {
        "light": {"exposure": 1.5},
        "contrast": {"contrast": 100},
        "curves": {"luma": [[0, 0], [0.3, 0.1], [0.6, 0.9], [1, 1]]},
        "colour": {"saturation": 100},
    }
)
LOG = Grade.model_validate({"input": {"transform": "acescct"}, "light": {"exposure": 0.5}})


def grading(shop: Workshop) -> list[Row]:
    plain = shop.untouched()
    full = edits.apply(
        plain, edit_kinds["replace_grade"](clips=(plain.main.clips[0].id,), grade=FULL)
    )
    return [
        _export(shop, plain, full),
        _preview(shop, plain, full),
        *_bakes(),
        _scopes(shop, plain),
        _ten_bits(shop),
        *_exactness(shop),
    ]


def _export(shop: Workshop, plain: Document, full: Document) -> Row:
    settings = ExportSettings()

    def export(document: Document) -> None:
        sources = Sources(shop.find, threads=2)
        work = settings.work(document)
        for number, frames in enumerate(plan(work)):
            settings.recipe.encode_piece(work, frames, shop.root / f"piece-{number}", sources)
        sources.close()

    export(full)
    bare, done = side_by_side(5, lambda: export(plain), lambda: export(full))
    ratio = done / bare
    how = f"{bare:.2f} s and {done:.2f} s for 6 s at 1080 × 1920, every stage and a look at work"
    what = "export of a fully graded clip, against an ungraded one"
    return Row(what, f"{ratio:.2f} ×", "≤ 1.25 ×", how, ratio <= 1.25)


def _preview(shop: Workshop, plain: Document, full: Document) -> Row:
    def play(document: Document) -> None:
        sources = Sources(shop.find, draft=True)
        for first in range(0, document.frames, 15):
            picture_piece(document, first, min(first + 15, document.frames), (360, 640), sources)
        sources.close()

    play(full)
    bare, done = side_by_side(5, lambda: play(plain), lambda: play(full))
    ratio = done / bare
    pace = _seconds_of(full) / done
    how = f"{bare:.2f} s and {done:.2f} s for 6 s at 640 px, by proxy, the table baked in it"
    what = "preview of a fully graded clip, against an ungraded one; against real time"
    return Row(what, f"{ratio:.2f} ×; {pace:.1f} ×", "≥ 2 × real time", how, pace >= 2)


def _seconds_of(document: Document) -> float:
    return document.length / TICKS_PER_SECOND


def _bakes() -> list[Row]:
    rows = []
    for size, aim, told in ((DRAFT, 33, "while a slider moves"), (FINE, 1000, "for an export")):
        [taken] = side_by_side(7, lambda size=size: bake(FULL, shipped, size))  # type: ignore[misc]
        rows.append(
            Row(
                f"table of every stage baked anew, {size}³",
                f"{taken * 1e3:.0f} ms",
                f"≤ {aim} ms" if aim < 1000 else "told",
                told,
                taken * 1e3 <= aim,
            )
        )
    return rows


def _scopes(shop: Workshop, document: Document) -> Row:
    sources = Sources(shop.find, draft=True)
    picture = render(document, 0, (540, 960), sources)
    wanted = ScopesWanted(scopes=("luma", "vectorscope", "histogram"))
    measured(picture, wanted)
    taken = sorted(seconds(lambda: measured(picture, wanted)) for _ in range(15))[7] * 1e3
    how = "luma waveform, vectorscope, histogram and shares together, 540 × 960"
    return Row("three scopes of a picture", f"{taken:.0f} ms", "≤ 33 ms", how, taken <= 33)


def _ten_bits(shop: Workshop) -> Row:
    length = shop.find("card-log").info.length
    take = VideoClip(media="card-log", length=length, source_length=length)
    veil = SolidClip(length=length, blend="multiply", fill=PlainFill(colour="#ddccbb"))
    document = empty_document()
    document = document.with_track(document.main.with_clips((take,)))
    document = document.with_track(document.tracks[1].with_clips((veil,)))
    sources, size = Sources(shop.find), (1080, 1920)
    ticks = [n * document.rate.exact.frame_ticks for n in range(12)]

    def draw(one: Callable[[Document, int, tuple[int, int], Sources], object]) -> None:
        for tick in ticks:
            one(document, tick, size, sources)

    draw(render_deep)
    eight, ten = side_by_side(3, lambda: draw(render), lambda: draw(render_deep))
    each = (eight / len(ticks) * 1e3, ten / len(ticks) * 1e3)
    how = f"{each[0]:.0f} and {each[1]:.0f} ms a frame of 1080 × 1920, decoding included"
    what = "a 10-bit take under a layer in multiply, in 10 bits against 8"
    return Row(what, f"{ten / eight:.1f} ×", "told", how, True)


def _exactness(shop: Workshop) -> list[Row]:
    sources = Sources(shop.find)
    ramp = np.repeat(np.linspace(0, 1, 1024, dtype=np.float32)[:, None], 3, axis=1)
    film = [sources.video("launch", frame, "", (270, 480)) for frame in (10, 80, 150)]
    log = [sources.video16("card-log", frame, "", (270, 480)) for frame in (5, 60)]
    rows = []
    for name, grade, pictures in (
        ("every stage", FULL, film),
        ("steep curves", STEEP, film),
        ("log to screen", LOG, log),
    ):
        most = np.iinfo(pictures[0].dtype).max
        real = (
            np.concatenate([p[..., :3].reshape(-1, 3) for p in pictures]).astype(np.float32) / most
        )
        for size in (FINE, DRAFT):
            found = bake(grade, shipped, size)
            told = ", ".join(
                f"{what} at most {worst:.2f}, mean {mean:.3f}"
                for what, colours in (("pictures", real), ("10-bit ramp", ramp))
                for worst, mean in [_error(found.at(colours), colours, grade)]
            )
            rows.append(
                Row(
                    f"table of {size}³ against its chain, {name}",
                    told,
                    "told",
                    "levels of 255, before rounding; demo frames, greys in 1024 steps",
                    True,
                )
            )
    return rows


def _error(done: NDArray[Any], colours: NDArray[Any], grade: Grade) -> tuple[float, float]:
    truth = np.clip(graded(colours.astype(np.float64), grade, shipped), 0, 1)
    error = np.abs(np.clip(done, 0, 1) - truth) * 255
    return float(error.max()), float(error.mean())
