"""Pieces of the timeline for playing: fragmented MP4 that a browser joins without a seam.

Picture and sound come separately. Times are absolute, so pieces can be made in any order. Sound is
FLAC, which joins to the sample, or, for browsers that do not take that in pieces, AAC: there a piece
is coded with some sound around it, and holds only those of its frames that no other piece does.
"""

from __future__ import annotations

import io
from contextlib import closing
from fractions import Fraction
from typing import Any, Final

import av
import numpy as np
from numpy.typing import NDArray

from kitecore.arrays import Size
from kitecore.document import Document
from kitecore.media.soundcopy import SOUND_RATE
from kitecore.render.ahead import ahead
from kitecore.render.frame import render_planes
from kitecore.render.levels import PieceLevels, sound_and_levels
from kitecore.render.repeats import frames_of
from kitecore.render.samples import render_samples
from kitecore.render.sources import Sources
from kitecore.sound.ramps import Samples, sample_at
from kitecore.ticks import Rate

PICTURE_TYPE: Final = 'video/mp4; codecs="avc1.42C028"'
SOUND_TYPES: Final = {
    "flac": 'audio/mp4; codecs="flac"',
    "aac": 'audio/mp4; codecs="mp4a.40.2"',
}

AAC_BLOCK: Final = 1024
"""Samples that AAC codes at a time."""
AAC_AROUND: Final = 3
"""Blocks before and behind those of a piece that it is coded with."""

_MUXER: Final = {
    "movflags": "empty_moov+default_base_moof+frag_discont+skip_trailer+frag_keyframe",
    "use_editlist": "0",
    "avoid_negative_ts": "disabled",
}
_ENCODER: Final = {
    "preset": "ultrafast",
    "tune": "zerolatency",
    "profile": "baseline",
    "level": "4.0",
    "crf": "23",
    "x264-params": "keyint=9999:scenecut=0",
}


def picture_piece(document: Document, first: int, last: int, size: Size, sources: Sources) -> bytes:
    """Frames ``first`` up to, not including, ``last`` as H.264 in fragmented MP4."""
    rate = document.rate.exact
    buffer = io.BytesIO()
    with av.open(buffer, "w", format="mp4", options=_MUXER) as out:
        stream = out.add_stream("libx264", rate=rate.fraction, options=_ENCODER)
        stream.width, stream.height, stream.pix_fmt = *size, "yuv420p"
        stream.codec_context.time_base = stream.time_base = 1 / rate.fraction
        stream.codec_context.thread_count = 1
        numbers = range(first, last)
        with closing(ahead(frames_of(document, numbers, size, sources, render_planes))) as drawn:
            for number, frame in zip(numbers, drawn, strict=True):
                frame.pts, frame.time_base = number, 1 / rate.fraction
                frame.pict_type = _forced(number == first)
                out.mux(stream.encode(frame))
        out.mux(stream.encode(None))
    return buffer.getvalue()


def sound_piece(document: Document, first: int, last: int, sources: Sources) -> bytes:
    """The sound of the same frames as FLAC in fragmented MP4."""
    return metered_piece(document, first, last, sources)[0]


def metered_piece(
    document: Document, first: int, last: int, sources: Sources
) -> tuple[bytes, PieceLevels]:
    """The same, with the levels of all that made it."""
    samples, levels = sound_and_levels(document, first, last, sources)
    start, _ = frame_samples(document.rate.exact, first, last)
    return _flac(samples, start), levels


def _flac(samples: Samples, start: int) -> bytes:
    """Sound from sample ``start`` on as FLAC (16 bit, 48 kHz, stereo) in fragmented MP4."""
    coded = np.rint(samples * 32767).astype(np.int16)
    buffer = io.BytesIO()
    with av.open(buffer, "w", format="mp4", options=_MUXER) as out:
        stream = out.add_stream("flac", rate=SOUND_RATE, layout="stereo", format="s16")
        stream.time_base = Fraction(1, SOUND_RATE)
        block = 4608
        for at in range(0, len(coded), block):
            part = np.ascontiguousarray(coded[at : at + block]).reshape(1, -1)
            out.mux(stream.encode(_sound_frame(part, "s16", start + at)))
        out.mux(stream.encode(None))
    return buffer.getvalue()


def aac_piece(document: Document, first: int, last: int, sources: Sources) -> bytes:
    """The sound of the same frames as AAC-LC, of which other pieces hold what is before and behind.

    AAC codes 1024 samples at a time, each block overlapped with the one before (ISO/IEC 14496-3),
    so blocks lie on one grid for the whole film: a piece holds those that begin before its end and
    not before its start, but for the block that its start lies in. Coding begins earlier and ends
    later, so that what the coder carries over is the same as without a join.
    """
    start, end = frame_samples(document.rate.exact, first, last)
    low, high = start // AAC_BLOCK, end // AAC_BLOCK
    if last >= document.frames:
        high = -(-end // AAC_BLOCK)
    lead, count = (low - AAC_AROUND) * AAC_BLOCK, high - low + 2 * AAC_AROUND
    samples = render_samples(document, lead, count * AAC_BLOCK, sources)
    buffer = io.BytesIO()
    with av.open(buffer, "w", format="mp4", options=_MUXER) as out:
        stream = out.add_stream("aac", rate=SOUND_RATE, layout="stereo", format="fltp")
        stream.bit_rate, stream.time_base = 192_000, Fraction(1, SOUND_RATE)
        for at in range(0, len(samples), AAC_BLOCK):
            part = np.ascontiguousarray(samples[at : at + AAC_BLOCK].T)
            for packet in stream.encode(_sound_frame(part, "fltp", lead + at)):
                if packet.pts is not None and low <= packet.pts // AAC_BLOCK < high:
                    out.mux(packet)
    return buffer.getvalue()


def _sound_frame(samples: NDArray[Any], format: str, at: int) -> av.AudioFrame:
    """Samples in the format of a coder, from sample ``at`` of the film on."""
    frame = av.AudioFrame.from_ndarray(samples, format=format, layout="stereo")
    frame.sample_rate, frame.time_base, frame.pts = SOUND_RATE, Fraction(1, SOUND_RATE), at
    return frame


def frame_samples(rate: Rate, first: int, last: int) -> tuple[int, int]:
    """The samples at which frame ``first`` starts and frame ``last`` would."""
    return sample_at(rate.start_of(first)), sample_at(rate.start_of(last))


def _forced(key: bool) -> av.video.frame.PictureType:
    kinds = av.video.frame.PictureType
    return kinds.I if key else kinds.NONE
