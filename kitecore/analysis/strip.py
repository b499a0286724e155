"""Picture strips: many small pictures of a take on one sheet, and one that stands for it."""

from __future__ import annotations

import json
import math
from collections.abc import Iterator
from pathlib import Path

import cv2
import numpy as np
import simplejpeg

from kitecore.analysis._base import Analysis, NoParameters, analyses
from kitecore.media.folder import MediaFolder
from kitecore.media.pixels import Rgba, fitting, to_rgba
from kitecore.media.reader import VideoReader, open_original, open_proxy
from kitecore.media.still import read_still, resized
from kitecore.model import Model
from kitecore.programs import Tell
from kitecore.ticks import TICKS_PER_SECOND

STRIP, POSTER, LAYOUT = "strip.jpg", "poster.jpg", "layout.json"
TILE_HEIGHT = 96
COLUMNS = 16
MOST_TILES = 240
_POSTER_SIDE = 360
_GROUND = np.array([0x2A, 0x25, 0x30], np.float32)
"""What shows through transparent parts, as in the library."""


class StripLayout(Model):
    """How the sheet is laid out: row by row; ``step`` is ticks from one picture to the next."""

    step: int
    width: int
    height: int
    columns: int
    count: int


def make_strip(folder: MediaFolder, wanted: NoParameters, out: Path, tell: Tell) -> None:
    """Sheet, poster and layout of a video or still."""
    picture, length = folder.info.picture, folder.info.length
    assert picture is not None
    size = max(8, round(picture.width * TILE_HEIGHT / picture.height)), TILE_HEIGHT
    count = min(MOST_TILES, max(1, math.ceil(length / TICKS_PER_SECOND * 2)))
    step = max(1, length // count) if length else TICKS_PER_SECOND // 2
    columns = min(COLUMNS, count)
    sheet = np.zeros((-(-count // COLUMNS) * size[1], columns * size[0], 3), np.uint8)
    for number, rgb in enumerate(_pictures(folder, [n * step for n in range(count)])):
        y, x = number // COLUMNS * size[1], number % COLUMNS * size[0]
        sheet[y : y + size[1], x : x + size[0]] = cv2.resize(
            rgb, size, interpolation=cv2.INTER_AREA
        )
        if number == count // 3:
            (out / POSTER).write_bytes(simplejpeg.encode_jpeg(_poster(rgb), quality=85))
        tell("strip", (number + 1) / count)
    (out / STRIP).write_bytes(simplejpeg.encode_jpeg(sheet, quality=82))
    layout = StripLayout(step=step, width=size[0], height=size[1], columns=columns, count=count)
    (out / LAYOUT).write_text(layout.model_dump_json())


def layout_of(result: Path) -> StripLayout:
    return StripLayout.model_validate(json.loads((result / LAYOUT).read_text()))


def _pictures(folder: MediaFolder, ticks: list[int]) -> Iterator[Rgba]:
    """The take's pictures at ``ticks``; uint8, shape (height, width, 3)."""
    picture = folder.info.picture
    assert picture is not None
    size = fitting(picture.width, picture.height, 960)
    if folder.info.kind == "still":
        yield over_ground(resized(read_still(folder), size))
        return
    reader = _reader(folder)
    try:
        for tick in ticks:
            frame = reader.frame(folder.index.frame_at(tick))
            yield over_ground(to_rgba(frame, reader.picture, size))
    finally:
        reader.close()


def _reader(folder: MediaFolder) -> VideoReader:
    return open_proxy(folder) if folder.proxy.exists() else open_original(folder, threads=2)


def _poster(rgb: Rgba) -> Rgba:
    """At most 360 pixels on its longer side."""
    size = fitting(rgb.shape[1], rgb.shape[0], _POSTER_SIDE)
    small = cv2.resize(rgb, size, interpolation=cv2.INTER_AREA)
    return np.ascontiguousarray(small, np.uint8)


def over_ground(rgba: Rgba) -> Rgba:
    """A premultiplied picture on the library's ground colour, shape (height, width, 3)."""
    share = 1 - rgba[..., 3:].astype(np.float32) / 255
    return np.rint(rgba[..., :3] + share * _GROUND).clip(0, 255).astype(np.uint8)


analyses.register("strip")(
    Analysis(version=1, fits=lambda info: info.picture is not None, run=make_strip, standing=True)
)
