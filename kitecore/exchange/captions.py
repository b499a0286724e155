"""Captions as files: SubRip (.srt) and WebVTT (.vtt), through pysubs2."""

from __future__ import annotations

import codecs
import html
from collections.abc import Iterable
from itertools import pairwise
from typing import Final, Literal

import pysubs2

from kitecore.document import Document, Model, TextClip
from kitecore.document.clips.text import MOST_LETTERS
from kitecore.edits.captions import MOST_CUES
from kitecore.edits.cues import Cue
from kitecore.errors import BadInput
from kitecore.exchange.wordmarks import marked, parted, written
from kitecore.ticks import TICKS_PER_SECOND

MOST_BYTES: Final = 4 * 2**20
_TICKS: Final = TICKS_PER_SECOND // 1000
"""Ticks of a millisecond."""
_MARKS: Final = (
    (codecs.BOM_UTF8, "utf-8-sig"),
    (codecs.BOM_UTF16_LE, "utf-16"),
    (codecs.BOM_UTF16_BE, "utf-16"),
)

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
    text = marked(text.replace("\r\n", "\n").replace("\r", "\n"))
    format = _format_of(text)
    try:
        found = pysubs2.SSAFile.from_string(text, format_=format)
    except (pysubs2.exceptions.Pysubs2Error, ValueError, KeyError, IndexError) as error:
        raise BadInput(
            "This is no file of captions that can be read.", todo="Choose an .srt or a .vtt file."
        ) from error
    spoken = [event for event in found if not event.is_comment and event.plaintext.strip()]
    cues = [_cue(event, format) for event in spoken[:MOST_CUES]]
    if not cues:
        raise BadInput("There are no captions in this file.", todo="Choose another file.")
    return CaptionsRead(cues=tuple(cues), remarks=(*remarks, *_left_out(text, spoken)))


def _cue(event: pysubs2.SSAEvent, format: CaptionFormat) -> Cue:
    start = max(0, event.start)
    until = max(event.end, start)
    text, begins = parted(event.plaintext.strip(), start, until)
    if format == "vtt":
        text = html.unescape(text)
    return Cue(
        at=start * _TICKS,
        until=until * _TICKS,
        text=text[:MOST_LETTERS],
        words=tuple(max(0, at) * _TICKS for at in begins),
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
    if any("{\\" in event.text for event in spoken):
        remarks.append("Italics, colours and places were left out: all captions look alike.")
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
    return _written(sorted(clips, key=lambda one: (one.start, one.end)), format)


def _written(clips: Iterable[TextClip], format: CaptionFormat) -> str:
    file = pysubs2.SSAFile()
    for clip in clips:
        lit = format == "vtt" and clip.lit is not None
        begins = tuple(at // _TICKS for at in clip.begins) if lit else ()
        for said in clip.sayings:
            event = pysubs2.SSAEvent(start=said.begin // _TICKS, end=said.end // _TICKS)
            event.plaintext = written(said.words, begins) if format == "vtt" else said.words
            file.append(event)
    return file.to_string(format)
