"""The strokes that mend a clip's picture, where they have gone by now."""

from __future__ import annotations

from typing import Any, Final, NamedTuple

from kitecore.document import ClipBase, Document, VideoClip
from kitecore.document.clips import Retouchable
from kitecore.document.strokes import FillStroke, HealStroke, Sourcing, Stroke
from kitecore.errors import BadInput
from kitecore.media.pixels import fitting
from kitecore.motion.matrices import Matrix
from kitecore.picture.layer import Rgba
from kitecore.picture.retouch import Touching, far_of, retouch, touched
from kitecore.picture.retouch.sourcing import source_of
from kitecore.render.behind import behind
from kitecore.render.mending import Mending, Painted
from kitecore.render.sources import Sources
from kitecore.render.strokes_along import moved_stroke
from kitecore.render.tracked import seen_at

SIDE: Final = 960
"""Pixels of the longer side of a picture in which a source is looked for."""


class _Way(NamedTuple):
    """How what a stroke goes along with has changed since it was painted, how far it is there (0..1),
    and the picture then.
    """

    change: Matrix | None
    there: float
    then: Mending


def strokes_of(clip: ClipBase) -> tuple[Stroke, ...]:
    """Those that do something to a clip's picture."""
    return clip.working_strokes if isinstance(clip, Retouchable) else ()


def retouched(pixels: Rgba, mending: Mending) -> Rgba:
    """The picture of a clip as it came, after its strokes: a new one if there are any."""
    strokes = mending.clip.working_strokes
    return _after(pixels, mending, strokes) if strokes else pixels


def _after(pixels: Rgba, mending: Mending, strokes: tuple[Stroke, ...]) -> Rgba:
    out, grid = pixels.copy(), mending.grid
    ways: dict[tuple[str | None, int], _Way] = {}
    for number, stroke in enumerate(strokes):
        along = stroke.tracker, stroke.since
        if along not in ways:
            ways[along] = _way(mending, stroke)
        change, there, then = ways[along]
        now = moved_stroke(stroke, change)
        found = touched(now, grid) if there > 0 else None
        if found is None:
            continue
        now = now.model_copy(update={"strength": now.strength * there})
        # Where it was painted, everything is as it was.
        change = None if mending.tick == stroke.since else change
        painted = Painted(stroke, then, change)
        patch, seen = None, painted.seen(pixels, found.box)
        if isinstance(stroke, FillStroke):
            patch = _revealed(stroke, then, mending, found)
            # What goes before what lies behind it need not look as it did.
            seen = None if patch is not None and stroke.behind != stroke.tracker else seen
            patch = _closed(painted, strokes[: number + 1], found) if patch is None else patch
        elif isinstance(stroke, Sourcing):
            patch = painted.source(pixels, out, found.box, far_of(now, grid))
        retouch(out, now, grid, found, patch, seen)
    return out


def _revealed(stroke: FillStroke, then: Mending, now: Mending, here: Touching) -> Rgba | None:
    """What lies behind a stroke that takes it from other frames, if they show it."""
    wanted = stroke.taken_from == "moments" and isinstance(now.clip, VideoClip)
    return behind(stroke, then, now, here.box) if wanted else None


def _way(mending: Mending, stroke: Stroke) -> _Way:
    then = mending.at(stroke.since)
    seen = seen_at(mending.clip, stroke.tracker, stroke.since, mending.tick, mending.sources)
    return _Way(None, 1.0, then) if seen is None else _Way(seen.whole, seen.there, then)


def _closed(painted: Painted, strokes: tuple[Stroke, ...], here: Touching) -> Rgba | None:
    """What closes the hole of the last of some strokes, after what those before it did."""
    key = painted.on.kept("closed", tuple(one.model_dump_json() for one in strokes))

    def picture() -> Rgba:
        return _after(painted.on.taken(), painted.on, strokes[:-1])

    return painted.closed(picture, key, here.box)


def stroke_source(
    document: Document, clip_id: str, tick: int, stroke: dict[str, Any], sources: Sources
) -> dict[str, Any]:
    """From where a stroke on a clip's picture at a tick takes what it lays: ``source``, or None."""
    _, clip = document.find_clip(clip_id)
    if not isinstance(clip, Retouchable):
        raise BadInput("What is in hand is no picture of a take.", todo="Take a video or a still.")
    local = min(max(tick - clip.start, 0), clip.length - 1)
    media = clip.media_at(local)
    info = sources.picture(media)
    mending = Mending(clip, media, sources, fitting(info.width, info.height, SIDE), lane=clip.id)
    if isinstance(clip, VideoClip):
        mending = mending.at(clip.shown_at(local, document.rate.exact.frame_ticks))
    pixels = retouched(mending.taken(), mending)
    return {"source": source_of(pixels, HealStroke.model_validate(stroke), mending.grid)}
