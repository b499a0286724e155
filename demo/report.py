"""The wind report, read before three cameras and a recorder; two folded sheets are clapped first.

All heard and saw one scene, so where each began is known: `BEGINS`.
"""

from __future__ import annotations

import subprocess
import tempfile
import zlib
from collections.abc import Iterator, Mapping
from functools import cache
from pathlib import Path
from typing import Any, Final

import numpy as np
import skia
from numpy.typing import NDArray
from scipy.io import wavfile
from scipy.signal import butter, fftconvolve, resample_poly, sosfilt

from demo.paper import draw_sheet, polygon
from demo.project import Source, ticks_of
from demo.scenes import Draw, bird
from demo.sounds import SOUND_RATE, plucked, write_flac
from kitecore.document import derived_id
from kitecore.edits import EditBase, edit_kinds

Samples = NDArray[np.float64]
NAME: Final = "Report desk"
LINES: Final = (
    "This is the wind report. North of the folded hills the paper lies flat. "
    "From noon on, a light breeze comes in by the window. Kites may rise until the lamp is lit."
)
CLAP: Final = 1.5
_SPEAKS: Final = 2.4
_LASTS: Final = 14.0
BEGINS: Final = {
    "report-near.mp4": 0.9,
    "report-wide-1.mp4": 0.0,
    "report-wide-2.mp4": 6.1,
    "report-side.mp4": 0.3337,
    "report-recorder.flac": 0.4121,
}
"""Seconds of the scene at which each recording begins."""
TAKES: Final = tuple(BEGINS)


@cache
def _voice() -> Samples:
    with tempfile.TemporaryDirectory() as folder:
        path = Path(folder) / "report.wav"
        speak = ["espeak-ng", "-v", "en-gb+f3", "-s", "165", "-p", "46", "-w", str(path), LINES]
        subprocess.run(speak, check=True, capture_output=True)
        rate, samples = wavfile.read(path)
    spoken: Samples = resample_poly(samples / 32768, SOUND_RATE, rate)
    return spoken


@cache
def scene_sound() -> Samples:
    """All that was to be heard: the clap, the voice, and a bell at the end."""
    out = np.zeros(round(_LASTS * SOUND_RATE))
    luck = np.random.default_rng(21)
    clap = luck.normal(0, 1, 2400) * np.exp(-np.arange(2400) / 260)
    for at, sound, gain in (
        (CLAP, clap, 0.5),
        (_SPEAKS, _voice(), 0.9),
        (12.6, plucked(76, 1.3), 0.3),
    ):
        begin = round(at * SOUND_RATE)
        part = np.asarray(sound)[: len(out) - begin]
        out[begin : begin + len(part)] += gain * part
    return out


def _from(begin: float, seconds: float) -> Samples:
    first = round(begin * SOUND_RATE)
    part = scene_sound()[first : first + round(seconds * SOUND_RATE)]
    return np.pad(part, (0, round(seconds * SOUND_RATE) - len(part)))


