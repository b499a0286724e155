"""Words that cannot be read: beside the safe area, too small, gone too soon."""

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any, Final

import numpy as np

from kitecore.document import Canvas, GroupClip, Pictured, TextClip
from kitecore.media.pixels import fitting
from kitecore.motion import still_at
from kitecore.motion.plain import pair
from kitecore.render.checking._base import Check, Film, Finding, checks
from kitecore.render.checking.within import Lies
from kitecore.render.compose import solitary
from kitecore.render.frame import stage_of
from kitecore.render.making.following import corner_at
from kitecore.render.placing import Area, fit_factor

_SIDE: Final = 360
_SEEN: Final = 25
"""Alpha from which a pixel counts."""
_MOMENTS: Final = (0.25, 0.5, 0.75)
"""Shares of a clip at which it is looked at: what comes and goes may pass the border."""
_SLACK: Final = 0.01
_SMALLEST: Final = 0.028
"""Size of letters in the narrow side of the picture."""
_LETTERS_A_SECOND: Final = 15
_TO_FIND: Final = 0.5
"""Seconds until the eye is there."""

Box = tuple[float, float, float, float]
"""Left, top, right, bottom."""


@dataclass(frozen=True)
class _Text:
    """A text that is seen, and where it lies."""

    clip: TextClip
    lies: Lies

    def at(self, share: float) -> int:
        """Index of a frame of the film in which it is on, at a share of that."""
        return int(self.lies.frames[int(share * len(self.lies.frames))])

    def where(self, film: Film, first: int = 0) -> dict[str, Any]:
        """Its place in the film, from one of its frames on, for a finding."""
        begin = first or int(self.lies.frames[0])
        place = film.stretch(begin, int(self.lies.frames[-1]) + 1)
        return {**place, "clip": self.lies.outer.id}


def _texts(film: Film) -> Iterator[_Text]:
    """In groups, too; what a mouth or several angles hold is not always seen."""
    for lies in film.lies:
        plain = all(isinstance(one, GroupClip) for one, _ in lies.way)
        if isinstance(lies.clip, TextClip) and lies.seen and plain and _letters(lies.clip):
            yield _Text(lies.clip, lies)


def _letters(clip: TextClip) -> int:
    """All that it says, without spaces."""
    return sum(len("".join(one.words.split())) for one in clip.sayings)


def _named(clip: TextClip) -> str:
    text = " ".join(clip.first_words.split())
    return text if len(text) <= 24 else f"{text[:23]}…"


def _safe(film: Film) -> Iterator[Finding]:
    for text in _texts(film):
        for share in _MOMENTS:
            number = text.at(share)
            box = _box_of(film, text, film.tick(number))
            if box is None or _within(box, _safe_box(film)):
                continue
            yield Finding(
                check="safe",
                grade="doubt",
                message=f"“{_named(text.clip)}” leaves the safe area.",
                mend=None if text.lies.way else _moved_in(film, text.clip, box),
                **text.where(film, number),
            )
            break


def _box_of(film: Film, text: _Text, tick: int) -> Box | None:
    """Where a text lies in the file, in shares of its picture; None if nothing of it is seen."""
    canvas = film.document.canvas
    size = fitting(canvas.width, canvas.height, _SIDE)
    shown = text.lies.alone()
    assert isinstance(shown, Pictured)
    alpha = solitary(shown, tick, stage_of(film.document, size, film.sources))[..., 3]
    rows, columns = (
        np.flatnonzero((alpha > _SEEN).any(axis=1)),
        np.flatnonzero((alpha > _SEEN).any(axis=0)),
    )
    if not len(rows):
        return None
    framing = film.work.framing
    (width, height), (across, down) = framing.size, corner_at(film.work, tick, film.sources)
    x = (np.array([columns[0], columns[-1] + 1]) / size[0] * framing.drawn[0] + across) / width
    y = (np.array([rows[0], rows[-1] + 1]) / size[1] * framing.drawn[1] + down) / height
    return float(x[0]), float(y[0]), float(x[1]), float(y[1])


def _safe_box(film: Film) -> Box:
    margins = film.destination.margins
    return margins.left, margins.top, 1 - margins.right, 1 - margins.bottom


def _within(box: Box, safe: Box) -> bool:
    inner = all(box[side] >= safe[side] - _SLACK for side in (0, 1))
    return inner and all(box[side] <= safe[side] + _SLACK for side in (2, 3))


def _moved_in(film: Film, clip: TextClip, box: Box) -> dict[str, Any] | None:
    """A step that moves a text into the safe area, if it stands still and has room there."""
    position, safe = clip.place.position, _safe_box(film)
    if not isinstance(position, tuple):
        return None
    moved: list[float] = []
    for side, now in enumerate(position):
        low, high = safe[side] - box[side], safe[side + 2] - box[side + 2]
        if low > high:
            return None
        share = min(max(0.0, low), high) if low <= 0 else low
        drawn, canvas = film.work.framing.drawn[side], film.document.canvas
        whole = (canvas.width, canvas.height)[side]
        moved.append(round(now + share * film.work.size[side] / drawn * whole, 1))
    return {"kind": "adjust", "clips": [clip.id], "values": {"place/position": moved}}


def _small(film: Film) -> Iterator[Finding]:
    scale = film.work.framing.drawn[0] / film.document.canvas.width / min(film.work.size)
    for text in _texts(film):
        now = still_at(text.clip, text.clip.length // 2)
        letters = now.size * max(now.place.size) * _enlarged(film, text.lies) * scale  # type: ignore[operator, type-var]
        if letters < _SMALLEST:
            yield Finding(
                check="small",
                grade="doubt",
                message=f"“{_named(text.clip)}” is hard to read in this size.",
                **text.where(film),
            )


def _enlarged(film: Film, lies: Lies) -> float:
    """By how much what a clip lies in enlarges it, in the middle of the time in which it is on."""
    factor, area = 1.0, _size(film.document.canvas)
    for holding, _ in lies.way:
        now = still_at(holding.place, holding.length // 2)
        own = _size(holding.own_canvas) if holding.own_canvas else area
        factor *= fit_factor(holding.place.fit, own, area) * max(pair(now.size))
        area = own
    return factor


def _size(canvas: Canvas) -> Area:
    return float(canvas.width), float(canvas.height)


def _short(film: Film) -> Iterator[Finding]:
    for text in _texts(film):
        if text.lies.track.captions:
            # The pace of captions is told by a check of their own.
            continue
        needed = _TO_FIND + _letters(text.clip) / _LETTERS_A_SECOND
        seconds = len(text.lies.frames) / float(film.document.rate.exact.fraction)
        if seconds < needed:
            yield Finding(
                check="short",
                grade="doubt",
                message=f"“{_named(text.clip)}” shows for {seconds:.1f} s; "
                f"to read it takes {needed:.1f} s.",
                **text.where(film),
            )


checks.register("safe")(Check(label="Words stay in the safe area", of="picture", run=_safe))
checks.register("small")(Check(label="Words are large enough", of="picture", run=_small))
checks.register("short")(Check(label="Words stay long enough", of="picture", run=_short))
