"""The angles of multicam clips, rearranged; all parts of a scene share them."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from functools import partial

from kitecore.document import (
    Document,
    GroupClip,
    Holding,
    MulticamClip,
    Switch,
    Track,
    all_clips,
)
from kitecore.edits._base import open_clips, require_open
from kitecore.edits._files import files_of, regridded
from kitecore.edits._lanes import renamed
from kitecore.edits._refill import refilled
from kitecore.edits._switches import in_turn
from kitecore.errors import EditRefused
from kitecore.ticks import Rate


@dataclass(frozen=True)
class Angle:
    """One camera or recorder while angles are rearranged. ``was`` is its index before."""

    track: Track
    was: int | None = None

    @property
    def group(self) -> GroupClip:
        group = self.track.clips[0]
        assert isinstance(group, GroupClip)
        return group

    def holding(self, group: GroupClip) -> Angle:
        """The same angle with another group; without any picture it is one of sound alone."""
        sounds = all(file.clip.kind == "sound" for file in files_of(group))
        update = {"kind": "sound" if sounds else "picture", "clips": (group,)}
        return replace(self, track=self.track.model_copy(update=update))


Index = dict[int | None, int]
"""Where angles are, by where they were before."""


def open_multicam(document: Document, clip_id: str) -> MulticamClip:
    [(_, clip)] = open_clips(document, (clip_id,))
    if not isinstance(clip, MulticamClip):
        raise EditRefused(f"“{clip.name}” is not a multicam clip.")
    return clip


def require_angle(clip: MulticamClip, index: int, *, shown: bool = False) -> None:
    """Raise unless there is such an angle; with ``shown``, one that has a picture."""
    if not 0 <= index < len(clip.tracks):
        raise EditRefused("There is no such angle.")
    if shown and clip.tracks[index].kind == "sound":
        raise EditRefused(f"“{clip.tracks[index].name}” has sound alone: it cannot be shown.")


def angles_of(clip: MulticamClip) -> list[Angle]:
    """Its angles, to be rearranged."""
    return [Angle(track, index) for index, track in enumerate(clip.tracks)]


def first_shown(tracks: Sequence[Track]) -> int:
    """Index of the first angle that has a picture; 0 while none has."""
    return next((index for index, track in enumerate(tracks) if track.kind != "sound"), 0)


def with_angles(document: Document, clip: MulticamClip, angles: Sequence[Angle]) -> Document:
    """The document with other angles in a multicam clip and in all parts of its scene.

    Switches stay where they are; those of an angle that is gone go to the first one shown.

    Raises
    ------
    EditRefused
        If no angle with a picture is left.
    """
    if clip.shown and all(angle.track.kind == "sound" for angle in angles):
        raise EditRefused("A multicam clip needs at least one angle with a picture.")
    step = document.rate.exact.frame_ticks
    by = -min(0, *(angle.group.start for angle in angles))
    tracks = in_order(
        [angle.track.with_clips((angle.group.at(angle.group.start + by),)) for angle in angles]
    )
    index: Index = {angle.was: now for now, angle in enumerate(angles)}
    hears = _hearing(clip.hears, index, len(angles))

    def change(part: MulticamClip) -> MulticamClip:
        update = {
            "tracks": tracks if part.id == clip.id else own_tracks(part, tracks),
            "switches": _switched(part.switches, index, tracks, by, step),
            "hears": hears,
            "source_in": 0 if part.whole else part.source_in + by,
        }
        return part.model_copy(update=update)

    return with_scene(document, clip.scene, change)


def on_rate(clip: MulticamClip, rate: Rate) -> MulticamClip:
    """With its angles where they were, to the sample, on the frames of another rate.

    One without whole angles stays as it is: no document takes it.
    """
    if not (clip.tracks and clip.has_angles):
        return clip
    step = rate.frame_ticks
    tracks = tuple(
        track.with_clips((regridded(clip.angle(index), step),))
        for index, track in enumerate(clip.tracks)
    )
    switches = (one.model_copy(update={"at": rate.nearest(one.at)}) for one in clip.switches)
    turns = in_turn(tuple(switches), max(track.end for track in tracks), step)
    return clip.model_copy(update={"tracks": tracks, "switches": turns})


def in_order(tracks: Sequence[Track]) -> tuple[Track, ...]:
    """Tracks of angles as a timeline has them: the first with a picture is the main one."""
    main = first_shown(tracks)
    kinds = (
        "sound" if t.kind == "sound" else "main" if i == main else "picture"
        for i, t in enumerate(tracks)
    )
    return tuple(
        track if track.kind == kind else track.model_copy(update={"kind": kind})
        for track, kind in zip(tracks, kinds, strict=True)
    )


def own_tracks(part: MulticamClip, tracks: tuple[Track, ...]) -> tuple[Track, ...]:
    """The same tracks with ids that are a part's own, and stay so."""
    copy = renamed(part.model_copy(update={"tracks": tracks}), part.id)
    assert isinstance(copy, MulticamClip)
    return copy.tracks


