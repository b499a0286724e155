"""An OpenTimelineIO timeline as data of a document, and what of it was left out.

Files of others are named, not found: which takes they are is for `settling`. A clip of ours that another
program moved or trimmed is moved and trimmed; all else of it is as it was.
"""

from __future__ import annotations

from collections import Counter
from typing import Any, Final

import opentimelineio as otio

from kitecore.document import SCHEMA, new_id
from kitecore.document.clips._holding import DEEPEST
from kitecore.document.marker import MOST_MARKERS
from kitecore.document.track import MOST_CLIPS, MOST_TRACKS
from kitecore.errors import BadInput
from kitecore.exchange.timelines.clips import (
    file_clip,
    first_tick,
    markers_of,
    own_clip,
    pace_of,
)
from kitecore.exchange.timelines.context import MOST_NAME, Data, Reading, ours_in, told
from kitecore.exchange.timelines.terms import TRANSITIONS, on_frames, rate_like, tick_of
from kitecore.model import Model
from kitecore.ticks import Rate

_UNREADABLE: Final = (otio.exceptions.OTIOError, ValueError, KeyError, TypeError, RuntimeError)


class TimelineRead(Model):
    """Data of tracks and markers, of which clips of ``kind`` "file" name a file.

    Attributes
    ----------
    kept
        What a file of ours says of the whole film: canvas, rate, strip.
    names
        Of the files of takes that clips of ours use, by the ids that they had.
    remarks
        What was left out, in words.
    """

    title: str = ""
    rate: tuple[int, int]
    kept: dict[str, Any] = {}
    tracks: tuple[dict[str, Any], ...]
    markers: tuple[dict[str, Any], ...] = ()
    names: dict[str, str] = {}
    remarks: tuple[str, ...] = ()


def read_timeline(data: bytes) -> TimelineRead:
    """The first timeline of an .otio file.

    Raises
    ------
    BadInput
        If there is none.
    """
    try:
        timeline = _first(otio.adapters.read_from_string(data.decode(), "otio_json"))
        return _read(timeline)
    except _UNREADABLE as error:
        if isinstance(error, BadInput):
            raise
        raise BadInput(
            "This is no timeline that can be read.", todo="Choose an .otio file."
        ) from error


def _first(found: Any) -> otio.schema.Timeline:
    if isinstance(found, otio.schema.Timeline):
        return found
    if isinstance(found, otio.schema.SerializableCollection):
        timelines = found.find_children(otio.schema.Timeline)
        if timelines:
            return timelines[0]
    if isinstance(found, otio.schema.Track | otio.schema.Stack):
        timeline = otio.schema.Timeline(name=found.name)
        stacked = isinstance(found, otio.schema.Stack)
        timeline.tracks = found if stacked else otio.schema.Stack(children=[found])
        return timeline
    raise BadInput("There is no timeline in this file.", todo="Choose another file.")


def _read(timeline: otio.schema.Timeline) -> TimelineRead:
    ours = ours_in(timeline)
    reading = Reading(_rate_of(timeline, ours), schema=str(ours.get("schema", SCHEMA)))
    reading.muted = any(_foreign_sound(track) for track in timeline.tracks)
    tracks = _tracks(timeline.tracks, reading, 0)
    markers = tuple(markers_of(timeline.tracks.markers, 0, 1.0, reading))
    kept = {name: ours[name] for name in ("canvas", "rate", "strip") if name in ours}
    names = ours.get("names", {})
    return TimelineRead(
        title=timeline.name[:MOST_NAME],
        rate=(reading.rate.num, reading.rate.den),
        kept=kept | ({"schema": reading.schema} if kept else {}),
        tracks=tuple(tracks),
        markers=markers[:MOST_MARKERS],
        names={str(id): str(name) for id, name in names.items()},
        remarks=tuple(told(reading.left_out)),
    )


def _rate_of(timeline: otio.schema.Timeline, ours: Data) -> Rate:
    """Ours, or the one that most lengths are told in."""
    if "rate" in ours:
        return Rate(int(ours["rate"]["num"]), int(ours["rate"]["den"]))
    told: Counter[float] = Counter()
    for item in timeline.find_children(otio.schema.Clip):
        told[item.duration().rate] += 1
    return rate_like(told.most_common(1)[0][0] if told else 30.0)


def _foreign_sound(track: otio.core.Composable) -> bool:
    if not isinstance(track, otio.schema.Track) or ours_in(track):
        return False
    return track.kind == otio.schema.TrackKind.Audio and any(
        isinstance(one, otio.schema.Clip) for one in track
    )


