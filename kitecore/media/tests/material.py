"""Made material whose truth is known: every frame carries its number, every sound is a known wave."""

from __future__ import annotations

import wave
from collections.abc import Callable, Sequence
from fractions import Fraction
from pathlib import Path

import av
import numpy as np
from numpy.typing import NDArray

from kitecore.media.folder import MediaFolder
from kitecore.media.ingest import ingest

COLUMNS, ROWS = 4, 3
BITS = COLUMNS * ROWS
Rgb = NDArray[np.uint8]


def numbered_picture(number: int, width: int, height: int) -> Rgb:
    """The lowest 12 bits of a number as white and black fields, first bit at the top left."""
    picture = np.zeros((height, width, 3), np.uint8)
    for bit in range(BITS):
        if number >> bit & 1:
            y, x = divmod(bit, COLUMNS)
            rows = slice(y * height // ROWS, (y + 1) * height // ROWS)
            columns = slice(x * width // COLUMNS, (x + 1) * width // COLUMNS)
            picture[rows, columns] = 235
    return picture


def read_number(picture: Rgb) -> int:
    """The number that a picture carries, however it was scaled or compressed."""
    height, width = picture.shape[:2]
    number = 0
    for bit in range(BITS):
        y, x = divmod(bit, COLUMNS)
        middle_y, middle_x = int((y + 0.5) * height / ROWS), int((x + 0.5) * width / COLUMNS)
        field = picture[middle_y - 3 : middle_y + 3, middle_x - 3 : middle_x + 3, :3]
        number |= int(field.mean() > 118) << bit
    return number


def tone(seconds: float, rate: int = 48_000, frequency: float = 440.0) -> NDArray[np.float32]:
    """A sine of half full scale, mono, from phase 0."""
    time = np.arange(round(seconds * rate)) / rate
    return (0.5 * np.sin(2 * np.pi * frequency * time)).astype(np.float32)


def make_video(
    path: Path,
    *,
    frames: int = 60,
    rate: Fraction | int = 30,
    size: tuple[int, int] = (160, 240),
    codec: str = "libx264",
    pixels: str = "yuv420p",
    times: Sequence[int] | None = None,
    base: Fraction | None = None,
    options: dict[str, str] | None = None,
    sound: NDArray[np.float32] | None = None,
    sound_codec: str = "aac",
    container: str = "mp4",
    gop: int = 12,
    draw: Callable[[int], av.VideoFrame] | None = None,
) -> Path:
    """A video whose frames carry their numbers, or are what ``draw`` makes of a number.

    ``times`` (in units of ``base``) make it uneven; ``sound`` is mono at 48 kHz.
    """
    rate = Fraction(rate)
    base = base or 1 / rate
    with av.open(str(path), "w", format=container) as out:
        stream = out.add_stream(codec, rate=rate, options=options or {})
        stream.width, stream.height, stream.pix_fmt = *size, pixels
        stream.codec_context.time_base = stream.time_base = base
        stream.codec_context.gop_size = gop
        track = (
            out.add_stream(sound_codec, rate=48_000, layout="mono") if sound is not None else None
        )
        for number in range(frames):
            planes = draw(number) if draw else numbered(number, size, pixels)
            planes.pts = times[number] if times else number
            planes.time_base = base
            out.mux(stream.encode(planes))
        out.mux(stream.encode(None))
        if track is not None and sound is not None:
            _encode_tone(out, track, sound)
    return path


def numbered(number: int, size: tuple[int, int], pixels: str) -> av.VideoFrame:
    frame = av.VideoFrame.from_ndarray(numbered_picture(number, *size), format="rgb24")
    return frame.reformat(format=pixels, dst_colorspace="ITU709", dst_color_range="MPEG")


def _encode_tone(
    out: av.container.OutputContainer, track: av.AudioStream, sound: NDArray[np.float32]
) -> None:
    for at in range(0, len(sound), 4800):
        frame = av.AudioFrame.from_ndarray(sound[None, at : at + 4800], "fltp", "mono")
        frame.sample_rate, frame.pts, frame.time_base = 48_000, at, Fraction(1, 48_000)
        out.mux(track.encode(frame))
    out.mux(track.encode(None))


def make_wav(path: Path, samples: NDArray[np.float32], rate: int = 48_000) -> Path:
    """16 bit; mono, or as many channels as the samples have columns."""
    channels = samples.shape[1] if samples.ndim == 2 else 1
    with wave.open(str(path), "wb") as file:
        file.setparams((channels, 2, rate, 0, "NONE", ""))
        file.writeframes(np.rint(samples * 32767).astype(np.int16).tobytes())
    return path


def ingested(root: Path, name: str, source: Path) -> MediaFolder:
    """The file as a take, with all copies, under ``root / name``."""
    folder = MediaFolder(root / name)
    folder.path.mkdir(parents=True)
    source.rename(folder.original)
    ingest(folder)
    return folder


def decoded(path: Path | str) -> list[NDArray[np.uint8]]:
    """A finished file's frames in RGB, by plain decoding from the start."""
    with av.open(str(path)) as container:
        return [frame.to_ndarray(format="rgb24") for frame in container.decode(video=0)]


def decoded_numbers(path: Path) -> list[int]:
    """The numbers in a finished file's frames."""
    return [read_number(frame) for frame in decoded(path)]
