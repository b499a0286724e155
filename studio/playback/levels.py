"""Names under which what meters show is kept."""

from __future__ import annotations

from typing import Final

from kitecore.document import Document
from kitecore.render.extract import content_key
from kitecore.render.levels import STRETCH_SECONDS
from kitecore.ticks import TICKS_PER_SECOND, Span
from studio.library.models import folder_of

_AROUND: Final = TICKS_PER_SECOND
"""Ticks beside a stretch that its measures look at, or more."""


def levels_key(document: Document, span: Span) -> str:
    """Levels are told by the ids of tracks, which pieces do not know."""
    tracks = [track.id for track in document.tracks]
    return content_key(document, span, folder_of, "levels", *tracks, heard=True)


def stretch_key(document: Document, number: int) -> str:
    start = number * STRETCH_SECONDS * TICKS_PER_SECOND
    end = min(start + STRETCH_SECONDS * TICKS_PER_SECOND, document.length)
    span = Span(max(0, start - _AROUND), end + _AROUND)
    return content_key(document, span, folder_of, "sides and loudness", number, end, heard=True)
