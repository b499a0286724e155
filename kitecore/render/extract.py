"""What a stretch of the timeline depends on, and a name for that."""

from __future__ import annotations

import hashlib
import json

from kitecore.document import ClipBase, Document, Track, dump
from kitecore.media.folder import FindMedia
from kitecore.ticks import Span

RENDER_VERSION = 1
"""Goes up whenever the same document would be drawn or mixed differently."""


def extract(document: Document, span: Span, *, heard: bool) -> Document:
    """What matters to ``span``, and nothing else: not to be drawn, only to be compared.

    Parameters
    ----------
    heard
        For sound: the clips of all tracks that touch the span, whole, since their ends have ramps.
        For pictures: only the parts of clips that are seen in it.
    """
    reach = Span(span.start - 1, span.end + 1) if heard else span
    tracks = tuple(
        _extracted(track, reach, heard)
        for track in document.tracks
        if heard or track.kind != "sound"
    )
    return document.model_copy(update={"tracks": tracks})


def _extracted(track: Track, span: Span, heard: bool) -> Track:
    clips = (clip for clip in track.clips if clip.span.overlaps(span))
    parts = (clip if heard else _within(clip, span) for clip in clips)
    nameless = tuple(part.model_copy(update={"id": "clip", "name": ""}) for part in parts)
    plain = {"clips": nameless, "closes_gaps": False, "id": "track", "name": ""}
    return track.model_copy(update=plain)


def _within(clip: ClipBase, span: Span) -> ClipBase:
    seen = clip.span.intersection(span)
    return clip.trimmed(seen.start, seen.end)


def content_key(
    document: Document, span: Span, find: FindMedia, *facts: object, heard: bool = False
) -> str:
    """A name for what is seen (or heard) in ``span``; ``facts`` are what else the result depends on.

    Two documents that agree there have the same key, so a finished piece serves both.
    """
    part = extract(document, span, heard=heard)
    proxies = sorted(media for media in part.media_ids() if find(media).proxy.exists())
    plain = [RENDER_VERSION, dump(part), span.start, span.end, proxies, *map(str, facts)]
    text = json.dumps(plain, sort_keys=True, separators=(",", ":"))
    return hashlib.blake2b(text.encode(), digest_size=16).hexdigest()
