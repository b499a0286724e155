"""Captions as a track of a film's file, which players show on request."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from fractions import Fraction
from itertools import pairwise
from typing import Final, NamedTuple

import av
from av.container import OutputContainer
from av.subtitles.stream import SubtitleStream

from kitecore.document import Document, TextClip
from kitecore.ticks import TICKS_PER_SECOND, Span

_UNIT: Final = Fraction(1, 1000)
_STYLE: Final = b"""[Script Info]
ScriptType: v4.00+

[V4+ Styles]
Format: Name, Fontname, Fontsize, PrimaryColour, SecondaryColour, OutlineColour, BackColour, Bold, \
Italic, Underline, StrikeOut, ScaleX, ScaleY, Spacing, Angle, BorderStyle, Outline, Shadow, \
Alignment, MarginL, MarginR, MarginV, Encoding
Style: Default,sans-serif,16,&Hffffff,&Hffffff,&H0,&H0,0,0,0,0,100,100,0,0,1,1,0,2,10,10,10,0

[Events]
Format: Layer, Start, End, Style, Name, MarginL, MarginR, MarginV, Effect, Text
"""
"""What encoders want to know of looks; players have their own."""


class Said(NamedTuple):
    """A text with the milliseconds from its beginning to its end, from the start of a file."""

    begin: int
    end: int
    text: str


def said_in(document: Document, span: Span) -> tuple[Said, ...]:
    """The captions of a document within a range, one after another: none goes on over the next."""
    clips = [
        clip
        for track in document.tracks
        if track.captions
        for clip in track.clips
        if isinstance(clip, TextClip)
    ]
    told = sorted(
        Said(_milliseconds(one.begin - span.start), _milliseconds(one.end - span.start), one.words)
        for clip in clips
        for one in clip.sayings
        if one.end > span.start and one.begin < span.end
    )
    ends = [min(one.end, after.begin) for one, after in pairwise(told)]
    ends += [min(one.end, _milliseconds(span.end - span.start)) for one in told[-1:]]
    cut = (one._replace(end=end) for one, end in zip(told, ends, strict=True))
    return tuple(one for one in cut if one.end > one.begin)


def _milliseconds(ticks: int) -> int:
    return max(0, round(Fraction(ticks, TICKS_PER_SECOND) * 1000))


def _timed_text(text: str) -> bytes:
    """A sample of 3GPP timed text (TS 26.245): its length in bytes, then UTF-8."""
    coded = text.encode()
    return len(coded).to_bytes(2, "big") + coded


_SAMPLES: Final[dict[str, Callable[[str], bytes]]] = {
    "mov_text": _timed_text,
    "webvtt": str.encode,
}
CAPTION_CODECS: Final = frozenset(_SAMPLES)
"""FFmpeg's names of what captions are coded as."""


class CaptionTrack:
    """Captions on their way into a container, in step with its picture."""

    def __init__(self, out: OutputContainer, codec: str, said: Iterable[Said]) -> None:
        self._out = out
        self._sample = _SAMPLES[codec]
        self._left = list(reversed(list(said)))
        stream = out.add_stream(codec)
        assert isinstance(stream, SubtitleStream)
        stream.codec_context.time_base = _UNIT
        stream.codec_context.subtitle_header = _STYLE
        stream.codec_context.open()
        self._stream = stream

    def encode(self, until: Fraction | None = None) -> None:
        """Write what begins before a time in seconds; or all."""
        while self._left and (until is None or self._left[-1].begin <= until * 1000):
            one = self._left.pop()
            packet = av.Packet(self._sample(one.text))
            packet.stream, packet.time_base = self._stream, _UNIT
            packet.pts = packet.dts = one.begin
            packet.duration = one.end - one.begin
            self._out.mux(packet)
