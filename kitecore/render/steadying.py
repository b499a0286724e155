"""Pictures held steady by what is followed in them."""

from __future__ import annotations

from typing import Any, Final

import numpy as np
from numpy.typing import NDArray

from kitecore.document import VideoClip
from kitecore.document.trackers import MOST_CLOSER, Steadied
from kitecore.motion.matrices import Matrix, sized
from kitecore.render.placing import Area
from kitecore.render.sources import Sources
from kitecore.render.tracked import Seen, about_pivot, seen_at, taken

_LOOKS: Final = 600
"""Moments of a clip at most that tell how much larger its picture has to be."""


def steadied(clip: VideoClip, local: int, step: int, area: Area, sources: Sources) -> Matrix | None:
    """What is done to a clip's picture so that it stands still; in its pixels about its pivot.

    None if nothing holds it.
    """
    steady = clip.steady
    if steady is None:
        return None
    seen = seen_at(clip, steady.tracker, steady.since, clip.shown_at(local, step), sources)
    if seen is None:
        return None
    back = np.linalg.inv(_way(steady, seen))
    by = _closer(clip, steady, sources) if steady.closer else 1.0
    return about_pivot(sized(by, by) @ back, clip, local, area, sources)


def _way(steady: Steadied, seen: Seen) -> Matrix:
    """What is taken back; of a surface a turn and a size, since no picture is held in perspective."""
    return taken(steady.takes, seen._replace(change="turns") if seen.change == "leans" else seen)


def _closer(clip: VideoClip, steady: Steadied, sources: Sources) -> float:
    """By how much the picture is larger so that its edges stay out of sight throughout the clip."""
    low, high = clip.used
    ticks = np.unique(np.linspace(low, max(high - 1, low), _LOOKS).astype(np.int64))
    tracker = next(one for one in clip.trackers if one.id == steady.tracker)
    key = ("closer", clip.media, sources.stamp(clip.media), tracker, steady, low, high)

    def find() -> NDArray[np.float64]:
        info = sources.picture(clip.media)
        half = np.array([info.width / info.height / 2, 0.5])
        return np.array(max(_needed(clip, steady, int(at), half, sources) for at in ticks))

    return float(min(max(float(sources.cache.get(key, find)), 1.0), MOST_CLOSER))


def _needed(
    clip: VideoClip, steady: Steadied, tick: int, half: NDArray[Any], sources: Sources
) -> float:
    """At one moment: a corner of the picture made so much larger still lies within its way."""
    seen = seen_at(clip, steady.tracker, steady.since, tick, sources)
    assert seen is not None
    change = _way(steady, seen)
    corners = half[:, None] * [[-1, 1, 1, -1], [-1, -1, 1, 1]]
    turned = np.abs(change[:2, :2] @ corners).max(axis=1)
    room = np.maximum(half - np.abs(change[:2, 2]), half / MOST_CLOSER / 4)
    return float((turned / room).max())
