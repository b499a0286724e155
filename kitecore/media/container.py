"""Opening files with FFmpeg, its errors turned into ours."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager
from fractions import Fraction
from pathlib import Path

import av
from av.container import InputContainer
from av.video.stream import VideoStream

from kitecore.errors import BrokenMedia, MediaMissing
from kitecore.ticks import TICKS_PER_SECOND


@contextmanager
def opened(path: Path) -> Iterator[InputContainer]:
    """An open input file.

    Raises
    ------
    MediaMissing, BrokenMedia
    """
    # Frames that come without a time get one from those around them.
    options = {"fflags": "+genpts"}
    with (
        plain_errors(path),
        av.open(str(path), metadata_errors="replace", container_options=options) as container,
    ):
        yield container


@contextmanager
def plain_errors(path: Path) -> Iterator[None]:
    try:
        yield
    except FileNotFoundError as error:
        raise MediaMissing("The file of this take is missing.") from error
    except (av.FFmpegError, EOFError) as error:
        reason = getattr(error, "strerror", None) or "it ends too early"
        raise BrokenMedia(f"The file is damaged or incomplete ({reason}).") from error


def origin_of(container: InputContainer) -> int:
    """The tick that counts as 0: where the first of the file's streams starts.

    Sound before 0 is the run-up of its codec, which is cut off in decoding and so does not count.
    """
    starts = []
    for stream in (*container.streams.video[:1], *container.streams.audio[:1]):
        if stream.start_time is not None and stream.time_base is not None:
            start = to_ticks(stream.start_time, stream.time_base)
            starts.append(max(start, 0) if stream.type == "audio" else start)
    return min(starts, default=0)


def to_ticks(time: int, base: Fraction) -> int:
    """A time in units of ``base`` as ticks, rounded to nearest."""
    return round(time * base * TICKS_PER_SECOND)


def picture_stream(container: InputContainer) -> VideoStream | None:
    """The first moving picture; covers attached to sound files are none."""
    for stream in container.streams.video:
        if not stream.disposition & stream.disposition.attached_pic:
            return stream
    return None
