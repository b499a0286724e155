"""A document as an OpenTimelineIO timeline."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass
from typing import Any, Final
from urllib.parse import quote

import opentimelineio as otio

from kitecore.document import (
    ClipBase,
    Document,
    GroupClip,
    Holding,
    Marker,
    MulticamClip,
    Paced,
    SequenceClip,
    SolidClip,
    Sourced,
    StillClip,
    Track,
    TransitionBase,
    VideoClip,
)
from kitecore.document.fills import PlainFill
from kitecore.exchange.timelines.terms import (
    COLOURS,
    OURS,
    TRANSITIONS,
    Medium,
    range_at,
    time_at,
)
from kitecore.ticks import Rate

_KINDS: Final = {ours: theirs for theirs, ours in TRANSITIONS.items()}


@dataclass(frozen=True)
class _Writing:
    """What all that writes knows; ``files`` are the paths of takes by their ids."""

    rate: Rate
    media: Mapping[str, Medium]
    files: Mapping[str, str]


def write_timeline(
    document: Document,
    title: str,
    media: Mapping[str, Medium],
    files: Mapping[str, str] | None = None,
) -> str:
    """A document as the text of an .otio file.

    Sound of videos is written once more on tracks of its own, for programs that look for it there.

    Parameters
    ----------
    media
        The takes that it uses, by their ids.
    files
        Where their files lie, seen from the timeline; without it they are named as takes are.
    """
    writing = _Writing(document.rate.exact, media, files or {})
    timeline = otio.schema.Timeline(name=title)
    names = {id: media[id].name for id in sorted(document.media_ids()) if id in media}
    told = document.model_dump(mode="json", by_alias=True, exclude={"tracks"})
    timeline.metadata[OURS] = {**told, "names": names}
    timeline.tracks.markers.extend(_marker(one, one.at, writing) for one in document.markers)
    timeline.tracks.extend(_tracks(document.tracks, writing))
    return str(otio.adapters.write_to_string(timeline, "otio_json"))


def _tracks(tracks: tuple[Track, ...], writing: _Writing) -> Iterator[otio.schema.Track]:
    for track in tracks:
        kinds = otio.schema.TrackKind
        written = otio.schema.Track(
            name=track.name, kind=kinds.Audio if track.kind == "sound" else kinds.Video
        )
        written.enabled = not (track.muted if track.kind == "sound" else track.hidden)
        written.metadata[OURS] = {"track": track.model_dump(mode="json", exclude={"clips"})}
        written.extend(_row(track.clips, _item, writing))
        yield written
    for track in tracks:
        heard = tuple(clip for clip in track.clips if _is_heard(clip, writing))
        if track.kind != "sound" and heard:
            written = otio.schema.Track(name=f"{track.name} (sound)", kind=kinds.Audio)
            written.enabled = not track.muted
            written.metadata[OURS] = {"sound_of": track.id}
            written.extend(_row(heard, _sound_item, writing, joined=False))
            yield written


def _is_heard(clip: ClipBase, writing: _Writing) -> bool:
    if not isinstance(clip, VideoClip) or clip.muted:
        return False
    medium = writing.media.get(clip.media)
    return medium is not None and medium.sounds


_Item = Callable[[ClipBase, _Writing], otio.core.Composable]


def _row(
    clips: tuple[ClipBase, ...], item: _Item, writing: _Writing, *, joined: bool = True
) -> Iterator[otio.core.Composable]:
    """Clips with the gaps and transitions between them."""
    at = 0
    for clip in clips:
        if clip.start > at:
            yield otio.schema.Gap(source_range=range_at(0, clip.start - at, writing.rate))
        elif clip.transition is not None and at and joined:
            yield _transition(clip.transition, writing)
        yield item(clip, writing)
        at = clip.end


def _transition(transition: TransitionBase, writing: _Writing) -> otio.schema.Transition:
    half = time_at(transition.half, writing.rate)
    written = otio.schema.Transition(
        name=transition.kind,
        transition_type=_KINDS.get(transition.kind, "Custom_Transition"),
        in_offset=half,
        out_offset=half,
    )
    written.metadata[OURS] = {"transition": transition.model_dump(mode="json")}
    return written


def _item(clip: ClipBase, writing: _Writing) -> otio.core.Item:
    written = _bare(clip, writing)
    kept = {"tracks"} if isinstance(clip, GroupClip) else set()
    first = written.source_range.start_time.value
    written.metadata[OURS] = {
        "clip": clip.model_dump(mode="json", exclude=kept),
        # By these it is seen whether another program has moved or trimmed it.
        "length": time_at(clip.length, writing.rate).value,
        "first": first,
    }
    markers = (_marker(one, _moment(clip, one.at), writing) for one in clip.markers)
    written.markers.extend(markers)
    return written


def _sound_item(clip: ClipBase, writing: _Writing) -> otio.core.Item:
    return _bare(clip, writing)


def _moment(clip: ClipBase, at: int) -> int:
    """A tick counted from the start of a clip in the time of what it shows."""
    return clip.source_at(at) if isinstance(clip, Paced) else at


def _bare(clip: ClipBase, writing: _Writing) -> otio.core.Item:
    """What of it other programs know."""
    first = clip.used[0] if isinstance(clip, Paced) else 0
    part = range_at(first, clip.length, writing.rate)
    title = clip.name or clip.kind
    if isinstance(clip, Holding):
        written = otio.schema.Stack(name=title, source_range=part)
        written.extend(_tracks(_shown(clip), writing))
    elif isinstance(clip, SequenceClip):
        written = otio.schema.Track(name=title, source_range=part)
        written.extend(_pictures(clip, writing))
    else:
        reference = _reference(clip, writing)
        written = otio.schema.Clip(name=title, media_reference=reference, source_range=part)
    if isinstance(clip, Paced):
        written.effects.extend(_pace(clip))
    return written


def _shown(clip: Holding) -> tuple[Track, ...]:
    """Of several angles those that are seen and heard, cut as they are switched."""
    if isinstance(clip, MulticamClip):
        low, high = clip.used
        return (*clip.seen(low, high), *clip.heard(low, high))
    return clip.tracks


def _pictures(clip: SequenceClip, writing: _Writing) -> Iterator[otio.schema.Clip]:
    """Its stills, each for a frame at least: programs show no more of a faster row."""
    step = max(clip.each, writing.rate.frame_ticks)
    for at in range(0, clip.length, step):
        yield otio.schema.Clip(
            media_reference=_file(clip.media_at(at), None, writing),
            source_range=range_at(0, min(step, clip.length - at), writing.rate),
        )


def _pace(clip: Paced) -> Iterator[otio.schema.TimeEffect]:
    """Of a ramp its mean."""
    factor = clip.speed.constant
    if factor is None:
        factor = clip.speed.offset(clip.length) / clip.length
    if factor == 0:
        yield otio.schema.FreezeFrame()
    elif factor != 1:
        yield otio.schema.LinearTimeWarp(time_scalar=factor)


def _reference(clip: ClipBase, writing: _Writing) -> otio.core.MediaReference:
    if isinstance(clip, Sourced):
        return _file(clip.media, range_at(0, clip.source_length, writing.rate), writing)
    if isinstance(clip, StillClip):
        return _file(clip.media, None, writing)
    written = otio.schema.GeneratorReference(
        name=clip.kind,
        generator_kind=f"{OURS}.{clip.kind}",
        available_range=range_at(0, clip.length, writing.rate),
    )
    if isinstance(clip, SolidClip) and isinstance(clip.fill, PlainFill):
        written.generator_kind = "SolidColor"
        written.parameters["colour"] = clip.model_dump(mode="json")["fill"]["colour"]
    return written


def _file(
    id: str, available: otio.opentime.TimeRange | None, writing: _Writing
) -> otio.core.MediaReference:
    medium = writing.media.get(id)
    if medium is None:
        return otio.schema.MissingReference(name=id, available_range=available)
    path = quote(writing.files.get(id, medium.name))
    written = otio.schema.ExternalReference(path, available)
    written.name = medium.name
    return written


def _marker(marker: Marker, at: int, writing: _Writing) -> otio.schema.Marker:
    told: dict[str, Any] = {"marker": marker.model_dump(mode="json")}
    return otio.schema.Marker(
        name=marker.name,
        marked_range=range_at(at, 0, writing.rate),
        color=COLOURS[marker.tag],
        metadata={OURS: told},
    )
