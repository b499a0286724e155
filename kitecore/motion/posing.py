"""A layer's pose at a tick: its keys, how it comes and goes, what goes on, its path's direction."""

from __future__ import annotations

from typing import Final

from kitecore.document import Pictured
from kitecore.document.properties import Vector, has_keys
from kitecore.motion.axes import direction_at
from kitecore.motion.entrances import come
from kitecore.motion.meanwhiles import go_on
from kitecore.motion.pose import Away, Pose
from kitecore.motion.value import value_at

_GROWING: Final = {"pop", "spin", "unfold", "squash"}
"""Ways to come in that change the size."""


def pose_at(clip: Pictured, tick: int, canvas: Vector) -> Pose:
    """Where a clip is at a tick counted from its start.

    Parameters
    ----------
    canvas
        Width and height, in canvas pixels, of the area it is at home in.
    """
    place, moves = clip.place, clip.moves
    turn = value_at(place.turn, tick)
    if moves.along:
        turn += direction_at(place.position, tick)
    pose = Pose(
        value_at(place.position, tick),
        value_at(place.size, tick),
        value_at(place.pivot, tick),
        turn,
        value_at(place.lean, tick),
        value_at(clip.opacity, tick),
    )
    for away in _aways(clip, tick, canvas):
        pose = pose.moved(away)
    return pose


def opacity_at(clip: Pictured, tick: int) -> float:
    """Its opacity alone, 0..1 or beyond if its keys are."""
    opacity = value_at(clip.opacity, tick)
    for away in _aways(clip, tick, (0.0, 0.0)):
        opacity *= away.opacity
    return opacity


def progress_of(clip: Pictured, tick: int, *, leaving: bool) -> float:
    """Share of its coming in that is over; of its going out, share that is left; 1 elsewhere."""
    entrance = clip.moves.goes if leaving else clip.moves.comes
    if entrance is None:
        return 1.0
    since = clip.length - tick if leaving else tick
    return min(max(since / entrance.length, 0.0), 1.0)


def moves_by_itself(clip: Pictured) -> bool:
    """Whether its pose changes over time."""
    place, moves = clip.place, clip.moves
    keyed = (place.position, place.size, place.pivot, place.turn, place.lean)
    some = moves.comes or moves.goes or moves.meanwhile or moves.follow
    return bool(some) or any(has_keys(prop) for prop in keyed)


def grows(clip: Pictured) -> bool:
    """Whether the size in which it is shown may change over time."""
    entrances = (one for one in (clip.moves.comes, clip.moves.goes) if one is not None)
    return grows_on(clip) or any(one.kind in _GROWING for one in entrances)


def grows_on(clip: Pictured) -> bool:
    """Whether its size may change over time, while it comes and goes left out."""
    moves = clip.moves
    return (
        has_keys(clip.place.size)
        or any(one.kind == "pulse" for one in moves.meanwhile)
        or (moves.follow is not None and "size" in moves.follow.inherits)
    )


def is_coming(clip: Pictured, tick: int) -> bool:
    """Whether it is on its way in or out as a whole, so that at rest nothing of that is left."""
    return any(progress_of(clip, tick, leaving=leaving) < 1 for leaving in (False, True))


def _aways(clip: Pictured, tick: int, canvas: Vector) -> list[Away]:
    moves = clip.moves
    if not (moves.comes or moves.goes or moves.meanwhile):
        return []
    found: list[Away] = []
    for entrance, leaving in ((moves.comes, False), (moves.goes, True)):
        # The letters of a text come one by one, drawn by its painter.
        if entrance is None or by_units(clip, leaving=leaving):
            continue
        progress = progress_of(clip, tick, leaving=leaving)
        if progress < 1:
            found.append(come(entrance, progress, canvas, leaving=leaving))
    return found + [go_on(one, tick, canvas) for one in moves.meanwhile]


def by_units(clip: Pictured, *, leaving: bool) -> bool:
    """Whether it is a text that comes, or goes, by its letters, words or lines."""
    entrance = clip.moves.goes if leaving else clip.moves.comes
    return clip.kind == "text" and entrance is not None and entrance.unit != "whole"
