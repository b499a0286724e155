"""What is kept of each frame of a take, carried from frame to frame (`kitecore.picture.cutting.carrying`)."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from pathlib import Path
from typing import Final

import cv2
import numpy as np
from numpy.typing import NDArray

from kitecore.analysis._base import Analysis, analyse, analyses, result_of
from kitecore.analysis.pictures import Pictures, pictures_of
from kitecore.document.cutouts import CutThrough, CutView
from kitecore.errors import BadInput
from kitecore.media.folder import MediaFolder
from kitecore.media.info import MediaInfo
from kitecore.picture.cutting.carrying import Carried, begun, carried, corrected
from kitecore.picture.cutting.leading import Matte
from kitecore.picture.cutting.marking import made_small, marked_on
from kitecore.programs import Tell
from kitecore.tracking.people import can_find_people

_PICTURES: Final = "mattes.bin"
_FACTS: Final = "mattes.npz"
LONGEST: Final = 3600
"""Frames through which one thing is cut out."""


@dataclass(frozen=True)
class Mattes:
    """What is kept of some frames of a take.

    Attributes
    ----------
    first
        Number of the first frame.
    ends
        Where the matte of each frame ends among ``packed``, PNG after PNG.
    sure
        uint8, shape (n,): 255 where all is as was expected from the frame before, 0 where nothing is left.
    """

    first: int
    ends: NDArray[np.int64]
    sure: NDArray[np.uint8]
    packed: NDArray[np.uint8]

    def at(self, number: int) -> Matte | None:
        """0..1 for each pixel of a small picture; None where nothing was looked for."""
        index = number - self.first
        if not 0 <= index < len(self.ends):
            return None
        begin = int(self.ends[index - 1]) if index else 0
        bytes_ = np.asarray(self.packed[begin : int(self.ends[index])])
        levels = cv2.imdecode(bytes_, cv2.IMREAD_GRAYSCALE)
        return np.asarray(levels, np.float32) / np.float32(255)


def find_cut(folder: MediaFolder, wanted: CutThrough, out: Path, tell: Tell) -> None:
    index = folder.index
    first, last = index.frame_at(wanted.first), index.frame_at(wanted.last)
    if last - first >= LONGEST:
        raise BadInput(
            "That is too long to be cut out at once.", todo="Trim the clip, then find it again."
        )
    if wanted.begins is None:
        raise BadInput("Nothing is marked to be kept.", todo="Mark it with a stroke first.")
    if any(view.persons for view in wanted.views) and not can_find_people():
        raise BadInput(
            "Persons cannot be found by themselves here: their model is not installed.",
            todo="Mark the person with strokes.",
        )
    count = last - first + 1
    found: dict[int, tuple[bytes, int]] = {}
    with pictures_of(folder) as pictures:
        for number, one, sure in _through(pictures, folder, wanted, first, last):
            found[number] = _packed(one.alpha), sure
            tell("cutting out", len(found) / count)
    packed = [found[number][0] for number in range(first, last + 1)]
    (out / _PICTURES).write_bytes(b"".join(packed))
    np.savez(
        out / _FACTS,
        first=first,
        ends=np.cumsum([len(one) for one in packed]),
        sure=np.array([found[number][1] for number in range(first, last + 1)], np.uint8),
    )


def _through(
    pictures: Pictures, folder: MediaFolder, wanted: CutThrough, first: int, last: int
) -> Iterator[tuple[int, Carried, int]]:
    """Number of a frame, what is kept of it, and how surely: backwards from the first view, then forwards."""
    views = {folder.index.frame_at(view.at): view for view in wanted.views if view != wanted.begins}
    start = wanted.begins
    assert start is not None
    wide, high = pictures.size
    begin, edge = folder.index.frame_at(start.at), wanted.edge

    def marked(view: CutView, number: int) -> Carried:
        return begun(marked_on(pictures.colours(number), view, wide / high), edge)

    def next_to(before: Carried, number: int) -> tuple[Carried, int]:
        now, sure = carried(before, made_small(pictures.colours(number))[0], edge)
        view = views.get(number)
        if view is None:
            return now, sure
        return corrected(now, marked_on(pictures.colours(number), view, wide / high), edge), 255

    whole = marked(start, begin)
    yield begin, whole, 255
    for numbers in (range(begin - 1, first - 1, -1), range(begin + 1, last + 1)):
        now = whole
        for number in numbers:
            now, sure = next_to(now, number)
            yield number, now, sure


def _packed(alpha: Matte) -> bytes:
    levels = np.rint(alpha * 255).astype(np.uint8)
    return cv2.imencode(".png", levels, [cv2.IMWRITE_PNG_COMPRESSION, 3])[1].tobytes()


def is_cut(folder: MediaFolder, wanted: CutThrough) -> bool:
    """Whether it was found before."""
    return result_of(folder, "cut", wanted) is not None


def read_mattes(folder: MediaFolder, wanted: CutThrough) -> Mattes:
    """What was found, or is found now."""
    place = analyse(folder, "cut", wanted)
    with np.load(place / _FACTS) as kept:
        packed = np.memmap(place / _PICTURES, np.uint8, "r")
        return Mattes(int(kept["first"]), kept["ends"], kept["sure"], packed)


def _moves(info: MediaInfo) -> bool:
    return info.kind == "video"


analyses.register("cut")(Analysis(version=1, fits=_moves, run=find_cut, parameters=CutThrough))
