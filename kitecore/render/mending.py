"""A picture that strokes mend, and what each of them saw when it was painted."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace
from functools import cached_property

import cv2
import numpy as np

from kitecore.arrays import Box, Coverage, Size
from kitecore.document import StillClip, VideoClip
from kitecore.document.clips import Retouchable
from kitecore.document.strokes import Stroke
from kitecore.media.pixels import to_rgba
from kitecore.motion.matrices import Matrix
from kitecore.picture.layer import Rgba
from kitecore.picture.outline import Grid
from kitecore.picture.retouch import Touching, far_of, looked_at, sourced, still_seen, touched
from kitecore.picture.retouch.completing import completed
from kitecore.render.cutting import without_pieces
from kitecore.render.sources import Sources
from kitecore.render.strokes_along import in_pixels, part_carried


@dataclass(frozen=True)
class Mending:
    """The picture of a clip in some size: of a take; of a video at a tick of its file.

    ``lane`` is whose reader it is (see `Sources.decoded`).
    """

    clip: Retouchable
    media: str
    sources: Sources
    size: Size
    tick: int = 0
    lane: str = ""

    @cached_property
    def grid(self) -> Grid:
        info = self.sources.picture(self.media)
        return Grid(*self.size, info.width / info.height)

    def at(self, tick: int) -> Mending:
        """The same at the moment at which a stroke was painted; the clip's reader goes on where it is."""
        return replace(self, tick=tick, lane=f"{self.lane} painted")

    def taken(self) -> Rgba:
        """The picture as it was taken."""
        if isinstance(self.clip, VideoClip):
            number = self.sources.frame_number(self.media, self.tick)
            return self.sources.video(self.media, number, self.lane, self.size)
        pixels = self.sources.still(self.media, self.size)
        if isinstance(self.clip, StillClip):
            return without_pieces(pixels, self.clip, self.sources)
        return pixels

    def taken_once(self) -> Rgba:
        """That of a video, where it is looked at once: nothing else is forgotten for it."""
        number = self.sources.frame_number(self.media, self.tick)
        return to_rgba(*self.sources.decoded(self.media, number, self.lane, self.size), self.size)

    def kept(self, what: str, *of: object) -> tuple[object, ...]:
        """A name for something that follows from this picture."""
        return (what, self.media, self._stamp, self.tick, self.size, *of)

    @cached_property
    def _stamp(self) -> int:
        return self.sources.stamp(self.media)


@dataclass(frozen=True)
class Painted:
    """A stroke as it was painted on a picture, and the change (in heights) that led to where it is."""

    stroke: Stroke
    on: Mending
    change: Matrix | None

    def seen(self, now: Rgba, box: Box) -> Coverage | None:
        """How far each pixel of a part shows what it showed then; None if that is not asked."""
        then = self._then((0, 0), box)
        return None if then is None else still_seen(_part(now, box), then)

    def source(self, now: Rgba, after: Rgba, box: Box, far: tuple[int, int]) -> Rgba | None:
        """What lies at the source: as it is, or, behind something that passes, as it was.

        Parameters
        ----------
        now, after
            The picture as it was taken, and with what the strokes before did.
        far
            How many pixels across and down the source lies now.
        """
        then = self._then(far_of(self.stroke, self.on.grid), box)
        if then is None:
            return None
        seen = still_seen(sourced(now, box, far), then)[..., None] / np.float32(255)
        mixed = then + (sourced(after, box, far).astype(np.float32) - then) * seen
        return np.asarray(np.rint(mixed), np.uint8)

    def _then(self, far: tuple[int, int], box: Box) -> Rgba | None:
        """What lay under the stroke, or so far from it, where it has gone by now."""
        if self.change is None or self._box is None:
            return None
        of = self._box
        key = self.on.kept("then", of, far)
        then = self.on.sources.cache.get(key, lambda: sourced(self.on.taken(), of, far))
        return self._carried(then, of, box, cv2.INTER_LINEAR)

    @cached_property
    def _box(self) -> Box | None:
        return looked_at(self.stroke, self.on.grid)

    def closed(self, picture: Callable[[], Rgba], key: tuple[object, ...], box: Box) -> Rgba | None:
        """What closes the hole under the stroke, where it has gone by now.

        It is made once, of the ``picture`` on which the stroke was painted.
        """
        if self._box is None:
            return None

        def make() -> Rgba:
            painted = touched(self.stroke, self.on.grid)
            assert painted is not None
            return _closed(picture(), painted)

        return self._carried(self.on.sources.cache.get(key, make), self._box, box, cv2.INTER_CUBIC)

    def _carried(self, patch: Rgba, of: Box, onto: Box, how: int) -> Rgba:
        """A part of the picture as it lies in another part after the change."""
        if self.change is None:
            return patch
        return part_carried(patch, of, in_pixels(self.change, self.on.grid), onto, how)


def _part(picture: Rgba, box: Box) -> Rgba:
    left, top, right, bottom = box
    return picture[top:bottom, left:right]


def _closed(picture: Rgba, painted: Touching) -> Rgba:
    left, top, right, bottom = painted.box
    hole = np.zeros(picture.shape[:2], np.bool_)
    hole[top:bottom, left:right] = painted.cover > 0
    return np.ascontiguousarray(_part(completed(picture, hole), painted.box))
