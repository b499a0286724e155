"""Clips made on one canvas, as they are placed on another."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from kitecore.document import ClipBase, GroupClip, Pictured, Place
from kitecore.document.properties import Keys, SpotKey, Vector

DRAWN = ("text", "shape")
"""Kinds of clip that the program draws in canvas pixels of their own."""


def fitted(clip: ClipBase, factor: float) -> ClipBase:
    """The clip enlarged about the middle of the canvas, with all its keys, and what is in it."""
    if factor == 1 or not isinstance(clip, Pictured):
        return clip
    own_size = clip.kind in DRAWN or clip.place.fit == "own"
    update: dict[str, Any] = {"place": _larger(clip.place, factor, own_size=own_size)}
    if isinstance(clip, GroupClip):
        update["tracks"] = tuple(
            track.model_copy(update={"clips": tuple(fitted(one, factor) for one in track.clips)})
            for track in clip.tracks
        )
    return clip.model_copy(update=update)


def _larger(place: Place, factor: float, *, own_size: bool) -> Place:
    def times(point: Vector) -> Vector:
        return point[0] * factor, point[1] * factor

    if not own_size:
        # The picture itself grows with the canvas, and so does the way to its pivot.
        scaled = {
            "position": mapped(place.position, times),
            "pivot": mapped(place.pivot, times),
        }
        return place.model_copy(update=scaled)
    # The pivot lies in the picture's own pixels: what it loses by staying, the position makes good.
    dx, dy = (0.0, 0.0) if isinstance(place.pivot, Keys) else place.pivot
    more = factor - 1

    def moved(point: Vector) -> Vector:
        return point[0] * factor + dx * more, point[1] * factor + dy * more

    scaled = {"position": mapped(place.position, moved, times), "size": mapped(place.size, times)}
    return place.model_copy(update=scaled)


def mapped(
    prop: Any, change: Callable[[Any], Any], handle: Callable[[Vector], Vector] | None = None
) -> Any:
    """A property with its value, or those of all its keys, changed; handles by ``handle``."""
    if not isinstance(prop, Keys):
        return change(prop)

    def key(one: Any) -> Any:
        update = {"value": change(one.value)}
        if isinstance(one, SpotKey):
            way = handle or change
            update |= {"before": way(one.before), "after": way(one.after)}
        return one.model_copy(update=update)

    return prop.model_copy(update={"keys": tuple(key(one) for one in prop.keys)})
