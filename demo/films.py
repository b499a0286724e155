"""Scenes as encoded takes, as a camera would have recorded them."""

from __future__ import annotations

import struct
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from fractions import Fraction
from functools import partial
from pathlib import Path

import av
import cv2
import numpy as np
import skia

from demo import cards, layers, report, scenes, street
from demo.cameras import as_log, wrong_white
from demo.sounds import SOUND_RATE, Heard, ambience

_BASE = Fraction(1, 600)
DRAWN = 2 / 3
"""Scenes are drawn this much smaller than they are recorded: half the time, and a soft lens."""


@dataclass(frozen=True)
class Film:
    """A take to make. ``uneven`` varies the frame rate; ``on_side`` leaves turning to metadata.

    ``camera`` is how the camera recorded what it saw; ``deep``: in 10 bits.
    """

    name: str
    scene: scenes.Scene
    seconds: float
    width: int = 1080
    height: int = 1920
    uneven: bool = False
    on_side: bool = False
    sound: str | Heard = ""
    camera: Callable[[np.ndarray], np.ndarray] | None = None
    deep: bool = False


def _desk(
    name: str,
    seconds: float,
    bands: tuple[float, float],
    room: float,
    noise: float,
    **how: float,
) -> Film:
    """What one camera took of the report: its place, and what its microphone lets through."""
    sound = partial(report.hear, name=name, bands=bands, room=room, noise=noise)
    return Film(name, partial(report.view, name=name, **how), seconds, 540, 960, sound=sound)


FILMS = (
    Film("launch.mp4", scenes.launch, 6, sound="wind"),
    Film("workbench.mp4", scenes.workbench, 5, sound="paper"),
    Film("window.mp4", scenes.window, 4.5),
    Film("harbour-wide.mp4", scenes.harbour, 4.5, 1920, 1080, sound="wind"),
    Film("bird-sideways.mov", scenes.bird, 3.5, on_side=True),
    Film("reel-uneven.mp4", scenes.reel, 3.5, uneven=True),
    Film("card-log.mp4", cards.from_the_front, 3, camera=as_log, deep=True),
    Film("card-cold.mp4", cards.from_the_side, 3, camera=wrong_white),
    Film("pip-green.mp4", layers.before_green, 3.2),
    Film("seeds.mp4", layers.seeds, 3.2, 720, 1280),
    Film("seeds-matte.mp4", layers.seeds_matte, 3.2, 720, 1280),
    _desk("report-near.mp4", 11, (120, 9000), 0.15, 0.004, scale=1.3, x=0, y=330),
    _desk("report-wide-1.mp4", 5.5, (90, 7000), 0.5, 0.004, scale=0.72, x=40, y=-60),
    _desk("report-wide-2.mp4", 6.4, (90, 7000), 0.5, 0.004, scale=0.72, x=40, y=-60),
    _desk(
        "report-side.mp4", 11.5, (500, 1900), 0.4, 0.02, scale=-0.95, x=-160, y=80, turn=-4, sharp=5
    ),
    Film(street.TAKE, street.street, street.LASTS, sound="wind"),
)

_PLAIN = ("libx264", "yuv420p", {"crf": "23"})
_DEEP = ("libx265", "yuv420p10le", {"crf": "20", "x265-params": "log-level=error"})


def make_film(film: Film, folder: Path) -> Path:
    """Draw and encode a take; 30 frames a second unless it is uneven, H.264 unless it is deep."""
    path = folder / film.name
    draw = film.scene(film.width, film.height)
    surface = skia.Surface(round(film.width * DRAWN), round(film.height * DRAWN))
    surface.getCanvas().scale(DRAWN, DRAWN)
    width, height = (film.height, film.width) if film.on_side else (film.width, film.height)
    grain = _Grain(film.width, film.height)
    with av.open(str(path), "w") as out:
        codec, depth, more = _DEEP if film.deep else _PLAIN
        stream = out.add_stream(codec, rate=30, options={"preset": "ultrafast", **more})
        stream.width, stream.height, stream.pix_fmt = width, height, depth
        context = stream.codec_context
        context.time_base = stream.time_base = _BASE
        context.color_primaries = context.color_trc = context.colorspace = context.color_range = 1
        sound = out.add_stream("aac", rate=SOUND_RATE, layout="stereo") if film.sound else None
        for at in _times(film):
            draw(surface.getCanvas(), at / 600)
            drawn = surface.toarray(colorType=skia.kRGBA_8888_ColorType)
            size = (film.width, film.height)
            if film.deep and film.camera:
                pixels = cv2.resize(film.camera(drawn), size)
            else:
                pixels = grain.over(cv2.resize(film.camera(drawn) if film.camera else drawn, size))
            if film.on_side:
                pixels = np.rot90(pixels, 1)
            kind = "rgb48le" if film.deep else "rgba"
            frame = av.VideoFrame.from_ndarray(np.ascontiguousarray(pixels), format=kind)
            planes = frame.reformat(format=depth, dst_colorspace="ITU709", dst_color_range="MPEG")
            planes.pts, planes.time_base = at, _BASE
            out.mux(stream.encode(planes))
        out.mux(stream.encode(None))
        if sound is not None:
            for part in ambience(film.sound, film.seconds + 0.4):
                out.mux(sound.encode(part))
            out.mux(sound.encode(None))
    if film.on_side:
        turn_by_metadata(path, film.height)
    return path


def _times(film: Film) -> Iterator[int]:
    """When each frame is taken, in 1/600 s."""
    at, rng = 0, np.random.default_rng(7)
    while at < film.seconds * 600:
        yield at
        at += int(rng.choice((15, 20, 25, 40))) if film.uneven else 20


class _Grain:
    """Film grain that is different in every frame."""

    def __init__(self, width: int, height: int) -> None:
        self._rng = np.random.default_rng(1)
        noise = self._rng.normal(0, 3.5, (height + 64, width + 64, 1)).repeat(4, axis=2)
        noise[..., 3] = 0
        self._lighter = np.clip(noise, 0, 40).astype(np.uint8)
        self._darker = np.clip(-noise, 0, 40).astype(np.uint8)

    def over(self, pixels: np.ndarray) -> np.ndarray:
        height, width = pixels.shape[:2]
        y, x = self._rng.integers(0, 64, 2)
        part = (slice(y, y + height), slice(x, x + width))
        return np.asarray(cv2.subtract(cv2.add(pixels, self._lighter[part]), self._darker[part]))


def turn_by_metadata(path: Path, shown_width: int) -> None:
    """Write a quarter turn clockwise into the track header (ISO/IEC 14496-12, 8.3.2)."""
    data = bytearray(path.read_bytes())
    at = data.index(b"tkhd") + 4 + 40
    turn = struct.pack(">9i", 0, 1 << 16, 0, -(1 << 16), 0, 0, shown_width << 16, 0, 1 << 30)
    data[at : at + 36] = turn
    path.write_bytes(data)