def _hearing(hears: tuple[int, ...], index: Index, count: int) -> tuple[int, ...]:
    """What is heard with each angle; a new one has the sound that all others have, or its own."""
    everywhere = index.get(hears[0]) if len(set(hears)) == 1 else None
    found = [now if everywhere is None else everywhere for now in range(count)]
    for was, heard in enumerate(hears):
        if was in index and heard in index:
            found[index[was]] = index[heard]
    return tuple(found)


def _switched(
    switches: tuple[Switch, ...], index: Index, tracks: tuple[Track, ...], by: int, step: int
) -> tuple[Switch, ...]:
    shown = first_shown(tracks)
    found = []
    for switch in switches:
        now = index.get(switch.angle, shown)
        angle = now if tracks[now].kind != "sound" else shown
        at = switch.at + by if switch.at else 0
        found.append(switch.model_copy(update={"at": at, "angle": angle}))
    return in_turn(found, max(track.end for track in tracks), step)


Change = Callable[[MulticamClip], MulticamClip]


def with_scene(document: Document, scene: str, change: Change) -> Document:
    """The document with every part of a scene changed, however deep it lies."""
    step = document.rate.exact.frame_ticks
    tracks = tuple(_with_scene(track, scene, change, step) for track in document.tracks)
    return document.model_copy(update={"tracks": tracks})


def _with_scene(track: Track, scene: str, change: Change, step: int) -> Track:
    for clip in track.clips:
        if isinstance(clip, MulticamClip) and clip.scene == scene:
            new = change(clip)
            if new is not clip:
                require_open(track)
                track = refilled(track, clip, new, step)
        elif isinstance(clip, Holding):
            inner = tuple(_with_scene(one, scene, change, step) for one in clip.tracks)
            if any(a is not b for a, b in zip(inner, clip.tracks, strict=True)):
                track = refilled(track, clip, clip.model_copy(update={"tracks": inner}), step)
    return track


def with_shared(before: Document, after: Document) -> Document:
    """What was done to the angles of one multicam clip, done to all parts of its scene."""
    known = {clip.id: clip for clip in all_clips(before.tracks) if isinstance(clip, MulticamClip)}
    for clip in all_clips(after.tracks):
        old = known.get(clip.id)
        if old is None or not isinstance(clip, MulticamClip) or old.tracks is clip.tracks:
            continue
        return with_scene(after, clip.scene, partial(sharing, clip))
    return after


def sharing(clip: MulticamClip, part: MulticamClip) -> MulticamClip:
    """A part of a scene with the angles of a clip of it."""
    if part.id == clip.id:
        return clip
    return part.model_copy(update={"tracks": own_tracks(part, clip.tracks)})


def require_angles(before: Holding, after: Holding) -> None:
    """Raise if a change within a multicam clip leaves other angles than there were."""
    if not isinstance(after, MulticamClip):
        return
    known, now = ([(one.id, one.kind) for one in clip.tracks] for clip in (before, after))
    rows = [track.clips for track in after.tracks]
    if known != now or not all(len(row) == 1 and isinstance(row[0], GroupClip) for row in rows):
        raise EditRefused(
            "Within a multicam clip each angle stays one clip.",
            todo="Add, join or remove angles where they are lined up.",
        )
