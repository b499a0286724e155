"""Texts that come in, or go out, by their letters, words or lines."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any, Final

import numpy as np

from kitecore.arrays import Size, box_of
from kitecore.document import TextClip
from kitecore.document.moves import Entrance
from kitecore.motion.entrances import away_of, come
from kitecore.motion.plain import words
from kitecore.motion.pose import Away
from kitecore.motion.posing import by_units, progress_of
from kitecore.picture.composite import lay
from kitecore.picture.drawing.text import draw_text, units
from kitecore.picture.layer import Layer, Matrix, Rgba, leaned, moved, sized, turned
from kitecore.render.placing import Area
from kitecore.render.stage import Stage

_MOST_ROOM: Final = 1200.0
"""Canvas pixels around a text in which its letters move."""
_TURNING: Final = 0.6
"""Of the size of its letters: room that those take who turn or swell."""


@dataclass(frozen=True)
class Coming:
    """A text on its way in or out: what it does, and how much of that is done."""

    entrance: Entrance
    progress: float
    leaving: bool

    def aways(self, count: int, canvas: Area) -> list[Away]:
        """How far away each of its units is, from the first to the last."""
        one = self.entrance
        lag = one.later / max(count - 1, 1)
        alone = max(1 - one.later, 1e-6)
        over = 1 - self.progress if self.leaving else self.progress
        shares = (min(max((over - lag * i) / alone, 0.0), 1.0) for i in range(count))
        return [
            come(one, 1 - share if self.leaving else share, canvas, leaving=self.leaving)
            for share in shares
        ]

    def room(self, canvas: Area, letters: float) -> float:
        """Canvas pixels around the text that its units need."""
        away = away_of(self.entrance, canvas, leaving=self.leaving)
        far = max(abs(away.shift[0]), abs(away.shift[1]))
        return float(np.ceil(min(far + _TURNING * letters, _MOST_ROOM)))


def coming_of(clip: TextClip, tick: int) -> Coming | None:
    """How a text comes by units at a tick of its own; None if it is simply there."""
    for leaving in (True, False):
        entrance = clip.moves.goes if leaving else clip.moves.comes
        if entrance is None or not by_units(clip, leaving=leaving):
            continue
        progress = progress_of(clip, tick, leaving=leaving)
        if progress < 1:
            return Coming(entrance, progress, leaving)
    return None


def draw_coming(
    now: TextClip, coming: Coming, name: str, size: Size, area: Area, extent: Area, stage: Stage
) -> Rgba:
    """The text, without keys, in ``size`` pixels over ``area``, which is larger than its extent.

    Parameters
    ----------
    name
        Names how the text is drawn: its units are drawn once and kept.
    """
    scale = (size[0] / area[0], size[1] / area[1])
    inner = (max(1, round(extent[0] * scale[0])), max(1, round(extent[1] * scale[1])))
    corner = ((size[0] - inner[0]) / 2, (size[1] - inner[1]) / 2)
    out = np.zeros((size[1], size[0], 4), np.uint8)
    unit = coming.entrance.unit
    assert unit != "whole"
    spans = units(words(now.text), unit)
    cache, faces = stage.sources.cache, stage.sources.faces
    if now.plate is not None:
        bare = now.model_copy(update={"fill": None, "outline": None})
        plate = cache.get((name, inner, "plate"), lambda: draw_text(bare, inner, faces))
        soft = min(1.0, 3 * coming.progress)
        lay(out, Layer(plate, moved(*map(round, corner))), soft)
    for span, away in zip(spans, coming.aways(len(spans), stage.area), strict=True):
        if away.opacity <= 0:
            continue

        def draw(span: tuple[int, int] = span) -> Rgba:
            return draw_text(now, inner, faces, span)

        part = _trimmed(cache.get((name, inner, span), draw))
        if part is not None:
            pixels, spot = part
            x, y = corner[0] + spot[0], corner[1] + spot[1]
            lay(out, Layer(pixels, _placed(pixels, x, y, away, scale)), away.opacity)
    return out


def _trimmed(picture: Rgba) -> tuple[Rgba, tuple[int, int]] | None:
    """The part in which something is drawn, and its corner."""
    box = box_of(picture[..., 3])
    if box is None:
        return None
    left, top, right, bottom = box
    return np.ascontiguousarray(picture[top:bottom, left:right]), (left, top)


def _placed(pixels: Rgba, x: float, y: float, away: Away, scale: Any) -> Matrix:
    """Where a unit is drawn: turned and sized about its middle."""
    height, width = pixels.shape[:2]
    shift = (away.shift[0] * scale[0], away.shift[1] * scale[1])
    if away == Away():
        return moved(round(x), round(y))
    return np.asarray(
        moved(x + width / 2 + shift[0], y + height / 2 + shift[1])
        @ turned(away.turn)
        @ leaned(away.lean)
        @ sized(*away.size)
        @ moved(-width / 2, -height / 2)
    )
