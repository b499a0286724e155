"""What lies on the tracks of a timeline: clips of ours, clips of which only the file is known, markers."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any
from urllib.parse import unquote, urlsplit

import opentimelineio as otio

from kitecore.document import ClipBase, Paced, load, new_id
from kitecore.document.speed import FASTEST
from kitecore.errors import BadInput
from kitecore.exchange.timelines.context import MOST_NAME, Data, Reading, ours_in
from kitecore.exchange.timelines.terms import TAGS, on_frames, tick_of


def own_clip(child: otio.core.Item, where: tuple[int, int], reading: Reading) -> ClipBase | None:
    """A clip of ours, at its place; trimmed as it was elsewhere."""
    ours = ours_in(child)
    clip = _as_clip(ours.get("clip"), reading)
    if clip is None:
        return None
    start, length = where
    written, first = float(ours.get("length", -1)), float(ours.get("first", 0))
    frames = reading.rate.frame_ticks
    now = child.source_range.start_time.value if child.source_range else first
    if written * frames == length and first == now:
        return clip.at(start)
    begin = round((now - first) * frames)
    if isinstance(clip, Paced) and clip.speed.constant:
        begin = round(begin / abs(clip.speed.constant))
    begin = on_frames(begin, reading.rate) + clip.start
    return clip.trimmed(begin, begin + length).at(start)


def _as_clip(told: Any, reading: Reading) -> ClipBase | None:
    if not isinstance(told, dict):
        return None
    if told.get("kind") == "group":
        told = told | {"tracks": []}
    kind = "sound" if told.get("kind") == "sound" else "main"
    data = {"schema": reading.schema, "tracks": [{"kind": kind, "clips": [told]}]}
    try:
        return load(data).tracks[0].clips[0]
    except BadInput:
        reading.left_out["settings that this version does not know"] += 1
        return None


def first_tick(child: otio.core.Item) -> int:
    return max(0, tick_of(child.source_range.start_time)) if child.source_range else 0


def pace_of(child: otio.core.Item, length: int, reading: Reading) -> Data:
    """From where, and how fast, what is in it is shown."""
    first, factor = first_tick(child), 1.0
    if isinstance(child, otio.schema.Clip) and child.source_range is None:
        available = child.media_reference.available_range if child.media_reference else None
        first = max(0, tick_of(available.start_time)) if available else 0
    for effect in child.effects:
        if isinstance(effect, otio.schema.FreezeFrame):
            factor = 0.0
        elif isinstance(effect, otio.schema.LinearTimeWarp):
            factor *= effect.time_scalar
        else:
            reading.left_out["effects"] += 1
    if abs(factor) > FASTEST:
        reading.left_out[f"speeds beyond {FASTEST:g}"] += 1
        factor = max(-FASTEST, min(FASTEST, factor))
    if factor < 0:
        first += round(-factor * length)
    return {"source_in": first, "speed": {"points": [{"at": 0, "speed": factor}]}}


def file_clip(
    child: otio.core.Item, kind: str, where: tuple[int, int], reading: Reading
) -> Data | None:
    """A clip of which only the file is known."""
    start, length = where
    reference = getattr(child, "media_reference", None)
    name = _name_of(child, reference)
    if not child.enabled:
        reading.left_out["clips that are switched off"] += 1
        return None
    made: Data = {
        "id": new_id(),
        "kind": "file",
        "track": kind,
        "file": name,
        "name": (child.name or name)[:MOST_NAME],
        "start": start,
        "length": length,
        "markers": [],
        "muted": reading.muted and kind != "sound",
        **_there(reference),
        **pace_of(child, length, reading),
    }
    first = first_tick(child)
    factor = made["speed"]["points"][0]["speed"]
    made["markers"] = list(markers_of(child.markers, first, factor, reading))
    return made


def _name_of(child: otio.core.Item, reference: Any) -> str:
    if isinstance(reference, otio.schema.ExternalReference):
        path = urlsplit(reference.target_url).path or reference.target_url
        return unquote(path).replace("\\", "/").rsplit("/", 1)[-1]
    return (reference.name if reference is not None else "") or child.name


def _there(reference: Any) -> Data:
    """Where, in its own time, what there is of a file begins and ends."""
    available = reference.available_range if reference is not None else None
    if available is None:
        return {"begins": 0, "ends": 0}
    begins = max(0, tick_of(available.start_time))
    return {"begins": begins, "ends": begins + max(0, tick_of(available.duration))}


def markers_of(markers: Any, first: int, factor: float, reading: Reading) -> Iterator[Data]:
    """Markers of what begins at a tick of its own time, counted from there."""
    for marker in markers:
        told = ours_in(marker).get("marker")
        if isinstance(told, dict):
            yield told
            continue
        at = tick_of(marker.marked_range.start_time) - first
        at = round(at / factor) if factor > 0 else max(0, at)
        tag = TAGS.get(marker.color or "", "")
        name = marker.name[:MOST_NAME]
        yield {"id": new_id(), "at": max(0, on_frames(at, reading.rate)), "name": name, "tag": tag}
