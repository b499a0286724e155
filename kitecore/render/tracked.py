"""What a tracker found within a layer's picture, for the layers that follow it."""

from __future__ import annotations

from collections.abc import Sequence
from typing import NamedTuple

import numpy as np

from kitecore.document import ClipBase, Pictured, VideoClip
from kitecore.document.moves import Follow
from kitecore.motion.matrices import Matrix, moved, parts, sized, turned
from kitecore.motion.posing import pose_at
from kitecore.render.placing import Area, fit_factor
from kitecore.render.sources import Sources
from kitecore.tracking.quads import Change, Quad, between


def tracked(
    leader: Pictured, follow: Follow, local: int, step: int, area: Area, sources: Sources
) -> Matrix | None:
    """How what is tracked has moved since it began to be followed; in pixels about the pivot.

    None if there is no such tracker.

    Parameters
    ----------
    local
        Tick of the leader.
    step
        Length of a frame in ticks.
    """
    if not isinstance(leader, VideoClip):
        return None
    seen = seen_at(leader, follow.tracker, follow.since, leader.shown_at(local, step), sources)
    if seen is None:
        return None
    return about_pivot(taken(follow.inherits, seen), leader, local, area, sources)


def about_pivot(
    change: Matrix, clip: VideoClip, local: int, area: Area, sources: Sources
) -> Matrix:
    """A change of a clip's picture, in heights from its middle, in its pixels about its pivot."""
    onto = within_picture(clip, pose_at(clip, local, area).pivot, area, sources)
    whole = onto @ change @ np.linalg.inv(onto)
    return np.asarray(whole / whole[2, 2])


def within_picture(clip: VideoClip, pivot: Area, area: Area, sources: Sources) -> Matrix:
    """From heights of a clip's picture, from its middle, to its pixels about its pivot."""
    picture, place = sources.picture(clip.media), clip.place
    fit = fit_factor(place.fit, (picture.width, picture.height), area) * picture.height
    wide, high = fit * (-1 if place.mirrored else 1), fit * (-1 if place.upside_down else 1)
    return np.asarray(moved(-pivot[0], -pivot[1]) @ sized(wide, high))


class Seen(NamedTuple):
    """What a tracker found: what may change of it, where it was when it began to be followed, where
    it is now, in heights of the picture from its middle; and how far it is there, 0..1.
    """

    change: Change
    was: Quad
    now: Quad
    there: float

    @property
    def whole(self) -> Matrix:
        """How it has changed, as far as it may."""
        return between(self.change, self.was, self.now)

    @property
    def similar(self) -> Matrix:
        """The shift, turn and size that come nearest to that."""
        return between("turns" if self.change == "leans" else self.change, self.was, self.now)


def seen_at(
    clip: ClipBase, tracker: str | None, since: int, tick: int, sources: Sources
) -> Seen | None:
    """Of what a tracker of a clip follows, at a tick of the file; none if there is no such tracker."""
    trackers = clip.trackers if isinstance(clip, VideoClip) else ()
    one = next((one for one in trackers if one.id == tracker), None)
    if one is None or not isinstance(clip, VideoClip):
        return None
    track = sources.track(clip.media, one)
    begun, number = (sources.frame_number(clip.media, at) for at in (since, tick))
    return Seen(one.change, track.at(begun), track.at(number), track.there(number))


def taken(what: Sequence[str], seen: Seen) -> Matrix:
    """The change in what is taken over of it, about the middle of what is tracked."""
    takes = frozenset(what)
    if takes == {"position", "turn", "size"}:
        return seen.whole
    near, was, now = seen.similar, seen.was, seen.now
    across, _, turn, _ = parts(near)
    before, after = was.mean(axis=0), now.mean(axis=0)
    to = after if "position" in takes else before
    size = across if "size" in takes else 1.0
    spin = turned(turn if "turn" in takes else 0.0)
    return np.asarray(moved(*to) @ spin @ sized(size, size) @ moved(*-before))
