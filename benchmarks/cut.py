"""Rows of cutting: ramps and transitions in the preview, and how a long timeline moves."""

from __future__ import annotations

from typing import Any

from benchmarks.core import Workshop
from benchmarks.rows import Row, side_by_side
from kitecore import edits
from kitecore.document import Document, Speed, SpeedPoint, VideoClip, empty_document
from kitecore.edits import edit_kinds
from kitecore.media.ingest import ingest
from kitecore.media.tests.material import make_video
from kitecore.render.pieces import picture_piece
from kitecore.render.sources import Sources
from kitecore.ticks import TICKS_PER_SECOND

SECONDS = 14


def ramps(shop: Workshop) -> list[Row]:
    """A ramp from 0.2 to 6 times over 4 s, as it is played: half a second at a time, 640 px."""
    document = _ramped(shop)
    return [_played(shop, document, between) for between in ("nearest", "blended", "motion")]


def _ramped(shop: Workshop) -> Document:
    folder = shop.find("long")
    if not folder.info_file.exists():
        folder.path.mkdir(parents=True, exist_ok=True)
        make_video(folder.original, frames=SECONDS * 30, size=(1080, 1920), gop=60)
        ingest(folder)
    clip = VideoClip(
        media="long",
        length=4 * TICKS_PER_SECOND,
        source_length=folder.info.length,
        speed=Speed(points=(SpeedPoint(speed=0.2), SpeedPoint(at=4 * TICKS_PER_SECOND, speed=6.0))),
    )
    return edits.apply(empty_document(), edit_kinds["place"](clip=clip))


def _played(shop: Workshop, document: Document, between: str) -> Row:
    clip = document.main.clips[0].id
    values: dict[str, Any] = {"between": between}
    document = edits.apply(document, edit_kinds["adjust"](clips=(clip,), values=values))

    def play() -> None:
        sources = Sources(shop.find, draft=True)
        for first in range(0, document.frames, 15):
            picture_piece(document, first, min(first + 15, document.frames), (360, 640), sources)
        sources.close()

    taken = side_by_side(3, play)[0]
    factor = document.length / TICKS_PER_SECOND / taken
    how = f"{taken:.2f} s for 4 s from 0.2 to 6 times, 1080 × 1920 take by its proxy, 640 px"
    what = f"speed ramp in the preview, {between}, against real time"
    return Row(what, f"{factor:.1f} ×", "≥ 1 ×", how, factor >= 1)


def transitions(shop: Workshop) -> list[Row]:
    """What a frame within a transition costs, against one outside of it."""
    rows = []
    for kind in ("dissolve", "wipe", "blur_through"):
        plain = shop.untouched(2)
        later = plain.main.clips[1].id
        crossing = {"kind": kind, "length": TICKS_PER_SECOND, "hold": True}
        step = edit_kinds["set_transition"].model_validate(
            {"clip": later, "transition": crossing, "kind": "set_transition"}
        )
        crossed = edits.apply(plain, step)
        first = plain.main.clips[1].start // plain.rate.exact.frame_ticks - 15
        both = side_by_side(
            3,
            lambda doc=plain, at=first: _piece(shop, doc, at),
            lambda doc=crossed, at=first: _piece(shop, doc, at),
        )
        ratio, each = both[1] / both[0], both[1] / 30 * 1000
        how = f"{each:.1f} ms a frame at 640 px, {ratio:.1f} × a plain join"
        rows.append(
            Row(f"{kind.replace('_', ' ')} in the preview", f"{33.3 / each:.1f} ×", "≥ 1 ×", how, each < 33.3)
        )  # fmt: skip
    return rows


def _piece(shop: Workshop, document: Document, first: int) -> None:
    sources = Sources(shop.find, draft=True)
    picture_piece(document, first, first + 30, (360, 640), sources)
    sources.close()
