"""Covers of what is followed, where that is lost or unsure: it may be seen after all."""

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Final

import numpy as np
from numpy.typing import NDArray

from kitecore.document import AdjustmentClip, Pictured, SolidClip, VideoClip
from kitecore.document.masks import MaskBase
from kitecore.document.trackers import Tracker
from kitecore.motion import still_at
from kitecore.motion.plain import pair
from kitecore.render.checking._base import Check, Film, Finding, checks, clock, runs, together
from kitecore.render.checking.within import Lies
from kitecore.tracking.follow import SURE

_SURE: Final = round(SURE * 255)
"""Below which what was found is not surely the thing."""


@dataclass(frozen=True)
class Covering:
    """A cover, the video that it lies over, and what of that it goes along with."""

    cover: Lies
    leader: Lies
    tracker: Tracker

    @property
    def frames(self) -> NDArray[np.int64]:
        """Numbers of the film's frames in which both are on."""
        return np.intersect1d(self.cover.frames, self.leader.frames)

    @property
    def video(self) -> VideoClip:
        assert isinstance(self.leader.clip, VideoClip)
        return self.leader.clip

    def shown(self, film: Film, number: int) -> int:
        """The frame of the file in one of the film."""
        step = film.document.rate.exact.frame_ticks
        local = int(self.leader.moments[number]) - self.video.start
        return film.sources.frame_number(self.video.media, self.video.shown_at(local, step))

    def sizes(self, film: Film) -> tuple[NDArray[np.int64], NDArray[np.float64]]:
        """Those frames, and how large what is covered is in them: canvas pixels of the longer side."""
        cover, frames = self.cover.clip, self.frames
        assert isinstance(cover, Pictured) and cover.moves.follow is not None
        track = film.sources.track(self.video.media, self.tracker)
        since = film.sources.frame_number(self.video.media, cover.moves.follow.since)
        goes = "size" in cover.moves.follow.inherits
        sizes = []
        for number in frames.tolist():
            local = int(self.cover.moments[number]) - cover.start
            mask = max(_sides(still_at(cover.masks[0], local)))
            grown = _side(track.at(self.shown(film, number))) / _side(track.at(since))
            sizes.append(2 * mask * film.document.canvas.height * (grown if goes else 1.0))
        return frames, np.array(sizes)


def _covers(film: Film) -> Iterator[Finding]:
    covered = False
    for one in coverings(film):
        covered = True
        yield from _doubts(film, one)
    if covered:
        yield from _seen(film)


def coverings(film: Film) -> Iterator[Covering]:
    """All covers of what is followed; in groups, too."""
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
                yield Covering(lies, leader, tracker)


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


def _doubts(film: Film, one: Covering) -> Iterator[Finding]:
    first, sure = _surely(film, one)
    for begin, end in runs(sure < _SURE):
        said = "is not found" if (sure[begin:end] == 0).all() else "is not surely found"
        yield Finding(
            check="covers",
            grade="doubt",
            message=f"What “{one.cover.clip.name}” covers {said} for {clock(film, end - begin)}.",
            clip=one.cover.outer.id,
            **film.stretch(first + begin, first + end),
        )


def _surely(film: Film, one: Covering) -> tuple[int, NDArray[np.int64]]:
    """The first frame of the film in which both are seen; and how surely the thing is found, 0..255."""
    both = one.frames
    if not len(both):
        return 0, np.zeros(0, np.int64)
    track = film.sources.track(one.video.media, one.tracker)
    sure, away = track.sure, 0
    if one.tracker.face:
        sure, away = _while_there(sure), 255
    found = np.full(int(both[-1] - both[0]) + 1, 255, np.int64)
    for number in both.tolist():
        at = one.shown(film, number) - track.first
        found[number - both[0]] = int(sure[at]) if 0 <= at < len(sure) else away
    return int(both[0]), found


def _sides(mask: MaskBase) -> tuple[float, float]:
    """Half of the width and height of a mask that has them."""
    size = getattr(mask, "size", None)
    return (0.0, 0.0) if size is None else pair(size)


def _side(quad: NDArray[np.float64]) -> float:
    return max(float(np.ptp(quad, axis=0).max()), 1e-6)


def _while_there(sure: NDArray[np.uint8]) -> NDArray[np.uint8]:
    """No doubts before a person came and after they went: faces were looked for there, too."""
    there = np.flatnonzero(sure)
    if not len(there):
        return sure
    out = sure.copy()
    out[: there[0]] = out[there[-1] + 1 :] = 255
    return out


checks.register("covers")(Check(label="Covers are where they belong", of="picture", run=_covers))
