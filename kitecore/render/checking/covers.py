"""Covers of what is followed, where that is lost or unsure: it may be seen after all."""

from collections.abc import Iterator
from typing import Final

import numpy as np
from numpy.typing import NDArray

from kitecore.document import AdjustmentClip, SolidClip, VideoClip
from kitecore.document.trackers import Tracker
from kitecore.render.checking._base import Check, Film, Finding, checks, clock, runs, together
from kitecore.render.checking.within import Lies
from kitecore.tracking.follow import SURE

_SURE: Final = round(SURE * 255)
"""Below which what was found is not surely the thing."""


def _covers(film: Film) -> Iterator[Finding]:
    covered = False
    for cover, leader, tracker in _all(film):
        covered = True
        yield from _doubts(film, cover, leader, tracker)
    if covered:
        yield from _seen(film)


def _all(film: Film) -> Iterator[tuple[Lies, Lies, Tracker]]:
    """Covers, what they lie over, and what they go along with; in groups, too."""
    clips = {lies.clip.id: lies for lies in film.lies}
    for lies in clips.values():
        cover = lies.clip
        if not isinstance(cover, AdjustmentClip | SolidClip) or not cover.masks:
            continue
        follow = cover.moves.follow
        leader = clips.get(follow.clip) if follow else None
        if follow is None or leader is None or not isinstance(leader.clip, VideoClip):
            continue
        for tracker in leader.clip.trackers:
            if tracker.id == follow.tracker:
                yield lies, leader, tracker


def _seen(film: Film) -> Iterator[Finding]:
    """Faces that can be made out in the finished film, while others are covered: missed, or not wholly covered."""
    looked = film.pictures.faces[:, 0, 0]
    there = (number for number in np.flatnonzero(~np.isnan(looked)).tolist())
    for begin, end in together(there, film.frames(1.0)):
        yield Finding(
            check="covers",
            grade="doubt",
            message=f"A face can be made out for {clock(film, end - begin)}, while others are covered.",
            **film.stretch(begin, min(end, film.document.frames)),
        )


def _doubts(film: Film, cover: Lies, leader: Lies, tracker: Tracker) -> Iterator[Finding]:
    first, sure = _surely(film, cover, leader, tracker)
    for begin, end in runs(sure < _SURE):
        said = "is not found" if (sure[begin:end] == 0).all() else "is not surely found"
        yield Finding(
            check="covers",
            grade="doubt",
            message=f"What “{cover.clip.name}” covers {said} for {clock(film, end - begin)}.",
            clip=cover.outer.id,
            **film.stretch(first + begin, first + end),
        )


def _surely(
    film: Film, cover: Lies, leader: Lies, tracker: Tracker
) -> tuple[int, NDArray[np.int64]]:
    """The first frame of the film in which both are seen; and how surely the thing is found, 0..255."""
    clip, step = leader.clip, film.document.rate.exact.frame_ticks
    assert isinstance(clip, VideoClip)
    both = np.intersect1d(cover.frames, leader.frames)
    if not len(both):
        return 0, np.zeros(0, np.int64)
    track = film.sources.track(clip.media, tracker)
    sure, away = track.sure, 0
    if tracker.face:
        sure, away = _while_there(sure), 255
    found = np.full(int(both[-1] - both[0]) + 1, 255, np.int64)
    for number in both:
        shown = clip.shown_at(int(leader.moments[number]) - clip.start, step)
        at = film.sources.frame_number(clip.media, shown) - track.first
        found[number - both[0]] = int(sure[at]) if 0 <= at < len(sure) else away
    return int(both[0]), found


def _while_there(sure: NDArray[np.uint8]) -> NDArray[np.uint8]:
    """No doubts before a person came and after they went: faces were looked for there, too."""
    there = np.flatnonzero(sure)
    if not len(there):
        return sure
    out = sure.copy()
    out[: there[0]] = out[there[-1] + 1 :] = 255
    return out


checks.register("covers")(Check(label="Covers are where they belong", of="picture", run=_covers))
