"""Ready-made motions as keys that do the same."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any, Final, Literal

from kitecore.document import Pictured
from kitecore.document.ease import Ease, Steady, turned_round
from kitecore.document.moves import Entrance, Moves
from kitecore.document.properties import Keys, Vector, has_keys
from kitecore.edits._properties import adjusted, read
from kitecore.errors import EditRefused
from kitecore.motion import value_at
from kitecore.motion.axes import together
from kitecore.motion.entrances import away_of, come, pace_of
from kitecore.motion.meanwhiles import go_on
from kitecore.motion.pose import Away
from kitecore.motion.posing import by_units, progress_of
from kitecore.motion.thinning import thinned

Which = Literal["comes", "goes", "meanwhile"]
Plain = dict[str, Any]
Difference = Callable[[int], Away]


def _shifted(value: Vector, away: Away) -> Vector:
    return value[0] + away.shift[0], value[1] + away.shift[1]


def _sized(value: Vector, away: Away) -> Vector:
    return value[0] * away.size[0], value[1] * away.size[1]


_TOLERANCES: Final = {
    "place/position": 0.5,
    "place/size": 0.0005,
    "place/turn": 0.03,
    "place/lean": 0.03,
    "opacity": 0.002,
}
"""How far keys may lead from a motion: half a pixel, also at the edge of a layer as large as the
canvas, and half a level of 255."""
_PARTS: Final[dict[str, tuple[Callable[[Away], Any], Callable[[Any, Away], Any]]]] = {
    "place/position": (lambda away: away.shift, _shifted),
    "place/size": (lambda away: away.size, _sized),
    "place/turn": (lambda away: away.turn, lambda value, away: value + away.turn),
    "place/lean": (lambda away: away.lean, lambda value, away: value + away.lean),
    "opacity": (lambda away: away.opacity, lambda value, away: value * away.opacity),
}
"""Of each property that motions change: what of a difference counts for it, and how."""


def as_keys(clip: Pictured, which: Which, canvas: Vector, step: int) -> Pictured:
    """The clip with a motion as keys: the clip itself if it has none such.

    An entrance over a property without keys becomes two keys with its pace, exactly the same; what
    else there is, as few keys as lead within ``_TOLERANCES`` of it on every frame.
    """
    moves = clip.moves
    if which == "meanwhile":
        if not moves.meanwhile:
            return clip
        rest = moves.model_copy(update={"meanwhile": ()})
        return _sampled(clip, rest, _going_on(clip, canvas), (0, clip.length), step)
    leaving = which == "goes"
    entrance = moves.goes if leaving else moves.comes
    if entrance is None:
        return clip
    if by_units(clip, leaving=leaving):
        raise EditRefused(
            "Letters have no keys of their own.", todo="Let the text move as a whole first."
        )
    rest = moves.model_copy(update={which: None})
    begin, end = (clip.length - entrance.length, clip.length) if leaving else (0, entrance.length)
    away = away_of(entrance, canvas, leaving=leaving)
    changed = [path for path, (part, _) in _PARTS.items() if part(away) != part(Away())]
    if any(has_keys(read(clip, path)) for path in changed):
        return _sampled(clip, rest, _coming(clip, entrance, canvas, leaving), (begin, end), step)
    pace = pace_of(entrance, leaving=leaving)
    values: Plain = {}
    for path in changed:
        there = read(clip, path)
        gone = _PARTS[path][1](there, away)
        first, last = (there, gone) if leaving else (gone, there)
        ease = turned_round(pace) if leaving else pace
        values[path] = {"keys": [_key(begin, first, ease), _key(end, last, Steady())]}
    return _with(clip, rest, values)


def _going_on(clip: Pictured, canvas: Vector) -> Difference:
    def at(tick: int) -> Away:
        every = [go_on(one, tick, canvas) for one in clip.moves.meanwhile]
        return Away(
            (sum(one.shift[0] for one in every), sum(one.shift[1] for one in every)),
            (_product(one.size[0] for one in every), _product(one.size[1] for one in every)),
            sum(one.turn for one in every),
            sum(one.lean for one in every),
            _product(one.opacity for one in every),
        )

    return at


def _coming(clip: Pictured, entrance: Entrance, canvas: Vector, leaving: bool) -> Difference:
    def at(tick: int) -> Away:
        progress = progress_of(clip, tick, leaving=leaving)
        return come(entrance, progress, canvas, leaving=leaving)

    return at


def _sampled(
    clip: Pictured, rest: Moves, difference: Difference, span: tuple[int, int], step: int
) -> Pictured:
    begin, end = span
    ticks = [*range(begin, end, step), end]
    aways = {tick: difference(tick) for tick in ticks}
    values: Plain = {}
    for path, (part, put) in _PARTS.items():
        if all(part(away) == part(Away()) for away in aways.values()):
            continue
        prop = together(read(clip, path), step)
        old = prop.keys if isinstance(prop, Keys) else ()
        kept = [key.model_dump(mode="json") for key in old if not begin <= key.at <= end]
        moved = [put(value_at(prop, tick), aways[tick]) for tick in ticks]
        new = [_key(*key) for key in thinned(ticks, moved, _TOLERANCES[path])]
        values[path] = {"keys": sorted([*kept, *new], key=lambda key: key["at"])}
    return _with(clip, rest, values)


def _with(clip: Pictured, rest: Moves, values: Plain) -> Pictured:
    done = adjusted(clip.model_copy(update={"moves": rest}), values)
    assert isinstance(done, Pictured)
    return done


def _key(at: int, value: Any, ease: Ease) -> Plain:
    return {"at": at, "value": value, "ease": ease.model_dump(mode="json")}


def _product(numbers: Any) -> float:
    out = 1.0
    for number in numbers:
        out *= number
    return out
