"""Where something is in each frame of a take, by `kitecore.tracking`."""

from __future__ import annotations

from dataclasses import dataclass, replace
from pathlib import Path
from typing import Final

import numpy as np
from numpy.typing import NDArray

from kitecore.analysis._base import Analysis, analyse, analyses
from kitecore.analysis.faces import boxes_of, boxes_seen
from kitecore.analysis.pictures import pictures_of
from kitecore.document.trackers import Tracked, Tracker
from kitecore.errors import BadInput
from kitecore.media.folder import MediaFolder
from kitecore.media.info import MediaInfo
from kitecore.programs import Tell
from kitecore.tracking.follow import SURE
from kitecore.tracking.quads import Quad
from kitecore.tracking.reasons import reasons
from kitecore.tracking.ways import Way, followed
from kitecore.tracking.wider import believed, widened

_FILE: Final = "track.npz"
LONGEST: Final = 20_000
"""Frames that one tracker goes through."""

FADES: Final = 3
"""Frames in which what goes along with something fades before that is lost."""


@dataclass(frozen=True)
class Track:
    """What was found: corners of each frame, in heights from the middle, and how surely.

    Attributes
    ----------
    first
        Number of the first frame.
    quads
        float32, shape (n, 4, 2).
    sure
        uint8, shape (n,): 255 for surely, 0 where it is lost.
    why
        uint8, shape (n,): why it is not sure, as `tracking.reasons` tells it.
    """

    first: int
    quads: NDArray[np.float32]
    sure: NDArray[np.uint8]
    why: NDArray[np.uint8]

    def at(self, number: int) -> Quad:
        """Corners in a frame of the take; before the first as there, after the last as there."""
        index = min(max(number - self.first, 0), len(self.quads) - 1)
        return np.asarray(self.quads[index], np.float64)

    def there(self, number: int) -> float:
        """How far it is to be seen in a frame, 0..1: it fades before it is lost, and after."""
        index = min(max(number - self.first, 0), len(self.quads) - 1)
        around = self.sure[max(index - FADES + 1, 0) : index + FADES]
        lost = np.flatnonzero(around == 0)
        middle = min(index, FADES - 1)
        return float(min(np.abs(lost - middle).min(), FADES) / FADES) if len(lost) else 1.0


def find_track(folder: MediaFolder, wanted: Tracked, out: Path, tell: Tell) -> None:
    index = folder.index
    first, last = index.frame_at(wanted.first), index.frame_at(wanted.last)
    if last - first >= LONGEST:
        raise BadInput(
            "That is too long to be followed at once.", todo="Trim the clip, then follow again."
        )
    with pictures_of(folder) as pictures:
        wide, high = pictures.size
        middle = np.array([wide / 2, high / 2])
        views = {
            index.frame_at(view.at): np.array(view.corners) * high + middle for view in wanted.views
        }

        def told(share: float) -> None:
            tell("following", share)

        spots = np.array(wanted.spots) if wanted.spots else None
        known = list(views.items())
        way = followed(pictures.grey, first, last, known, wanted.change, spots, told)
        if wanted.face:
            way = _of_a_face(way, first, folder, views)
        why = reasons(lambda at: pictures.grey(first + at), way.quads, way.sure, SURE)
    np.savez(
        out / _FILE,
        first=first,
        quads=((way.quads - middle) / high).astype(np.float32),
        sure=np.rint(np.clip(way.sure, 0, 1) * 255).astype(np.uint8),
        why=why,
    )


def _of_a_face(way: Way, first: int, folder: MediaFolder, views: dict[int, Quad]) -> Way:
    """With what was found of faces: that is believed where the two disagree, and the wider counts."""
    quads, sure = believed(way.quads, way.sure, first, boxes_of(folder, views), SURE)
    return Way(widened(quads, first, boxes_seen(folder)), sure)


def read_track(folder: MediaFolder, wanted: Tracked) -> Track:
    """What was found, or is found now."""
    with np.load(analyse(folder, "track", wanted) / _FILE) as kept:
        return Track(int(kept["first"]), kept["quads"], kept["sure"], kept["why"])


def smoothed(folder: MediaFolder, tracker: Tracker) -> Track:
    """What was found for a tracker, its ways evened out over so many seconds, trimmed, and laid aside."""
    track = _trimmed(_evened(folder, tracker), folder, tracker)
    return replace(track, quads=track.quads + np.array(tracker.aside, np.float32))


def _trimmed(track: Track, folder: MediaFolder, tracker: Tracker) -> Track:
    """From the frame at which it begins to that at which it ends, or that which is left of it."""
    last = track.first + len(track.quads) - 1

    def within(tick: int | None, rest: int) -> int:
        return rest if tick is None else min(max(folder.index.frame_at(tick), track.first), last)

    begin = within(tracker.begins, track.first)
    kept = slice(begin - track.first, max(within(tracker.ends, last), begin) - track.first + 1)
    return Track(begin, track.quads[kept], track.sure[kept], track.why[kept])


def _evened(folder: MediaFolder, tracker: Tracker) -> Track:
    from scipy.ndimage import gaussian_filter1d  # slow to load

    track = read_track(folder, tracker.wanted)
    count, (rate, per) = len(track.quads), folder.index.rate
    sigma = tracker.smooth * rate / per / 4
    if sigma < 0.1 or count < 3:
        return track
    even = gaussian_filter1d(track.quads, sigma, axis=0, mode="nearest")
    return replace(track, quads=even)


def _moves(info: MediaInfo) -> bool:
    return info.kind == "video"


analyses.register("track")(Analysis(version=5, fits=_moves, run=find_track, parameters=Tracked))
