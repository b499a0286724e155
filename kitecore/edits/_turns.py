"""The poses that a mouth has in turn, put in order; moments are of its own time."""

from __future__ import annotations

from collections.abc import Iterable, Sequence

from kitecore.document import Document, Holding, MouthClip, Track, Turn
from kitecore.document.clips.mouth import MOST_TURNS
from kitecore.edits._base import open_clips
from kitecore.errors import EditRefused, NothingChanges

Turns = tuple[Turn, ...]


def open_mouth(document: Document, clip_id: str) -> MouthClip:
    """A mouth that may be changed."""
    [(_, clip)] = open_clips(document, (clip_id,))
    if not isinstance(clip, MouthClip):
        raise EditRefused("That is no mouth.", todo="Take a mouth in hand.")
    return clip


def require_pose(clip: MouthClip, name: str) -> None:
    if name not in clip.poses:
        raise EditRefused(f"This mouth has no pose “{name}”.", todo="Add the pose first.")


def with_poses_alone(clip: Holding) -> Holding:
    """What was changed inside; of a mouth, poses that have lost their picture go.

    Raises
    ------
    EditRefused
        If a mouth would hold anything but poses.
    """
    if not isinstance(clip, MouthClip):
        return clip
    left = tuple(track for track in clip.tracks if track.clips)
    clip = clip.model_copy(update={"tracks": with_main(left)})
    if not clip.is_whole:
        raise EditRefused(
            "A mouth holds its poses alone, each a picture with a name of its own.",
            todo="Open one of its poses to add to it.",
        )
    return clip


def with_main(tracks: tuple[Track, ...]) -> tuple[Track, ...]:
    """With the first track as the main one, as every timeline has one."""
    if any(track.kind == "main" for track in tracks) or not tracks:
        return tracks
    return (tracks[0].model_copy(update={"kind": "main"}), *tracks[1:])


def own_time(document: Document, clip: MouthClip, at: int) -> int:
    """The frame of a mouth's own time that shows at a tick of the timeline."""
    at = min(max(at, clip.start), clip.end)
    rate = document.rate.exact
    return max(0, rate.nearest(clip.shown_at(at - clip.start, rate.frame_ticks)))


def in_order(turns: Iterable[Turn]) -> Turns:
    """Turns in order of time, without those that change nothing; of two at one moment the later given."""
    kept: list[Turn] = []
    for turn in sorted(turns, key=lambda one: one.at):
        if kept and kept[-1].at == turn.at:
            kept.pop()
        if not kept or (kept[-1].pose, kept[-1].by_hand) != (turn.pose, turn.by_hand):
            kept.append(turn)
    return tuple(kept)


def laid_over(turns: Turns, new: Sequence[Turn], low: int, high: int) -> Turns:
    """``new`` in place of what was there from ``low`` up to ``high``; from there it goes on as before."""
    kept = [one for one in turns if not low <= one.at < high]
    before = [one for one in turns if one.at <= high]
    if before and all(one.at != high for one in kept):
        kept.append(before[-1].model_copy(update={"at": high}))
    return in_order([*kept, *new])


def by_hand(turns: Turns) -> list[tuple[int, int | None]]:
    """Stretches in which somebody chose the pose: from when until when, if they end."""
    ends = [*(one.at for one in turns[1:]), None]
    return [(one.at, end) for one, end in zip(turns, ends, strict=False) if one.by_hand]


def with_turns(document: Document, clip: MouthClip, turns: Turns) -> Document:
    if turns == clip.turns:
        raise NothingChanges("That is so already.")
    if len(turns) > MOST_TURNS:
        raise EditRefused(f"A mouth changes its pose at most {MOST_TURNS} times.")
    return document.with_clip(clip.model_copy(update={"turns": turns}))
