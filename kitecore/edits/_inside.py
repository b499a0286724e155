"""Changing the timeline within a group."""

from __future__ import annotations

from collections.abc import Callable

from kitecore.document import Document, GroupClip, Track
from kitecore.edits._base import require_open
from kitecore.edits._lanes import neighbours, settled, swapped
from kitecore.errors import EditRefused, NotThere

Change = Callable[[Document], Document]


def changed_inside(document: Document, group_id: str, change: Change) -> Document:
    """The document after a change of a group's own timeline, however deep the group lies.

    A group that showed all that is in it goes on doing so; another keeps its part, as far as there
    is one.

    Raises
    ------
    EditRefused
        If the group would be empty, or the change is one of the whole project.
    """
    tracks = _changed(document, document.tracks, group_id, change)
    if tracks is None:
        raise NotThere("That group is not there any more.")
    return document.model_copy(update={"tracks": tracks})


def _changed(
    document: Document, tracks: tuple[Track, ...], group_id: str, change: Change
) -> tuple[Track, ...] | None:
    for track in tracks:
        for clip in track.clips:
            if not isinstance(clip, GroupClip):
                continue
            inner = (
                _inner(document, clip, change)
                if clip.id == group_id
                else _changed(document, clip.tracks, group_id, change)
            )
            if inner is None:
                continue
            require_open(track)
            new = _refilled(track, clip, inner, document.rate.exact.frame_ticks)
            return tuple(new if one.id == track.id else one for one in tracks)
    return None


def _inner(document: Document, group: GroupClip, change: Change) -> tuple[Track, ...]:
    before = document.model_copy(update={"tracks": group.tracks, "markers": ()})
    after = change(before)
    if after.canvas != before.canvas or after.rate != before.rate:
        raise EditRefused("Size and frame rate are set for the whole project.")
    if after.markers:
        raise EditRefused("Markers within a group are set on its clips.")
    return after.tracks


def _refilled(track: Track, group: GroupClip, inner: tuple[Track, ...], step: int) -> Track:
    """The track after the group's content was exchanged."""
    new = group.model_copy(update={"tracks": inner})
    if not new.source_end:
        raise EditRefused("That would leave the group empty.", todo="Delete the group instead.")
    wanted = new.source_end if group.whole else min(group.length, new.lasting // step * step)
    _, later = neighbours(track.clips, group.id)
    room = wanted if track.closes_gaps or later is None else later.start - group.start
    length = min(wanted, room)
    if length < step:
        raise EditRefused("The part of the group that is shown would be empty.")
    new = new.model_copy(update={"length": length})
    return settled(track, swapped(track.clips, new))
