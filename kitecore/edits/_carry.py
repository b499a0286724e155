"""What a group did to the look and the time of what is in it, done to the clips themselves."""

from __future__ import annotations

import math
from typing import Any, Final, cast

from kitecore.document import ClipBase, Holding, Pictured, Place, Sounding
from kitecore.document.properties import Vector, has_keys
from kitecore.edits._fitting import mapped
from kitecore.errors import EditRefused
from kitecore.motion.axes import together

_WITH_KEYS: Final = ("opacity", "gain", "pan", "pitch")


def require_plain(group: Holding) -> None:
    """Raise if the group does something to its content that single clips cannot take over."""
    what = next((name for name, odd in _odd(group).items() if odd), None)
    if what:
        raise EditRefused(
            f"The group has {what}: its clips would look or sound different without it.",
            todo="Set that back first.",
        )


def _odd(group: Holding) -> dict[str, bool]:
    place = group.place
    keyed = any(has_keys(getattr(place, name)) for name in type(place).model_fields)
    return {
        "a speed of its own": not group.speed.plain,
        "keys": keyed or any(has_keys(getattr(group, name)) for name in _WITH_KEYS),
        "an opacity": group.opacity != 1.0,
        "a blend mode": group.blend != "normal",
        "effects": bool(group.effects),
        "a motion of its own": not group.moves.at_rest,
        "a warp": group.warp is not None,
        "a cell in a split screen": group.cell is not None,
        "fades": bool(group.fade_in or group.fade_out),
        "a pan": group.pan != 0,
        "a pitch of its own": group.pitch != 0,
        "sides of its own": group.channels != "both",
        "a chain": bool(group.chain),
        "a lean or unequal sides": not keyed and not _even(place),
    }


def _even(place: Place) -> bool:
    return place.lean == 0 and place.size[0] == place.size[1]  # type: ignore[index]


def carried(clip: ClipBase, group: Holding, step: int) -> ClipBase:
    """The clip as it looks and sounds on the outside, at its time there.

    The group's place has to be plain (`require_plain`): a similarity, which goes into the clip's
    own place exactly. ``step`` is the length of a frame.
    """
    update: dict[str, Any] = {"start": clip.start - group.source_in + group.start}
    if isinstance(clip, Pictured) and group.place != Place():
        update["place"] = _placed(clip.place, group.place, step)
    if isinstance(clip, Sounding):
        update["muted"] = clip.muted or group.muted
        if group.gain:
            update["gain"] = mapped(clip.gain, lambda gain: gain + group.gain)
    return clip.model_copy(update=update)


def _placed(inner: Place, outer: Place, step: int) -> Place:
    if has_keys(inner.pivot):
        raise EditRefused("A pivot that moves by keys cannot leave the group.")
    factor, turn = outer.size[0], float(outer.turn)  # type: ignore[index, arg-type]
    cos, sin = math.cos(math.radians(turn)), math.sin(math.radians(turn))
    (px, py), (cx, cy), (dx, dy) = (
        cast(Vector, point) for point in (outer.position, outer.pivot, inner.pivot)
    )

    def moved(point: tuple[float, float]) -> tuple[float, float]:
        x, y = point[0] + dx - cx, point[1] + dy - cy
        return (
            px + cx + factor * (cos * x - sin * y) - dx,
            py + cy + factor * (sin * x + cos * y) - dy,
        )

    def turned(handle: Vector) -> Vector:
        x, y = handle
        return factor * (cos * x - sin * y), factor * (sin * x + cos * y)

    # A turn mixes what goes across with what goes down.
    position = together(inner.position, step) if turn % 180 else inner.position
    return inner.model_copy(
        update={
            "position": mapped(position, moved, turned),
            "size": mapped(inner.size, lambda size: (size[0] * factor, size[1] * factor)),
            "turn": mapped(inner.turn, lambda angle: angle + turn),
        }
    )