def hear(
    seconds: float, *, name: str, bands: tuple[float, float], room: float, noise: float
) -> Samples:
    """What a camera's microphone makes of it: its bands, the room's share, noise."""
    luck = np.random.default_rng(zlib.crc32(name.encode()))
    plain = _from(BEGINS[name], seconds)
    time = np.arange(SOUND_RATE // 3) / SOUND_RATE
    echo = luck.normal(0, 1, len(time)) * np.exp(-time / 0.08)
    around = fftconvolve(plain, echo / np.sqrt((echo**2).sum()))[: len(plain)]
    mixed = (1 - room) * plain + room * around + luck.normal(0, noise, len(plain))
    kept: Samples = sosfilt(butter(2, bands, "band", fs=SOUND_RATE, output="sos"), mixed)
    return np.clip(kept, -0.9, 0.9)


def make_recording(folder: Path) -> Path:
    """The recorder's sound: near, and clean."""
    path = folder / "report-recorder.flac"
    write_flac(path, _from(BEGINS[path.name], 13.2))
    return path


@cache
def _loudness() -> Samples:
    """Of the voice, for each hundredth of a second."""
    step = SOUND_RATE // 100
    voice = np.abs(_voice())[: len(_voice()) // step * step].reshape(-1, step).max(axis=1)
    kept: Samples = voice / voice.max()
    return kept


def _mouth(time: float) -> float:
    at = int((time - _SPEAKS) * 100)
    return float(_loudness()[at]) if 0 <= at < len(_loudness()) else 0.0


def view(
    width: int,
    height: int,
    *,
    name: str,
    scale: float,
    x: float,
    y: float,
    turn: float = 0,
    sharp: float = 0,
) -> Draw:
    """The desk as a camera sees it; out of focus until it is ``sharp``, in seconds of its own."""
    read = bird(1080, 1920, speaks=lambda time: 40 * _mouth(time))

    def draw(canvas: skia.Canvas, time: float) -> None:
        blur = max(0.0, min(1.0, (sharp - time) / 0.5)) * 9
        paint = skia.Paint(ImageFilter=skia.ImageFilters.Blur(blur, blur)) if blur else None
        canvas.save()
        canvas.scale(width / 1080, height / 1920)
        canvas.saveLayer(None, paint)
        canvas.clear(0xFF24404A)
        canvas.translate(540 + x, 960 + y)
        canvas.rotate(turn)
        canvas.scale(scale, abs(scale))
        canvas.translate(-540, -960)
        now = time + BEGINS[name]
        read(canvas, now)
        _desk(canvas, now)
        canvas.restore()
        canvas.restore()

    return draw


def _desk(canvas: skia.Canvas, time: float) -> None:
    """The table, the report on it, and the sheets that are clapped."""
    draw_sheet(
        canvas,
        polygon((-700, 1560), (1780, 1560), (1780, 2300), (-700, 2300)),
        0xFF8A5A44,
        shadow=40,
    )
    draw_sheet(
        canvas,
        polygon((300, 1600), (760, 1590), (800, 1800), (270, 1810)),
        0xFFF7EBD3,
        shadow=14,
        seed=6,
    )
    apart = 62 * min(1.0, abs(time - CLAP) * 3.2) if time < CLAP + 1.2 else None
    if apart is None:
        return
    canvas.save()
    canvas.translate(540, 1520)
    for side in (-1, 1):
        canvas.save()
        canvas.rotate(side * apart / 2)
        draw_sheet(
            canvas,
            polygon((side * 4, 0), (side * 250, -40), (side * 250, -300), (side * 4, -300)),
            0xFFF5C155,
            shadow=18,
        )
        canvas.restore()
    canvas.restore()


_CUTS: Final = ((0.0, 1), (2.2, 0), (4.3, 2), (6.6, 1), (8.2, 0), (10.4, 2), (12.0, 1))
"""Seconds of the scene, and which camera is live: near, wide, side."""


def report_edits(takes: Mapping[str, Source]) -> Iterator[EditBase]:
    """One clip of three cameras, one of them in two files, and a recorder that is heard throughout."""

    def edit(kind: str, **fields: Any) -> EditBase:
        made: EditBase = edit_kinds[kind].model_validate({"kind": kind, **fields})
        return made

    parts = [
        {
            "media": takes[name].media,
            "name": name,
            "kind": "sound" if name.endswith("flac") else "video",
            "length": takes[name].length,
        }
        for name in TAKES
    ]
    yield edit("gather_angles", seed="report", takes=parts, name=NAME)
    clip = derived_id("report", 0)
    places = [{"angle": at, "at": ticks_of(BEGINS[name])} for at, name in enumerate(TAKES)]
    yield edit("line_up", clip=clip, places=places)
    yield edit("join_angles", clip=clip, angle=2, into=1)
    for angle, name in enumerate(("near", "wide", "side", "recorder")):
        yield edit("name_angle", clip=clip, angle=angle, name=name)
    yield edit("hear_angles", clip=clip, hears=[3, 3, 3, 3])
    yield edit("show_angle", clip=clip, at=0, angle=_CUTS[0][1])
    cuts = [{"at": ticks_of(at), "angle": angle} for at, angle in _CUTS[1:]]
    yield edit("switch", clip=clip, cuts=cuts)
    dissolve = {"kind": "dissolve", "length": ticks_of(0.4)}
    yield edit("cross_switch", clip=clip, at=ticks_of(12), transition=dissolve)
