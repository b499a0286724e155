"""A stretch of pictures, encoded to a file of its own."""

from __future__ import annotations

from contextlib import closing
from dataclasses import dataclass
from pathlib import Path

import av
from av.container import OutputContainer
from av.video.stream import VideoStream

from kitecore.media.whole import whole_file
from kitecore.render.ahead import ahead
from kitecore.render.making.drawing import drawn
from kitecore.render.making.work import Progress, Work
from kitecore.render.sources import Sources


@dataclass(frozen=True)
class PictureCoding:
    """FFmpeg's names of a container, an encoder and its pixels, and the encoder's options."""

    container: str
    codec: str
    pixels: str
    options: dict[str, str]


def encode_pictures(
    work: Work,
    numbers: range,
    coding: PictureCoding,
    path: Path,
    sources: Sources,
    progress: Progress,
) -> None:
    """Encode some frames, times from 0. The file appears only when it is whole."""
    with (
        whole_file(path) as unfinished,
        av.open(str(unfinished), "w", format=coding.container) as out,
    ):
        stream = _add_picture(out, work, coding)
        with closing(ahead(drawn(work, numbers, coding.pixels, sources))) as frames:
            for number, frame in zip(numbers, frames, strict=True):
                frame.pts, frame.time_base = number - numbers.start, 1 / work.rate.fraction
                frame.pict_type = av.video.frame.PictureType.NONE
                out.mux(stream.encode(frame))
                progress(number)
        out.mux(stream.encode(None))


def _add_picture(out: OutputContainer, work: Work, coding: PictureCoding) -> VideoStream:
    rate = work.rate.fraction
    stream = out.add_stream(coding.codec, rate=rate, options=coding.options)
    assert isinstance(stream, VideoStream)
    stream.width, stream.height = work.size
    stream.pix_fmt = coding.pixels
    context = stream.codec_context
    context.time_base = stream.time_base = 1 / rate
    context.gop_size = round(rate * 2)
    if "yuv" in coding.pixels:
        context.color_primaries = context.color_trc = context.colorspace = 1
        context.color_range = 1
    return stream
