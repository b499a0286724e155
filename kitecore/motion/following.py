"""Layers that go along with others."""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping
from typing import Final

import numpy as np

from kitecore.document import ClipBase, Pictured
from kitecore.document.moves import Follow, Rest
from kitecore.document.properties import Vector
from kitecore.motion.matrices import Matrix, parts
from kitecore.motion.pose import Pose
from kitecore.motion.posing import pose_at

DEEPEST: Final = 8
"""Leaders of leaders."""
_SMALL: Final = 1e-4

Clips = Mapping[str, ClipBase]
Tracked = Callable[[Pictured, Follow, int], Matrix | None]
"""What moved within a leader's picture, at a tick of its own; in its pixels about its pivot."""


def frame_of(pose: Pose, area: Vector) -> Matrix:
    """From canvas pixels about a picture's pivot to the canvas, from its corner.

    It is `moved` @ `turned` @ `leaned` @ `sized`, multiplied out: there is one for every layer of
    every frame.
    """
    (x, y), (pivot_x, pivot_y), (across, down) = pose.position, pose.pivot, pose.size
    turn, aside = math.radians(pose.turn), math.tan(math.radians(pose.lean))
    cos, sin = math.cos(turn), math.sin(turn)
    return np.array(
        [
            [cos * across, -(aside * cos + sin) * down, area[0] / 2 + x + pivot_x],
            [sin * across, (cos - aside * sin) * down, area[1] / 2 + y + pivot_y],
            [0.0, 0.0, 1.0],
        ]
    )


def solid_frame(pose: Pose, area: Vector) -> Matrix:
    """The same of a layer that is not so small that nothing is left of it: it can be undone."""
    across, down = (float(np.copysign(max(abs(one), _SMALL), one)) for one in pose.size)
    whole = Pose(pose.position, (across, down), pose.pivot, pose.turn, pose.lean)
    return frame_of(whole, area)


def carried(
    clip: Pictured,
    local: int,
    clips: Clips,
    area: Vector,
    tracked: Tracked | None = None,
    deep: int = 0,
) -> Matrix | None:
    """What its leaders do to a clip at a tick of its own; in canvas pixels from the corner.

    None if it follows nothing that is there. A leader that is over, or not begun, stays as it is
    at its end or beginning.

    Parameters
    ----------
    clips
        By id, those among which it may follow one.
    tracked
        Asked where it follows a tracker of its leader.
    """
    follow = clip.moves.follow
    leader = clips.get(follow.clip) if follow else None
    if follow is None or not isinstance(leader, Pictured) or deep >= DEEPEST:
        return None
    there = min(max(clip.start + local - leader.start, 0), leader.length)
    now = _taken(follow, shown_frame(leader, there, clips, area, tracked, deep + 1), area)
    within = tracked(leader, follow, there) if follow.tracker and tracked else None
    if within is not None:
        now = now @ within
    return np.asarray(now @ np.linalg.inv(_frame_of_rest(follow.rest, area)))


def shown_frame(
    clip: Pictured,
    local: int,
    clips: Clips,
    area: Vector,
    tracked: Tracked | None = None,
    deep: int = 0,
) -> Matrix:
    """Where a clip really is, with what it follows."""
    own = solid_frame(pose_at(clip, local, area), area)
    above = carried(clip, local, clips, area, tracked, deep)
    return own if above is None else np.asarray(above @ own)


def rest_of(frame: Matrix, area: Vector) -> Rest:
    """A frame as a follower remembers it."""
    across, down, turn, lean = parts(frame)
    position = (float(frame[0, 2]) - area[0] / 2, float(frame[1, 2]) - area[1] / 2)
    return Rest(position=position, size=(across, down), turn=turn, lean=lean)


def _frame_of_rest(rest: Rest, area: Vector) -> Matrix:
    return solid_frame(Pose(rest.position, rest.size, turn=rest.turn, lean=rest.lean), area)


def _taken(follow: Follow, frame: Matrix, area: Vector) -> Matrix:
    """The leader's frame in what is taken over from it, the rest as it was."""
    now, was = rest_of(frame, area), follow.rest
    turn = now if "turn" in follow.inherits else was
    return _frame_of_rest(
        Rest(
            position=(now if "position" in follow.inherits else was).position,
            size=(now if "size" in follow.inherits else was).size,
            turn=turn.turn,
            lean=turn.lean,
        ),
        area,
    )
