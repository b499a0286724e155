"""What a stretch of the timeline depends on, and a name for that."""

from __future__ import annotations

import hashlib
import json

from kitecore.document import ClipBase, Document, Track, dump
from kitecore.media.folder import FindMedia
from kitecore.ticks import Span

RENDER_VERSION = 1
"""Goes up whenever the same document would be drawn or mixed differently."""


def extract(document: Document, span: Span) -> Document:
    """The document with nothing but the clips that touch ``span``, and their neighbours.

    Neighbours matter to sound: a clip that goes on where the last one stopped has no ramp.
    """
    tracks = tuple(_extracted(track, span) for track in document.tracks)
    return document.model_copy(update={"tracks": tracks})


def _extracted(track: Track, span: Span) -> Track:
    clips: list[ClipBase] = []
    for index, clip in enumerate(track.clips):
        near = track.clips[max(0, index - 1) : index + 2]
        if any(other.span.overlaps(span) for other in near):
            clips.append(clip)
    return track.model_copy(update={"clips": tuple(clips), "closes_gaps": False, "name": ""})


def content_key(document: Document, span: Span, find: FindMedia, *facts: object) -> str:
    """A name for what is seen and heard in ``span``; ``facts`` are what else the result depends on.

    Two documents that agree there have the same key, so a finished piece serves both.
    """
    part = extract(document, span)
    proxies = sorted(media for media in part.media_ids() if find(media).proxy.exists())
    plain = [RENDER_VERSION, dump(part), span.start, span.end, proxies, *map(str, facts)]
    text = json.dumps(plain, sort_keys=True, separators=(",", ":"))
    return hashlib.blake2b(text.encode(), digest_size=16).hexdigest()
