"""Changing the timeline within a group."""

from __future__ import annotations

from collections.abc import Callable

from kitecore.document import Document, Holding, Track
from kitecore.edits._angles import require_angles
from kitecore.edits._base import require_open
from kitecore.edits._refill import refilled
from kitecore.edits._turns import with_poses_alone
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
            if not isinstance(clip, Holding):
                continue
            inner = (
                _inner(document, clip, change)
                if clip.id == group_id
                else _changed(document, clip.tracks, group_id, change)
            )
            if inner is None:
                continue
            require_open(track)
            filled = with_poses_alone(clip.model_copy(update={"tracks": inner}))
            require_angles(clip, filled)
            new = refilled(track, clip, filled, document.rate.exact.frame_ticks)
            return tuple(new if one.id == track.id else one for one in tracks)
    return None


def _inner(document: Document, group: Holding, change: Change) -> tuple[Track, ...]:
    before = document.model_copy(update={"tracks": group.tracks, "markers": ()})
    after = change(before)
    if after.canvas != before.canvas or after.rate != before.rate:
        raise EditRefused("Size and frame rate are set for the whole project.")
    if after.markers:
        raise EditRefused("Markers within a group are set on its clips.")
    return after.tracks
