"""Clips made on one canvas, as they are placed on another."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from typing import Any, Final

from pydantic.fields import FieldInfo

from kitecore.document import ClipBase, Holding, Model, Pictured, Place, Track
from kitecore.document.moves import Follow
from kitecore.document.properties import Axes, Keys, SpotKey, Vector, has_keys
from kitecore.motion.plain import pair

DRAWN: Final = ("text", "shape")
"""Kinds of clip that the program draws in canvas pixels of their own."""
_FITTED_APART: Final = ("place", "moves", "tracks")


Clips = Mapping[str, ClipBase]


def fitted(clip: ClipBase, factor: float, among: Clips | None = None) -> ClipBase:
    """The clip enlarged about the middle of the canvas, with all its keys, and what is in it.

    All lengths in canvas pixels grow with it: of effects, cells, softened edges, gradients. What the
    program draws is drawn as before and then sized, so that its own lengths stay.

    Parameters
    ----------
    among
        By id, clips that are enlarged with it and that it may follow.
    """
    if factor == 1 or not isinstance(clip, Pictured):
        return clip
    update = _longer_parts(clip, factor)
    update["place"] = _larger(clip.place, factor, own_size=_has_own_size(clip))
    if clip.moves.follow is not None:
        follow = _led(clip.moves.follow, factor, among or {})
        update["moves"] = clip.moves.model_copy(update={"follow": follow})
    if isinstance(clip, Holding) and clip.own_canvas is None:
        update["tracks"] = fitted_tracks(clip.tracks, factor)
    return clip.model_copy(update=update)


def fitted_tracks(tracks: tuple[Track, ...], factor: float) -> tuple[Track, ...]:
    """All clips of some tracks enlarged."""
    among = {clip.id: clip for track in tracks for clip in track.clips}
    return tuple(
        track.model_copy(update={"clips": tuple(fitted(c, factor, among) for c in track.clips)})
        for track in tracks
    )


def _has_own_size(clip: Pictured) -> bool:
    return clip.kind in DRAWN or clip.place.fit == "own"


def _longer_parts(clip: Pictured, factor: float) -> dict[str, Any]:
    kind = Pictured if clip.kind in DRAWN else type(clip)
    names = (name for name in kind.model_fields if name not in _FITTED_APART)
    parts = {name: (kind.model_fields[name], getattr(clip, name)) for name in names}
    found = {name: _longer(field, value, factor) for name, (field, value) in parts.items()}
    return {name: value for name, value in found.items() if value is not parts[name][1]}


def _longer(field: FieldInfo | None, value: Any, factor: float) -> Any:
    """A value with all lengths in it multiplied; itself if there are none."""
    extra = field.json_schema_extra if field is not None else None
    if isinstance(extra, dict) and extra.get("unit") == "px":
        return mapped(value, lambda length: _times(length, factor))
    if isinstance(value, tuple) and any(isinstance(one, Model) for one in value):
        items = tuple(_longer(None, one, factor) for one in value)
        return value if all(a is b for a, b in zip(items, value, strict=True)) else items
    if not isinstance(value, Model) or isinstance(value, Keys):
        return value
    fields = type(value).model_fields
    new = {name: _longer(fields[name], getattr(value, name), factor) for name in fields}
    update = {name: one for name, one in new.items() if one is not getattr(value, name)}
    return value.model_copy(update=update) if update else value


def _times(length: Any, factor: float) -> Any:
    if isinstance(length, tuple):
        return tuple(one * factor for one in length)
    return length * factor


def _led(follow: Follow, factor: float, among: Clips) -> Follow:
    """How a layer lay when it began to follow another that is enlarged with it."""
    leader, rest = among.get(follow.clip), follow.rest
    sized = factor if isinstance(leader, Pictured) and _has_own_size(leader) else 1.0
    update = {"position": _times(rest.position, factor), "size": _times(rest.size, sized)}
    return follow.model_copy(update={"rest": rest.model_copy(update=update)})


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
    dx, dy = (0.0, 0.0) if has_keys(place.pivot) else pair(place.pivot)
    more = factor - 1

    def moved(point: Vector) -> Vector:
        return point[0] * factor + dx * more, point[1] * factor + dy * more

    scaled = {"position": mapped(place.position, moved, times), "size": mapped(place.size, times)}
    return place.model_copy(update=scaled)


def mapped(
    prop: Any, change: Callable[[Any], Any], handle: Callable[[Vector], Vector] | None = None
) -> Any:
    """A property with its value, or those of all its keys, changed; handles by ``handle``.

    What changes a point with keys across and down on their own changes each number by itself.
    """
    if isinstance(prop, Axes):
        across = mapped(prop.across, lambda x: change((x, 0.0))[0])
        down = mapped(prop.down, lambda y: change((0.0, y))[1])
        return Axes(across=across, down=down)
    if not isinstance(prop, Keys):
        return change(prop)

    def key(one: Any) -> Any:
        update = {"value": change(one.value)}
        if isinstance(one, SpotKey):
            way = handle or change
            update |= {"before": way(one.before), "after": way(one.after)}
        return one.model_copy(update=update)

    return prop.model_copy(update={"keys": tuple(key(one) for one in prop.keys)})
