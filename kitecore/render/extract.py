"""What a stretch of the timeline depends on, and a name for that."""

from __future__ import annotations

import hashlib
from collections.abc import Iterable
from functools import cache
from typing import Final, TypeGuard

from kitecore.analysis.cut import is_cut
from kitecore.document import (
    AdjustmentClip,
    ClipBase,
    Document,
    GroupClip,
    Holding,
    MouthClip,
    MulticamClip,
    Pictured,
    Sounding,
    Track,
    VideoClip,
    all_clips,
    can_sound,
)
from kitecore.document.effects import Beside, Timed
from kitecore.document.track import transition_out, with_neighbours
from kitecore.media.folder import FindMedia
from kitecore.render.cutting import cuts_through
from kitecore.render.masks_along import goes_along
from kitecore.render.runup import run_up
from kitecore.ticks import Span

RENDER_VERSION = 19
"""Goes up whenever the same document would be drawn or mixed differently."""


def extract(document: Document, span: Span, *, heard: bool) -> Document:
    """The tracks and clips that matter to ``span``: not to be drawn, only to be compared.

    Parameters
    ----------
    heard
        For sound: the clips of all tracks that touch the span, whole, since their ends have ramps.
        For pictures: only the parts of clips that are seen in it.
    """
    reach = Span(span.start - _looked_back(document, span), span.end)
    if heard:
        before, after = run_up(document)
        reach = Span(span.start - before - 1, span.end + after + 1)
    tracks = tuple(
        _extracted(track, reach, heard) for track in document.tracks if _matters(track, heard)
    )
    return document.model_copy(update={"tracks": tracks})


def _looked_back(document: Document, span: Span) -> int:
    """Ticks before a stretch in which adjustments within it look at what lies below them."""
    return max(
        (
            sum(effect.looks_back for effect in clip.effects if isinstance(effect, Timed))
            for _, clip in document.clips()
            if isinstance(clip, AdjustmentClip) and clip.span.overlaps(span)
        ),
        default=0,
    )


def _matters(track: Track, heard: bool) -> bool:
    """Whether a track can be heard, or seen; one that is alone silences others even if it is mute."""
    return track.solo or not track.muted if heard else track.kind != "sound" and not track.hidden


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
        part = clip if whole else _within(clip, span)
        parts.append(_switched(part, heard) if _switches(part, heard) else part)
    return track.with_clips(tuple(parts))


NEITHER: Final = frozenset(
    {"id", "name", "tag", "markers", "rides", "source_length", "scene", "trackers"}
)
"""Fields of clips that are neither seen nor heard; how long a file is follows from which it is."""
HEARD_ONLY: Final = frozenset(Sounding.model_fields) - frozenset(ClipBase.model_fields)
HEARD: Final = HEARD_ONLY | {
    "kind",
    "start",
    "length",
    "source_in",
    "speed",
    "media",
    "transition",
    "switches",
    "hears",
}


def _track_texts(tracks: Iterable[Track], heard: bool) -> list[str]:
    """What of tracks matters; their ids only where one names others by them, to step back."""
    tracks = tuple(tracks)
    texts = [_track_text(track, heard) for track in tracks]
    if heard and any(track.strip.under for track in tracks):
        texts += [track.id for track in tracks]
    return texts


def _track_text(track: Track, heard: bool) -> str:
    """What of a track matters, as JSON."""
    facts = {"muted", "solo", "strip"} if heard else {"kind", "hidden", "solo"}
    clips = ",".join(clip_text(clip, heard=heard) for clip in track.clips)
    return f"{track.model_dump_json(include=facts)}[{clips}]"


def clip_text(clip: ClipBase, *, heard: bool) -> str:
    """What of a clip matters, as JSON: to sound, only that it is there if it has none itself."""
    text = clip.model_dump_json(include=_mattering(type(clip), heard))
    if heard and clip.transition is not None:
        # All transitions cross their sound in the same way.
        text += f"/{clip.transition.length}"
    if not heard and isinstance(clip, VideoClip) and goes_along(clip):
        text += "".join(tracker.model_dump_json() for tracker in clip.trackers)
    if isinstance(clip, Holding):
        inner = (track for track in clip.tracks if _matters(track, heard))
        text += f"[{','.join(_track_texts(inner, heard))}]"
    return text


