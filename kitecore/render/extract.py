"""What a stretch of the timeline depends on, and a name for that."""

from __future__ import annotations

import hashlib
import json
from typing import Any, Final

from kitecore.document import ClipBase, Document, GroupClip, Pictured, Track, all_clips, dump
from kitecore.document.track import transition_out, with_neighbours
from kitecore.media.folder import FindMedia
from kitecore.ticks import Span

RENDER_VERSION = 4
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
    return document.model_copy(update={"tracks": tracks, "markers": ()})


def _extracted(track: Track, span: Span, heard: bool) -> Track:
    parts = []
    for _, clip, after in with_neighbours(track.clips):
        coming, leaving = clip.transition, transition_out(clip, after)
        reach = Span(
            clip.start - (coming.half if coming else 0), clip.end + (leaving.half if leaving else 0)
        )
        if not reach.overlaps(span):
            continue
        crosses = (coming and span.start < clip.start + coming.half) or (
            leaving and span.end > clip.end - leaving.half
        )
        whole = heard or crosses or _runs_by_its_ends(clip)
        parts.append(clip if whole else _within(clip, span))
    nameless = tuple(_nameless(part) for part in parts)
    return track.model_copy(update={"clips": nameless, **_PLAIN})


_PLAIN: Final = {"closes_gaps": False, "id": "track", "name": "", "locked": False}


def _nameless(clip: ClipBase) -> ClipBase:
    """Without what is neither seen nor heard."""
    plain: dict[str, Any] = {"id": "clip", "name": "", "tag": "", "markers": (), "rides": None}
    if isinstance(clip, GroupClip):
        plain["tracks"] = tuple(
            track.model_copy(update={"clips": tuple(map(_nameless, track.clips)), **_PLAIN})
            for track in clip.tracks
        )
    return clip.model_copy(update=plain)


def _within(clip: ClipBase, span: Span) -> ClipBase:
    seen = clip.span.intersection(span)
    return clip.trimmed(seen.start, seen.end).model_copy(update={"transition": None})


def _runs_by_its_ends(clip: ClipBase) -> bool:
    """Whether how it looks depends on when it starts or ends."""
    return isinstance(clip, Pictured) and bool(clip.moves.comes or clip.moves.goes)


def _leaders(document: Document, part: Document) -> list[Any]:
    """What the layers of a part follow, wherever that is."""
    clips = {clip.id: clip for clip in all_clips(document.tracks)}
    found: dict[str, Any] = {}
    waiting = list(all_clips(part.tracks))
    while waiting:
        clip = waiting.pop()
        follow = clip.moves.follow if isinstance(clip, Pictured) else None
        leader = clips.get(follow.clip) if follow else None
        if isinstance(leader, Pictured) and leader.id not in found:
            moves = leader.moves.model_dump(mode="json")
            place = leader.place.model_dump(mode="json")
            found[leader.id] = [leader.id, leader.start, leader.length, place, moves]
            waiting.append(leader)
    return [found[name] for name in sorted(found)]


def content_key(
    document: Document, span: Span, find: FindMedia, *facts: object, heard: bool = False
) -> str:
    """A name for what is seen (or heard) in ``span``; ``facts`` are what else the result depends on.

    Two documents that agree there have the same key, so a finished piece serves both.
    """
    part = extract(document, span, heard=heard)
    proxies = sorted(media for media in part.media_ids() if find(media).proxy.exists())
    leaders = [] if heard else _leaders(document, part)
    plain = [RENDER_VERSION, dump(part), leaders, span.start, span.end, proxies, *map(str, facts)]
    text = json.dumps(plain, sort_keys=True, separators=(",", ":"))
    return hashlib.blake2b(text.encode(), digest_size=16).hexdigest()
