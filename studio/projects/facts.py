"""What lists tell of a document, kept with its revision."""

from __future__ import annotations

from collections import Counter

from ninja import Schema

from kitecore.document import Document, FrameRate, GroupClip, all_clips


class Facts(Schema):
    """Size in pixels, length in ticks, and how many clips use each of its media."""

    width: int
    height: int
    rate: FrameRate
    length: int
    uses: dict[str, int]


UNKNOWN = Facts(width=0, height=0, rate=FrameRate(), length=0, uses={})
"""Of a document that cannot be read."""


def facts_of(document: Document) -> Facts:
    """The facts of a document; clips within groups count by themselves, groups do not."""
    clips = (one for one in all_clips(document.tracks) if not isinstance(one, GroupClip))
    return Facts(
        width=document.canvas.width,
        height=document.canvas.height,
        rate=document.rate,
        length=document.length,
        uses=dict(Counter(media for clip in clips for media in clip.uses())),
    )