@cache
def _mattering(kind: type[ClipBase], heard: bool) -> set[str]:
    """Fields of a kind of clip that matter; what is in a group and how sound crosses are told apart."""
    if not heard:
        return set(kind.model_fields) - NEITHER - HEARD_ONLY - {"tracks"}
    of_sound = HEARD if can_sound(kind) else {"start", "length"}
    return set(kind.model_fields) & of_sound - {"tracks", "transition"}


def _within(clip: ClipBase, span: Span) -> ClipBase:
    seen = clip.span.intersection(span)
    return clip.trimmed(seen.start, seen.end).model_copy(update={"transition": None})


def _switches(clip: ClipBase, heard: bool) -> TypeGuard[MulticamClip | MouthClip]:
    """Whether now one and now another of the things that a clip holds is seen, or heard."""
    return isinstance(clip, MulticamClip) or (isinstance(clip, MouthClip) and not heard)


def _switched(clip: MulticamClip | MouthClip, heard: bool) -> GroupClip:
    """A multicam clip or a mouth as a group of what is shown, or heard, of what it holds."""
    low, high = clip.used
    tracks = clip.heard(low, high) if heard else clip.seen(low, high)
    shown = tuple(_extracted(track, Span(low, max(high, low + 1)), heard) for track in tracks)
    facts = {name: getattr(clip, name) for name in Holding.model_fields if name != "kind"}
    canvas = clip.canvas if isinstance(clip, MouthClip) else None
    return GroupClip.model_construct(**{**facts, "tracks": shown, "canvas": canvas})


def _runs_by_its_ends(clip: ClipBase) -> bool:
    """Whether how it looks depends on when it starts or ends."""
    return isinstance(clip, Pictured) and bool(clip.moves.comes or clip.moves.goes)


def _leaders(document: Document, part: Document) -> list[str]:
    """What the layers of a part follow, wherever that is, as JSON."""
    clips = {clip.id: clip for clip in all_clips(document.tracks)}
    found: dict[str, str] = {}
    waiting = list(all_clips(part.tracks))
    while waiting:
        clip = waiting.pop()
        follow = clip.moves.follow if isinstance(clip, Pictured) else None
        leader = clips.get(follow.clip) if follow else None
        if isinstance(leader, Pictured) and leader.id not in found:
            found[leader.id] = leader.model_dump_json(include=_LED_BY)
            waiting.append(leader)
    return [found[name] for name in sorted(found)]


def _read(document: Document, part: Document) -> list[ClipBase]:
    """Layers that effects of a part read, wherever those are."""
    wanted = {
        effect.layer
        for clip in all_clips(part.tracks)
        if isinstance(clip, Pictured)
        for effect in clip.effects
        if isinstance(effect, Beside)
    }
    return [clip for clip in all_clips(document.tracks) if clip.id in wanted]


_SOUNDING_STRIP: Final = {"gain", "pan", "chain", "ceiling"}
"""What of the film's strip is heard; its target is only aimed at."""

_LED_BY: Final = {"id", "start", "length", "place", "moves"} | {
    "media",
    "source_in",
    "speed",
    "trackers",
    "steady",
}
"""What of a layer those that follow it take over."""


def content_key(
    document: Document, span: Span, find: FindMedia, *facts: object, heard: bool = False
) -> str:
    """A name for what is seen (or heard) in ``span``; ``facts`` are what else the result depends on.

    Two documents that agree there have the same key, so a finished piece serves both.
    """
    part = extract(document, span, heard=heard)
    texts = _track_texts(part.tracks, heard)
    texts.append(document.rate.model_dump_json())
    if heard:
        texts.append(document.strip.model_dump_json(include=_SOUNDING_STRIP))
    else:
        others = _read(document, part)
        media_ids = part.media_ids().union(*(clip.uses() for clip in others))
        proxies = sorted(media for media in media_ids if find(media).proxy.exists())
        texts += [part.canvas.model_dump_json(), *_leaders(document, part), *proxies]
        texts += [clip_text(clip, heard=False) for clip in others]
        seen = (*all_clips(part.tracks), *others)
        texts += [media for media, cut in cuts_through(seen) if is_cut(find(media), cut)]
    texts += map(str, (RENDER_VERSION, span.start, span.end, *facts))
    return hashlib.blake2b("\n".join(texts).encode(), digest_size=16).hexdigest()
