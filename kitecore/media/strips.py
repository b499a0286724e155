"""Picture strips: many small pictures of a take on one sheet."""

from __future__ import annotations

import json
import math

import cv2
import numpy as np
import simplejpeg

from kitecore.media.folder import MediaFolder
from kitecore.media.pixels import Rgba
from kitecore.ticks import TICKS_PER_SECOND

TILE_HEIGHT = 96
COLUMNS = 16
MOST_TILES = 240
_POSTER = 360
_GROUND = np.array([0x2A, 0x25, 0x30], np.float32)
"""What shows through transparent parts, as in the library."""


class StripMaker:
    """Takes a video's frames as they come and writes sheet and poster."""

    def __init__(self, folder: MediaFolder, width: int, height: int, length: int) -> None:
        self._folder = folder
        self._tile = (max(8, round(width * TILE_HEIGHT / height)), TILE_HEIGHT)
        seconds = length / TICKS_PER_SECOND
        count = min(MOST_TILES, max(1, math.ceil(seconds * 2)))
        self._step = max(1, length // count)
        self._tiles: list[Rgba] = []
        self._poster_at = length // 3
        self._poster: Rgba | None = None

    def offer(self, tick: int, rgb: Rgba) -> None:
        """Look at a frame, shown at ``tick``; uint8, shape (height, width, 3)."""
        if self._poster is None or tick <= self._poster_at:
            self._poster = rgb
        while len(self._tiles) * self._step <= tick and len(self._tiles) < MOST_TILES:
            small = cv2.resize(rgb, self._tile, interpolation=cv2.INTER_AREA)
            self._tiles.append(np.asarray(small))

    def wants(self, tick: int) -> bool:
        """Whether this frame becomes a tile."""
        return len(self._tiles) * self._step <= tick and len(self._tiles) < MOST_TILES

    def write(self) -> None:
        if not self._tiles or self._poster is None:
            return
        width, height = self._tile
        rows = -(-len(self._tiles) // COLUMNS)
        columns = min(COLUMNS, len(self._tiles))
        sheet = np.zeros((rows * height, columns * width, 3), np.uint8)
        for number, tile in enumerate(self._tiles):
            y, x = number // COLUMNS * height, number % COLUMNS * width
            sheet[y : y + height, x : x + width] = tile
        self._folder.strip.write_bytes(simplejpeg.encode_jpeg(sheet, quality=82))
        write_poster(self._folder, self._poster)
        facts = {
            "step": self._step,
            "width": width,
            "height": height,
            "columns": columns,
            "count": len(self._tiles),
        }
        self._folder.strip_facts.write_text(json.dumps(facts))


def write_poster(folder: MediaFolder, rgb: Rgba) -> None:
    """The picture that stands for the take, at most 360 pixels on its longer side."""
    factor = min(1.0, _POSTER / max(rgb.shape[:2]))
    size = (max(1, round(rgb.shape[1] * factor)), max(1, round(rgb.shape[0] * factor)))
    small = np.asarray(cv2.resize(rgb, size, interpolation=cv2.INTER_AREA))
    folder.poster.write_bytes(simplejpeg.encode_jpeg(np.ascontiguousarray(small), quality=85))


def over_ground(rgba: Rgba) -> Rgba:
    """A premultiplied picture on the library's ground colour, shape (height, width, 3)."""
    share = 1 - rgba[..., 3:].astype(np.float32) / 255
    return np.rint(rgba[..., :3] + share * _GROUND).clip(0, 255).astype(np.uint8)
