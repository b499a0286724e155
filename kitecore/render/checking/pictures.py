"""What a film's pictures measure, frame by frame, as far as checks want to know."""

from __future__ import annotations

import io
import zlib
from collections.abc import Callable, Sequence
from dataclasses import dataclass, fields
from typing import Any, Final

import cv2
import numpy as np
from numpy.typing import NDArray

from kitecore.arrays import Size
from kitecore.document import Document
from kitecore.errors import MediaMissing
from kitecore.media.pixels import fitting
from kitecore.picture.layer import Rgba
from kitecore.render.extract import content_key
from kitecore.render.frame import render
from kitecore.render.repeats import look_at
from kitecore.render.showing import showing_at
from kitecore.render.sources import Sources
from kitecore.ticks import Span
from kitecore.tracking.faces import can_find_faces, faces_in

PIECE: Final = 90
"""Frames that are measured together, and kept by their content."""
SIDE: Final = 160
"""Pixels of the longer side of a measured picture."""
_COARSE: Final = 32
"""Pixels of the shorter side of what flashes are looked for in."""
_NEAR_BLACK: Final = 20
"""Of 255: brighter than the black of any screen, darker than anything meant to be seen."""
_FACES_SIDE: Final = 360
"""Pixels of the longer side of a picture in which faces are looked for, once a second."""
_SMALLEST: Final = 0.08
"""Of its shorter side: a face that is smaller says little."""
MOST_FACES: Final = 4
VERSION: Final = 2


_NO_FACES: Final = np.full((MOST_FACES, 4), np.nan, np.float32)


@dataclass(frozen=True)
class PictureFacts:
    """Of frames in a row; shares of the picture are 0..1.

    Attributes
    ----------
    empty
        Whether no clip shows.
    dark, crushed, clipped
        Shares nearly black; wholly black; with a channel at its end.
    mark
        A number that equal pictures have in common.
    light, red
        Luma, and how saturated its red is (R − G − B), 0..255, coarsely: shape
        (frames, height, width).
    faces
        Left, top, right and bottom of faces in shares of the canvas, nan where there is none, or none
        was looked for: shape (frames, `MOST_FACES`, 4).
    """

    empty: NDArray[np.bool_]
    dark: NDArray[np.float32]
    crushed: NDArray[np.float32]
    clipped: NDArray[np.float32]
    mark: NDArray[np.uint32]
    light: NDArray[np.uint8]
    red: NDArray[np.uint8]
    faces: NDArray[np.float32]


def facts_key(document: Document, numbers: range, find: Callable[[str], Any]) -> str:
    """Name of the facts of some frames by their content."""
    rate = document.rate.exact
    span = Span(rate.start_of(numbers.start), rate.start_of(numbers.stop))
    return content_key(document, span, find, "facts", VERSION)


def pieces_of(document: Document) -> list[range]:
    return [range(at, min(at + PIECE, document.frames)) for at in range(0, document.frames, PIECE)]


def measure(document: Document, numbers: range, sources: Sources) -> PictureFacts:
    """Draw some frames, small, and measure them."""
    rate, canvas = document.rate.exact, document.canvas
    size = fitting(canvas.width, canvas.height, SIDE)
    rows: list[tuple[Any, ...]] = []
    before = None
    every = round(rate.fraction)
    for number in numbers:
        tick = rate.start_of(number)
        look = look_at(document.tracks, tick, rate.frame_ticks, sources)
        if not rows or look is None or look != before:
            empty = not showing_at(document.tracks, tick)
            row = (empty, *_measured(_drawn(document, tick, size, sources), size))
        looked = number % every == 0 and can_find_faces() and not empty
        rows.append((*row, _faces(document, tick, sources) if looked else _NO_FACES))
        before = look
    columns = zip(*rows, strict=True)
    shares, levels = (np.float32,) * 3, (np.uint8,) * 2
    types = (bool, *shares, np.uint32, *levels, np.float32)
    return PictureFacts(*(np.array(one, kind) for one, kind in zip(columns, types, strict=True)))


def _drawn(document: Document, tick: int, size: Size, sources: Sources) -> Rgba:
    """A picture; a grey one where a take is missing, which says nothing of lights or shadows."""
    try:
        return render(document, tick, size, sources)
    except MediaMissing:
        return np.full((size[1], size[0], 4), 128, np.uint8)


def _faces(document: Document, tick: int, sources: Sources) -> NDArray[np.float32]:
    """The surest faces of a picture, in shares of it."""
    canvas = document.canvas
    size = fitting(canvas.width, canvas.height, _FACES_SIDE)
    pixels = np.ascontiguousarray(_drawn(document, tick, size, sources)[..., :3])
    boxes = faces_in(pixels, round(_SMALLEST * min(size)))[:MOST_FACES, :4]
    found = _NO_FACES.copy()
    found[: len(boxes)] = boxes / np.array([*size, *size], np.float32)
    return found


def _measured(pixels: Rgba, size: Size) -> tuple[Any, ...]:
    rgb = pixels[..., :3]
    luma = cv2.cvtColor(rgb, cv2.COLOR_RGB2GRAY)
    scale = _COARSE / min(size)
    coarse = max(1, round(size[0] * scale)), max(1, round(size[1] * scale))
    small = cv2.resize(rgb, coarse, interpolation=cv2.INTER_AREA)
    r, g, b = (small[..., channel].astype(np.int16) for channel in range(3))
    return (
        float(np.mean(luma <= _NEAR_BLACK)),
        float(np.mean(rgb.max(axis=2) <= 1)),
        float(np.mean(rgb.max(axis=2) >= 254)),
        zlib.crc32(np.ascontiguousarray(rgb).tobytes()),
        cv2.cvtColor(small, cv2.COLOR_RGB2GRAY),
        np.clip(r - g - b, 0, 255).astype(np.uint8),
    )


def packed(facts: PictureFacts) -> bytes:
    buffer = io.BytesIO()
    np.savez_compressed(buffer, **{one.name: getattr(facts, one.name) for one in fields(facts)})
    return buffer.getvalue()


def unpacked(data: bytes) -> PictureFacts:
    with np.load(io.BytesIO(data), allow_pickle=False) as found:
        return PictureFacts(**{one.name: found[one.name] for one in fields(PictureFacts)})


def joined(parts: Sequence[PictureFacts]) -> PictureFacts:
    """The facts of a whole film from those of its pieces."""
    names = [one.name for one in fields(PictureFacts)]
    return PictureFacts(
        **{name: np.concatenate([getattr(part, name) for part in parts]) for name in names}
    )
