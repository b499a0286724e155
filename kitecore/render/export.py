"""A document as a finished file, made in pieces that can be repeated anywhere and then joined."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from contextlib import closing
from fractions import Fraction
from pathlib import Path
from typing import Literal

import av
import numpy as np
from av.audio.stream import AudioStream
from av.container import OutputContainer
from av.video.stream import VideoStream
from pydantic import Field

from kitecore.arrays import Size
from kitecore.document import Document, Model
from kitecore.document.model import Start
from kitecore.errors import BadInput, RenderFailed
from kitecore.media.folder import FindMedia
from kitecore.media.pixels import fitting
from kitecore.media.soundcopy import SOUND_RATE
from kitecore.render.ahead import ahead
from kitecore.render.deep import render_deep_planes
from kitecore.render.extract import content_key
from kitecore.render.formats import Format, Quality, formats
from kitecore.render.frame import render_planes
from kitecore.render.pieces import frame_samples
from kitecore.render.repeats import frames_of
from kitecore.render.samples import render_samples
from kitecore.render.sources import Sources
from kitecore.sound.ramps import Samples
from kitecore.ticks import Span

PIECE_FRAMES = 90
"""Frames of a piece: what a killed worker loses at most."""

_STRETCH = 10 * SOUND_RATE
"""Samples that are mixed in one go."""

Progress = Callable[[int], None]


class ExportSettings(Model):
    """What to make of a document.

    ``long_side`` is the most pixels of the longer side; 0 means the project's own size. ``first``
    and ``last`` bound the range in ticks; ``last`` 0 means to the end.
    """

    format: Literal["mp4", "webm", "hevc10", "av1"] = "mp4"
    quality: Quality = "good"
    long_side: int = Field(default=0, ge=0, le=4096)
    first: Start = 0
    last: Start = 0

    @property
    def recipe(self) -> Format:
        return formats[self.format]

    def size(self, document: Document) -> Size:
        canvas = document.canvas
        longest = max(canvas.width, canvas.height)
        return fitting(canvas.width, canvas.height, min(self.long_side or longest, longest))

    def frames(self, document: Document) -> range:
        """Numbers of the frames to make.

        Raises
        ------
        BadInput
            If there are none.
        """
        rate = document.rate.exact
        end = min(self.last or document.length, document.length)
        numbers = range(rate.frame_at(self.first), rate.frame_at(end))
        if not numbers:
            raise BadInput("There is nothing to export yet.", todo="Place a take first.")
        return numbers


def plan(document: Document, settings: ExportSettings) -> list[range]:
    """The frames of each piece."""
    numbers = settings.frames(document)
    return [numbers[at : at + PIECE_FRAMES] for at in range(0, len(numbers), PIECE_FRAMES)]


def piece_key(document: Document, settings: ExportSettings, piece: range, find: FindMedia) -> str:
    """Name of a piece by its content: an export after a small change finds most of them made."""
    rate = document.rate.exact
    span = Span(rate.start_of(piece.start), rate.start_of(piece.stop))
    recipe = settings.recipe
    facts = (settings.size(document), settings.format, recipe.options, recipe.quality)
    return content_key(document, span, find, *facts, settings.quality)


def encode_piece(
    document: Document,
    settings: ExportSettings,
    piece: range,
    path: Path,
    sources: Sources,
    progress: Progress = lambda frame: None,
) -> None:
    """Encode the picture of some frames to a file of its own (no sound), times from 0.

    The file appears under ``path`` only when it is whole. ``progress`` hears each finished frame's
    number, and may raise to stop.
    """
    rate, size = document.rate.exact, settings.size(document)
    draw = render_deep_planes if settings.recipe.deep else render_planes
    unfinished = path.with_suffix(".part")
    with av.open(str(unfinished), "w", format="mp4") as out:
        stream = _add_picture(out, document, settings, size)
        drawn = ahead(frames_of(document, piece, size, sources, draw))
        with closing(drawn) as frames:
            for number, frame in zip(piece, frames, strict=True):
                frame.pts, frame.time_base = number - piece.start, 1 / rate.fraction
                frame.pict_type = av.video.frame.PictureType.NONE
                out.mux(stream.encode(frame))
                progress(number)
        out.mux(stream.encode(None))
    unfinished.replace(path)


def _add_picture(
    out: OutputContainer, document: Document, settings: ExportSettings, size: Size
) -> VideoStream:
    recipe, rate = settings.recipe, document.rate.exact
    options = {**recipe.options, **recipe.quality[settings.quality]}
    stream = out.add_stream(recipe.picture_codec, rate=rate.fraction, options=options)
    assert isinstance(stream, VideoStream)
    stream.width, stream.height, stream.pix_fmt = *size, recipe.pixels
    context = stream.codec_context
    context.time_base = stream.time_base = 1 / rate.fraction
    context.gop_size = round(rate.fraction * 2)
    context.color_primaries = context.color_trc = context.colorspace = 1
    context.color_range = 1
    return stream


def join(
    document: Document,
    settings: ExportSettings,
    pieces: Sequence[Path],
    path: Path,
    sources: Sources,
    *,
    title: str = "",
    progress: Callable[[float], None] = lambda share: None,
) -> None:
    """Put pieces behind each other without encoding them anew, and add the sound.

    Raises
    ------
    RenderFailed
        If a piece is missing or broken.
    """
    recipe, numbers = settings.recipe, settings.frames(document)
    unfinished = path.with_suffix(".part")
    try:
        with av.open(
            str(unfinished), "w", format=recipe.container, options=recipe.container_options
        ) as out:
            if title:
                out.metadata["title"] = title
            with av.open(str(pieces[0])) as first:
                # Only copied: an encoder of its name (AV1 has none) is not needed.
                picture = out.add_stream_from_template(first.streams.video[0], opaque=True)
                if recipe.tag:
                    picture.codec_context.codec_tag = recipe.tag
            sound = out.add_stream(recipe.sound_codec, rate=SOUND_RATE, layout="stereo")
            assert isinstance(sound, AudioStream)
            sound.bit_rate = recipe.sound_bits[settings.quality]
            samples = _sound_frames(document, numbers, recipe, sources)
            done = 0
            for piece in pieces:
                done += _copy_piece(out, picture, piece, done, document)
                progress(done / len(numbers))
                _encode_sound(
                    out, sound, samples, until=Fraction(done) / document.rate.exact.fraction
                )
            _encode_sound(out, sound, samples, until=None)
            out.mux(sound.encode(None))
    except (av.FFmpegError, IndexError) as error:
        raise RenderFailed("The pieces of the export could not be joined.") from error
    unfinished.replace(path)


def _copy_piece(
    out: OutputContainer, stream: VideoStream, piece: Path, before: int, document: Document
) -> int:
    """Copy the packets of a piece, shifted by the ``before`` frames that are done; their number."""
    base = 1 / document.rate.exact.fraction
    count = 0
    with av.open(str(piece)) as source:
        for packet in source.demux(source.streams.video[0]):
            if not packet.size:
                continue
            packet.pts = before + _in_frames(packet.pts, packet.time_base, base)
            packet.dts = before + _in_frames(packet.dts, packet.time_base, base)
            packet.time_base, packet.duration = base, 1
            packet.stream = stream
            out.mux(packet)
            count += 1
    return count


def _in_frames(time: int | None, unit: Fraction, frame: Fraction) -> int:
    return round((time or 0) * unit / frame)


def _sound_frames(
    document: Document, numbers: range, recipe: Format, sources: Sources
) -> Iterator[tuple[Fraction, av.AudioFrame]]:
    """The sound in frames of a fifth of a second, each with its time from the start."""
    start, end = frame_samples(document.rate.exact, numbers.start, numbers.stop)
    block = SOUND_RATE // 5
    for at, mixed in _sound_blocks(document, start, end, block, sources):
        planar = recipe.sound_format.endswith("p")
        array = np.ascontiguousarray(mixed.T) if planar else mixed.reshape(1, -1)
        frame = av.AudioFrame.from_ndarray(array, format=recipe.sound_format, layout="stereo")
        frame.sample_rate, frame.time_base = SOUND_RATE, Fraction(1, SOUND_RATE)
        frame.pts = at - start
        yield Fraction(at - start, SOUND_RATE), frame


def _sound_blocks(
    document: Document, start: int, end: int, block: int, sources: Sources
) -> Iterator[tuple[int, Samples]]:
    """The sound by blocks, mixed in long stretches: what runs up to each is mixed anew."""
    for begin in range(start, end, _STRETCH):
        stretch = render_samples(document, begin, min(_STRETCH, end - begin), sources)
        for at in range(0, len(stretch), block):
            yield begin + at, stretch[at : at + block]


def _encode_sound(
    out: OutputContainer,
    stream: AudioStream,
    frames: Iterator[tuple[Fraction, av.AudioFrame]],
    until: Fraction | None,
) -> None:
    """Encode the sound up to a time, so that it lies in the file beside its picture."""
    for time, frame in frames:
        out.mux(stream.encode(frame))
        if until is not None and time >= until:
            return
