"""One picture of the timeline as a JPEG, for scrubbing, stepping and small pictures."""

from __future__ import annotations

import io
from typing import Any

import simplejpeg
from PIL import Image

from kitecore.document import Document
from kitecore.media.pixels import fitting
from kitecore.picture.layer import Rgba
from kitecore.render.deep import render_exact
from kitecore.render.frame import covered_at, render
from kitecore.render.instruments import (
    ScopesWanted,
    marked,
    measured,
    packed_answer,
    ten_bits,
)
from kitecore.render.sources import Sources

QUALITY = 88


def still(
    document: Document,
    tick: int,
    long_side: int,
    sources: Sources,
    *,
    matte: str = "",
    onion: str = "",
) -> bytes:
    """JPEG of the picture at ``tick``, its longer side at most ``long_side`` pixels."""
    size = fitting(document.canvas.width, document.canvas.height, long_side)
    return as_jpeg(render(document, tick, size, sources, matte=matte, onion=onion))


def measured_still(
    document: Document,
    tick: int,
    long_side: int,
    sources: Sources,
    wanted: ScopesWanted,
    matte: str = "",
) -> bytes:
    """The same with its scopes (see `kitecore.render.instruments.packed_answer`)."""
    size = fitting(document.canvas.width, document.canvas.height, long_side)
    pixels = render(document, tick, size, sources)
    levels: Any = pixels
    if wanted.deep:
        levels = ten_bits(render_exact(document, tick, size, sources), pixels)
    covered = covered_at(document, tick, size, sources)
    facts, arrays = measured(levels, wanted, covered)
    if matte:
        pixels = render(document, tick, size, sources, matte=matte)
    shown = marked(pixels, covered) if wanted.marks and not matte else pixels
    return packed_answer(as_jpeg(shown), facts, arrays)


def as_jpeg(pixels: Rgba) -> bytes:
    jpeg: bytes = simplejpeg.encode_jpeg(
        pixels, quality=QUALITY, colorspace="RGBX", colorsubsampling="420", fastdct=True
    )
    return jpeg


def frame_file(document: Document, tick: int, long_side: int, sources: Sources) -> bytes:
    """PNG of the picture at ``tick``, without loss, its longer side at most ``long_side`` pixels."""
    size = fitting(document.canvas.width, document.canvas.height, long_side)
    buffer = io.BytesIO()
    Image.fromarray(render(document, tick, size, sources)[..., :3]).save(
        buffer, "PNG", compress_level=3
    )
    return buffer.getvalue()
