"""Captions as files: SubRip (.srt) and WebVTT (.vtt), through pysubs2."""

from __future__ import annotations

import codecs
import html
import re
from collections import Counter
from collections.abc import Iterable, Mapping
from itertools import pairwise
from typing import Final, Literal

import pysubs2

from kitecore.document import Document, Model, TextClip
from kitecore.document.clips.text import MOST_LETTERS
from kitecore.document.cues import Cue
from kitecore.edits.captions import MOST_CUES
from kitecore.errors import BadInput
from kitecore.exchange import cueplaces, wordmarks
from kitecore.ticks import TICKS_PER_SECOND

MOST_BYTES: Final = 4 * 2**20
_TICKS: Final = TICKS_PER_SECOND // 1000
"""Ticks of a millisecond."""
_MARKS: Final = (
    (codecs.BOM_UTF8, "utf-8-sig"),
    (codecs.BOM_UTF16_LE, "utf-16"),
    (codecs.BOM_UTF16_BE, "utf-16"),
)

_STYLE: Final = re.compile(r"\{\\(?!an)")
"""What pysubs2 makes of styles, but for places."""

CaptionFormat = Literal["srt", "vtt"]


class CaptionsRead(Model):
    """Cues of a file in order, and what of it was left out, in words."""

    cues: tuple[Cue, ...]
    remarks: tuple[str, ...] = ()


def read_captions(data: bytes) -> CaptionsRead:
    """The captions of a file, their styles left out.

    Raises
    ------
    BadInput
        If it holds none.
    """
    text, remarks = _decoded(data)
    text = text.replace("\r\n", "\n").replace("\r", "\n")
    format = _format_of(text)
    if format == "vtt":
        text = cueplaces.marked(wordmarks.marked(text))
    try:
        found = pysubs2.SSAFile.from_string(text, format_=format)
    except (pysubs2.exceptions.Pysubs2Error, ValueError, KeyError, IndexError) as error:
        raise BadInput(
            "This is no file of captions that can be read.", todo="Choose an .srt or a .vtt file."
        ) from error
    spoken = [event for event in found if not event.is_comment and _words_of(event)]
    cues = [_cue(event, format) for event in spoken[:MOST_CUES]]
    if not cues:
        raise BadInput("There are no captions in this file.", todo="Choose another file.")
    return CaptionsRead(cues=tuple(cues), remarks=(*remarks, *_left_out(text, spoken)))


def _words_of(event: pysubs2.SSAEvent) -> str:
    return cueplaces.parted(event.plaintext.strip(), "")[0].strip()


def _cue(event: pysubs2.SSAEvent, format: CaptionFormat) -> Cue:
    start = max(0, event.start)
    until = max(event.end, start)
    text, height = cueplaces.parted(event.plaintext.strip(), event.text)
    text, begins = wordmarks.parted(text.strip(), start, until)
    if format == "vtt":
        text = html.unescape(text)
    return Cue(
        at=start * _TICKS,
        until=until * _TICKS,
        text=text[:MOST_LETTERS],
        words=tuple(max(0, at) * _TICKS for at in begins),
        height=height,
    )


def _decoded(data: bytes) -> tuple[str, list[str]]:
    for mark, name in _MARKS:
        if data.startswith(mark):
            return data.decode(name, errors="replace"), []
    try:
        return data.decode("utf-8"), []
    except UnicodeDecodeError:
        return data.decode("cp1252", errors="replace"), [
            "The file is not in UTF-8; it was read as Windows-1252."
        ]


def _format_of(text: str) -> CaptionFormat:
    return "vtt" if text.lstrip().startswith("WEBVTT") else "srt"


def _left_out(text: str, spoken: list[pysubs2.SSAEvent]) -> list[str]:
    remarks = []
    if len(spoken) > MOST_CUES:
        remarks.append(f"Only the first {MOST_CUES} captions were taken.")
    ordered = sorted(spoken, key=lambda one: one.start)
    pairs = pairwise(ordered)
    overlapping = sum(after.start < before.end for before, after in pairs)
    if overlapping:
        remarks.append(f"Captions overlap in {overlapping} places: the earlier one ends early.")
    if any(_STYLE.search(event.text) for event in spoken):
        remarks.append("Italics, colours and sides were left out: all captions look alike.")
    return remarks


def write_captions(document: Document, format: CaptionFormat) -> str:
    """All captions of a document as a file, those of several tracks in order of time."""
    clips = [
        clip
        for track in document.tracks
        if track.captions
        for clip in track.clips
        if isinstance(clip, TextClip)
    ]
    usual = Counter(_height(clip, document) for clip in clips).most_common(1)
    ordered = sorted(clips, key=lambda one: (one.start, one.end))
    elsewhere = {
        clip.id: height
        for clip in clips
        if (height := _height(clip, document)) is not None and height != usual[0][0]
    }
    return _written(ordered, format, elsewhere)


def _height(clip: TextClip, document: Document) -> float | None:
    """Where its middle lies in the height of the picture; None if it moves."""
    position = clip.place.position
    if not isinstance(position, tuple):
        return None
    return round(0.5 + position[1] / document.canvas.height, 3)


def _written(
    clips: Iterable[TextClip], format: CaptionFormat, elsewhere: Mapping[str, float]
) -> str:
    """``elsewhere``: heights of those that do not lie where most do, which the second format can say."""
    file = pysubs2.SSAFile()
    for clip in clips:
        lit = format == "vtt" and clip.lit is not None
        begins = tuple(at // _TICKS for at in clip.begins) if lit else ()
        for said in clip.sayings:
            event = pysubs2.SSAEvent(start=said.begin // _TICKS, end=said.end // _TICKS)
            event.plaintext = said.words
            if format == "vtt":
                event.plaintext = wordmarks.written(said.words, begins)
                if clip.id in elsewhere:
                    event.plaintext = cueplaces.before(event.plaintext, elsewhere[clip.id])
            file.append(event)
    return cueplaces.written(file.to_string(format))