def _tracks(stack: otio.schema.Stack, reading: Reading, depth: int) -> list[Data]:
    """All tracks of a stack; one of them is the main one."""
    made = [one for child in stack if (one := _track(child, reading, depth)) is not None]
    if len(made) > MOST_TRACKS:
        reading.left_out["tracks beyond the five hundredth"] += len(made) - MOST_TRACKS
        made = made[:MOST_TRACKS]
    if not any(one["kind"] == "main" for one in made):
        first = next((one for one in made if one["kind"] == "picture"), None)
        if first is None:
            made.insert(0, {"id": new_id(), "kind": "main", "name": "Main", "clips": []})
        else:
            first["kind"] = "main"
    pictures = [one for one in made if one["kind"] != "sound"]
    return pictures + [one for one in made if one["kind"] == "sound"]


def _track(child: otio.core.Composable, reading: Reading, depth: int) -> Data | None:
    if not isinstance(child, otio.schema.Track):
        # What lies in a stack beside tracks lies there alone.
        child = otio.schema.Track(name=child.name, children=[child.deepcopy()])
    ours = ours_in(child)
    if "sound_of" in ours:
        return None
    kinds = {otio.schema.TrackKind.Video: "picture", otio.schema.TrackKind.Audio: "sound"}
    if child.kind not in kinds:
        reading.left_out[f"tracks of kind “{child.kind[:40]}”"] += 1
        return None
    kind = kinds[child.kind]
    told = ours.get("track")
    if not isinstance(told, dict):
        told = {"id": new_id(), "kind": kind, "name": child.name[:MOST_NAME]}
    told["hidden" if kind == "picture" else "muted"] = not child.enabled
    return {**told, "clips": _row(child, kind, reading, depth)}


def _row(track: otio.schema.Track, kind: str, reading: Reading, depth: int) -> list[Data]:
    """The clips of a track, each where it begins."""
    made: list[Data] = []
    at, comes = 0, None
    for child in track:
        if isinstance(child, otio.schema.Transition):
            comes = child
            continue
        end = at + max(0, tick_of(child.duration()))
        start, length = on_frames(at, reading.rate), on_frames(end, reading.rate)
        length -= start
        clip = _clip(child, kind, (start, length), reading, depth) if length else None
        if clip is not None and len(made) < MOST_CLIPS:
            joined = bool(made) and made[-1]["start"] + made[-1]["length"] == start
            _come(clip, comes, joined, reading)
            made.append(clip)
        elif comes is not None:
            reading.left_out["transitions to or from nothing"] += 1
        at, comes = end, None
    return made


def _come(clip: Data, how: Any, joined: bool, reading: Reading) -> None:
    """How a clip comes after the one before it."""
    clip["transition"] = None
    if how is None:
        return
    if not joined:
        reading.left_out["transitions to or from nothing"] += 1
        return
    step = 2 * reading.rate.frame_ticks
    length = (tick_of(how.in_offset) + tick_of(how.out_offset)) // step * step
    told = ours_in(how).get("transition")
    if not isinstance(told, dict):
        if how.transition_type not in TRANSITIONS:
            reading.left_out["transitions of other kinds, which dissolve"] += 1
        told = {"kind": TRANSITIONS.get(how.transition_type, "dissolve"), "hold": True}
    clip["transition"] = told | {"length": max(length, step)}


def _clip(
    child: otio.core.Composable, kind: str, where: tuple[int, int], reading: Reading, depth: int
) -> Data | None:
    if isinstance(child, otio.schema.Gap):
        return None
    if not isinstance(child, otio.core.Item):
        reading.left_out["things that this version does not know"] += 1
        return None
    own = own_clip(child, where, reading)
    holds = isinstance(child, otio.core.Composition)
    if own is not None:
        data = own.model_dump(mode="json")
        if holds and own.kind == "group":
            data["tracks"] = _inside(child, reading, depth)
        return data
    if holds:
        return _group(child, where, reading, depth)
    return file_clip(child, kind, where, reading)


def _inside(child: Any, reading: Reading, depth: int) -> list[Data]:
    if depth + 1 >= DEEPEST:
        reading.left_out[f"groups more than {DEEPEST} deep"] += 1
        return _tracks(otio.schema.Stack(), reading, depth)
    stack = child if isinstance(child, otio.schema.Stack) else None
    return _tracks(stack or otio.schema.Stack(children=[child.deepcopy()]), reading, depth + 1)


def _group(
    child: otio.core.Composition, where: tuple[int, int], reading: Reading, depth: int
) -> Data:
    start, length = where
    nested = child.deepcopy()
    nested.source_range = None
    pace = pace_of(child, length, reading)
    return {
        "id": new_id(),
        "kind": "group",
        "name": child.name[:MOST_NAME],
        "start": start,
        "length": length,
        "tracks": _inside(nested, reading, depth),
        "markers": list(markers_of(child.markers, first_tick(child), 1.0, reading)),
        **pace,
    }
