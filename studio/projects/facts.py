"""What lists tell of a document, kept with its revision."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable

from ninja import Schema

from kitecore.document import ClipBase, Document, FrameRate, Holding, all_clips
from kitecore.document.changes import changed_clips


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
    return _facts(document, _uses(clip for track in document.tracks for clip in track.clips))


def facts_after(before: Document, facts: Facts, after: Document) -> Facts:
    """The facts of a document, from those of the one that it was made from."""
    gone, come = changed_clips(before.tracks, after.tracks)
    uses = Counter(facts.uses)
    uses.subtract(_uses(gone))
    uses.update(_uses(come))
    return _facts(after, uses)


def _facts(document: Document, uses: Counter[str]) -> Facts:
    return Facts(
        width=document.canvas.width,
        height=document.canvas.height,
        rate=document.rate,
        length=document.length,
        uses={media: count for media, count in uses.items() if count},
    )


def _uses(clips: Iterable[ClipBase]) -> Counter[str]:
    """How often media are used by clips and by what lies in groups among them."""
    uses: Counter[str] = Counter()
    for clip in clips:
        if isinstance(clip, Holding):
            inner = (one for one in all_clips(clip.tracks) if not isinstance(one, Holding))
            uses.update(media for one in inner for media in one.uses())
        else:
            uses.update(clip.uses())
    return uses
