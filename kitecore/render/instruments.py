"""Scopes of a picture of the timeline, and marks on it where it is crushed or clipped."""

from __future__ import annotations

import json
import struct
from typing import Any, Final, Literal

import numpy as np
from numpy.typing import NDArray
from pydantic import Field

from kitecore.colour.scopes import Box, Covered, histogram, lost, shares, vectorscope, waveform
from kitecore.document import Model
from kitecore.picture.layer import Rgba

Scope = Literal["histogram", "luma", "rgb", "vectorscope"]
COLUMNS: Final = 256

_CRUSHED, _CLIPPED = (64, 190, 170), (255, 110, 80)


class ScopesWanted(Model):
    """What to measure: the whole picture, or a box of it in shares of width and height.

    ``marks`` asks for stripes on the picture itself where it is crushed or clipped; ``deep`` for
    levels of 10 bits, as a 10-bit format would hold the picture.
    """

    scopes: tuple[Scope, ...] = Field(default=(), max_length=4)
    box: tuple[float, float, float, float] = (0.0, 0.0, 1.0, 1.0)
    marks: bool = False
    deep: bool = False


def measured(
    pixels: NDArray[Any], wanted: ScopesWanted, covered: Covered | None = None
) -> tuple[dict[str, Any], list[NDArray[Any]]]:
    """Facts, and the arrays they name in order, counts cut off at 255 but for the histogram's.

    What is crushed and clipped is counted where the canvas is ``covered``: empty, it is neither.
    """
    box = Box(*wanted.box)
    part = box.of(pixels)
    found = shares(part, None if covered is None else box.of(covered))
    arrays = [_MAKERS[scope](part) for scope in wanted.scopes]
    facts = {
        "crushed": found.crushed,
        "clipped": found.clipped,
        "pixels": int(part.shape[0] * part.shape[1]),
        "arrays": [
            {"scope": scope, "shape": array.shape, "wide": array.dtype != np.uint8}
            for scope, array in zip(wanted.scopes, arrays, strict=True)
        ],
    }
    return facts, arrays


def ten_bits(picture: NDArray[np.uint16] | None, pixels: Rgba) -> NDArray[np.uint16]:
    """Levels 0..1023 of a picture of 16 bits, or of one of 8 where there is none."""
    if picture is not None:
        return np.asarray((picture.astype(np.uint32) * 1023 + 32767) // 65535, np.uint16)
    return np.asarray((pixels[..., :3].astype(np.uint32) * 1023 + 127) // 255, np.uint16)


def _byte(counts: NDArray[Any]) -> NDArray[np.uint8]:
    return np.asarray(np.minimum(counts, 255), np.uint8)


_MAKERS: Final[dict[str, Any]] = {
    "histogram": histogram,
    "luma": lambda part: _byte(waveform(part, COLUMNS)[:1]),
    "rgb": lambda part: _byte(waveform(part, COLUMNS)[1:]),
    "vectorscope": lambda part: _byte(vectorscope(part)),
}


def marked(pixels: Rgba, covered: Covered | None = None) -> Rgba:
    """The picture with stripes one way where it is crushed, and the other way where clipped."""
    crushed, clipped = lost(pixels)
    if covered is not None:
        crushed, clipped = crushed & covered, clipped & covered
    rows, columns = np.indices(crushed.shape, np.int16)
    marks = pixels.copy()
    marks[crushed & ((rows - columns) // 4 % 2 == 0), :3] = _CRUSHED
    marks[clipped & ((rows + columns) // 4 % 2 == 0), :3] = _CLIPPED
    return marks


def packed_answer(jpeg: bytes, facts: dict[str, Any], arrays: list[NDArray[Any]]) -> bytes:
    """All in one: length of the facts (4 bytes, little end first), facts as JSON, JPEG, arrays."""
    head = json.dumps({**facts, "jpeg": len(jpeg)}).encode()
    parts = [struct.pack("<I", len(head)), head, jpeg]
    return b"".join([*parts, *(np.ascontiguousarray(array).tobytes() for array in arrays)])
