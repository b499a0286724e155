"""What other frames of a take show of that which lies behind a stroke."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property
from typing import Final, NamedTuple

import cv2
import numpy as np
from numpy.typing import NDArray

from kitecore.arrays import Box
from kitecore.document import VideoClip
from kitecore.document.strokes import FillStroke
from kitecore.document.trackers import Tracker
from kitecore.motion.matrices import Matrix
from kitecore.picture.layer import Rgba
from kitecore.picture.retouch import looked_at, still_seen, touched
from kitecore.picture.retouch.completing import completed
from kitecore.picture.retouch.revealing import MOST_SAMPLES, revealed
from kitecore.render.mending import Mending
from kitecore.render.strokes_along import in_pixels, moved_stroke, part_carried
from kitecore.render.tracked import Seen, seen_at
from kitecore.ticks import TICKS_PER_SECOND
from kitecore.tracking.quads import carried, inverse

_AROUND: Final = 5 * TICKS_PER_SECOND
"""Ticks before and after the stroke was painted that are looked at where nothing is followed."""
_STEPS: Final = 48
"""Moments at which it is asked where the stroke goes."""
_ROOM: Final = 0.06
"""Heights of the picture around that way, for what lies between the moments."""
_BEYOND: Final = 1.0
"""Pictures on each side of the one that was painted on that are put together at most."""
_BYTES: Final = 96 * 2**20
"""Of samples, held at once."""
_FEWEST: Final = 5
_SHOWN: Final = 0.02
"""Share of what is hidden at first that other frames show at least, or they tell nothing."""
_STILL_THERE: Final = 0.7
"""Share of what was hidden that looks the same from which on it is still there."""
_RIM: Final = 0.006
"""Heights of the picture around a stroke in which nothing counts as what lies behind: edges are soft."""


def behind(stroke: FillStroke, then: Mending, now: Mending, onto: Box) -> Rgba | None:
    """What lies behind a stroke, in a part of a picture; None if no other frame shows it.

    It is put together once, as seen when the stroke was painted, and carried along with what it
    belongs to; what no frame shows is closed from around.

    Parameters
    ----------
    then, now
        The picture on which the stroke was painted, and the one that it mends.
    onto
        The part of that.
    """
    scene, cache = _Scene(stroke, then), then.sources.cache
    of = (stroke.model_dump_json(), *(one.model_dump_json() for one in scene.leaders.values()))
    left, top, right, bottom = cache.get(then.kept("reaches", *of), scene.reaches).tolist()
    whole = left, top, right, bottom
    if left == right:
        return None
    picture = cache.get(then.kept("behind", *of), lambda: scene.put_together(whole))
    if not picture[..., 3].any():
        return None
    change = scene.behind_at(now.tick)
    return part_carried(picture, whole, in_pixels(change, then.grid), onto, cv2.INTER_CUBIC)


class _Sample(NamedTuple):
    """What a frame shows of a scene: its part of it, and where nothing lies before that."""

    picture: Rgba
    within: NDArray[np.bool_]
    free: NDArray[np.bool_]


@dataclass(frozen=True)
class _Scene:
    """A stroke and all that its clip knows of the place where it was painted."""

    stroke: FillStroke
    then: Mending

    @property
    def clip(self) -> VideoClip:
        assert isinstance(self.then.clip, VideoClip)
        return self.then.clip

    @cached_property
    def leaders(self) -> dict[str, Tracker]:
        """The trackers it depends on, by their ids."""
        named = {self.stroke.tracker, self.stroke.behind}
        return {one.id: one for one in self.clip.trackers if one.id in named}

    @property
    def stays(self) -> bool:
        """Whether the stroke goes along with what lies behind it: then only looks tell them apart."""
        of = self.stroke
        return self.leaders.get(of.tracker or "") is self.leaders.get(of.behind or "")

    def behind_at(self, tick: int) -> Matrix:
        """How what lies behind has moved since, in heights."""
        seen = self._seen(self.stroke.behind, tick)
        return np.eye(3) if seen is None else seen.whole

    def _seen(self, tracker: str | None, tick: int) -> Seen | None:
        return seen_at(self.clip, tracker, self.stroke.since, tick, self.then.sources)

    @property
    def _frames(self) -> tuple[int, int]:
        """The first and the last frame that may tell: of one shot, while all is followed."""
        folder = self.then.sources.folder(self.then.media)
        index, since = folder.index, self.stroke.since
        around = [(since - _AROUND, since + _AROUND)]
        begins, ends = zip(*([one.counts for one in self.leaders.values()] or around), strict=True)
        at = index.frame_at(since)
        shot = max((one for one in folder.shots if one <= at), default=0)
        next_shot = min((one for one in folder.shots if one > at), default=len(index))
        first = min(max(index.frame_at(max(begins)), shot), at)
        last = max(min(index.frame_at(min(ends)), next_shot - 1), at)
        return first, last

    def _ticks(self, count: int) -> list[int]:
        """Moments of that, evenly; that of the stroke first, then those nearest to it."""
        index = self.then.sources.folder(self.then.media).index
        at, (first, last) = index.frame_at(self.stroke.since), self._frames
        numbers = {at, *np.linspace(first, last, count).round().astype(int).tolist()}
        return [int(index.times[one]) for one in sorted(numbers, key=lambda one: abs(one - at))]

    def _moved(self, tick: int) -> FillStroke | None:
        """The stroke where it is at a moment; None if that is not known."""
        seen = self._seen(self.stroke.tracker, tick)
        if seen is not None and seen.there < 1:
            return None
        moved = moved_stroke(self.stroke, None if seen is None else seen.whole)
        assert isinstance(moved, FillStroke)
        return moved

    def reaches(self) -> NDArray[np.int64]:
        """The part of the scene, as seen then, over which the stroke goes: left, top, right and bottom in
        pixels of the picture; all 0 for nothing.
        """
        corners = []
        for tick in self._ticks(_STEPS):
            stroke = self._moved(tick)
            box = None if stroke is None else looked_at(stroke, self.then.grid)
            if box is not None:
                back = inverse(in_pixels(self.behind_at(tick), self.then.grid))
                left, top, right, bottom = box
                four = np.array([(left, top), (right, top), (right, bottom), (left, bottom)], float)
                corners.append(carried(back, four))
        if not corners:
            return np.zeros(4, np.int64)
        size = np.array(self.then.size)
        low = np.min(corners, axis=(0, 1)) - _ROOM * size[1]
        high = np.max(corners, axis=(0, 1)) + _ROOM * size[1]
        begin = np.floor(np.clip(low, -_BEYOND * size, size - 1))
        return np.concatenate(
            [begin, np.ceil(np.clip(high, begin + 1, (1 + _BEYOND) * size))]
        ).astype(np.int64)

    def put_together(self, whole: Box) -> Rgba:
        """All of that; clear if other frames show nothing of it."""
        wide, high = whole[2] - whole[0], whole[3] - whole[1]
        count = min(max(_BYTES // (4 * wide * high), _FEWEST), MOST_SAMPLES - 1)
        samples = [one for tick in self._ticks(count) if (one := self._sample(tick, whole))]
        if not samples:
            return np.zeros((high, wide, 4), np.uint8)
        pictures = np.stack([one.picture for one in samples])
        free = np.stack([one.free for one in samples])
        hidden = ~free[0]
        if self.stays and hidden.any():
            free |= _gone(pictures, hidden)[:, None, None]
        picture, known = revealed(pictures, free)
        if np.count_nonzero(known & hidden) < _SHOWN * np.count_nonzero(hidden):
            return np.zeros_like(picture)
        # Beyond all of the frames there is nothing to be seen, and nothing to be closed.
        within = np.any([one.within for one in samples], axis=0)
        return completed(picture, within & ~known)

    def _sample(self, tick: int, whole: Box) -> _Sample | None:
        """What a frame shows of it, and where nothing lies before that."""
        stroke = self._moved(tick)
        if stroke is None:
            return None
        sources, size = self.then.sources, self.then.size
        sources.checkpoint()
        picture = self.then.at(tick).taken_once()
        clear = np.full((size[1], size[0]), 255, np.uint8)
        wider = stroke.model_copy(update={"width": stroke.width + 2 * _RIM, "strength": 1.0})
        found = touched(wider, self.then.grid)
        if found is not None:
            left, top, right, bottom = found.box
            clear[top:bottom, left:right][found.cover > 0] = 0
        back = inverse(in_pixels(self.behind_at(tick), self.then.grid))
        all_of = (0, 0, *size)
        edge = cv2.BORDER_CONSTANT
        full = np.full_like(clear, 255)
        seen, within, free = (
            part_carried(one, all_of, back, whole, cv2.INTER_LINEAR, edge)
            for one in (picture, full, clear)
        )
        return _Sample(seen, within == 255, free == 255)


def _gone(pictures: NDArray[np.uint8], hidden: NDArray[np.bool_]) -> NDArray[np.bool_]:
    """Which show something else than the first where that is hidden, for the most part; shape (count,).

    A stroke is wider than what it hides, so some of it looks the same without that.
    """
    there = (still_seen(one, pictures[0])[hidden].mean() / 255 for one in pictures)
    return np.array([share < _STILL_THERE for share in there])
