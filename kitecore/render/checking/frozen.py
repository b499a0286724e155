"""Videos that stand still though they should move."""

from collections.abc import Iterator

import numpy as np

from kitecore.document import VideoClip
from kitecore.render.checking._base import Check, Film, Finding, checks, clock, runs
from kitecore.render.showing import showing_at

_SECONDS = 1.0


def _frozen(film: Film) -> Iterator[Finding]:
    same = np.diff(film.pictures.mark.astype(np.int64)) == 0
    for first, last in runs(same, film.frames(_SECONDS)):
        clip = _should_move(film, first, last)
        if clip is not None:
            yield Finding(
                check="frozen",
                grade="doubt",
                message=f"“{clip.name}” stands still for {clock(film, last + 1 - first)}.",
                clip=clip.id,
                **film.stretch(first, last + 1),
            )


def _should_move(film: Film, first: int, last: int) -> VideoClip | None:
    """A video that shows other frames of its take at both ends of a stretch."""
    step = film.document.rate.exact.frame_ticks
    for one in showing_at(film.document.tracks, film.tick(first)):
        if isinstance(one, VideoClip) and film.tick(last) < one.end:
            shown = [one.shown_at(film.tick(at) - one.start, step) for at in (first, last)]
            if shown[0] != shown[1]:
                return one
    return None


checks.register("frozen")(Check(label="No video stands still", of="picture", run=_frozen))
