"""Whose faces are seen in a take, and when."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator, Mapping
from pathlib import Path
from typing import Any, Final

import cv2
import numpy as np
from numpy.typing import NDArray

from kitecore.analysis._base import (
    Analysis,
    NoParameters,
    analyse,
    analyses,
    read_found,
    result_of,
    write_found,
)
from kitecore.analysis.pictures import Pictures, pictures_of
from kitecore.document.trackers import MOST_VIEWS, Tracked, View
from kitecore.errors import BadInput
from kitecore.media.folder import MediaFolder
from kitecore.media.index import FrameIndex
from kitecore.media.info import MediaInfo
from kitecore.model import Model, Start
from kitecore.programs import Tell
from kitecore.ticks import TICKS_PER_SECOND
from kitecore.tracking.faces import Boxes, can_find_faces, faces_in
from kitecore.tracking.persons import Person, persons_of
from kitecore.tracking.quads import Quad, corners_of

_BOXES: Final = "boxes.npz"
_LOOKS: Final = 5
"""Pictures of a second in which faces are looked for."""
_SMALLEST: Final = 0.05
"""Heights of the picture (of its shorter side) of the smallest face that is looked for."""
_BEYOND: Final = 0.12
"""Of the shorter side: how much is put beyond the picture's edges where faces are looked for."""
_VIEWS: Final = 2 * TICKS_PER_SECOND
"""From one place of a face to the next that a follower is told; between, it finds its own way. Where
another face is near, or this one was hidden, it is told every one."""
_NEAR: Final = 1.0
"""How far faces are apart, in their own widths and heights, that are taken for each other."""
_HANDLES: Final = TICKS_PER_SECOND // 2
"""How long before it was first seen, and after, a face is followed."""


class SeenFace(Model):
    """A person: from when to when they are seen, and what has to be followed of them."""

    first: Start
    last: Start
    tracked: Tracked


class FacesFound(Model):
    persons: tuple[SeenFace, ...] = ()


def find_faces(folder: MediaFolder, wanted: NoParameters, out: Path, tell: Tell) -> None:
    if not can_find_faces():
        raise BadInput(
            "Faces cannot be found by themselves here: their model is not installed.",
            todo="Follow the face with a box, then cover it.",
        )
    with pictures_of(folder) as pictures:
        looks = list(_faces(pictures, folder.index, tell))
        size = pictures.size
    persons = persons_of(looks)
    found = FacesFound(persons=tuple(_seen(one, looks, folder, size) for one in persons))
    write_found(out, "faces", found)
    sure = [
        (whose, number, box)
        for whose, one in enumerate(persons)
        for number, box in zip(one.numbers, one.boxes, strict=True)
    ]
    np.savez(
        out / _BOXES,
        looks=np.array([number for number, _ in looks], np.int64),
        whose=np.array([whose for whose, _, _ in sure], np.int64),
        numbers=np.array([number for _, number, _ in sure], np.int64),
        boxes=np.array([box for _, _, box in sure], np.float32).reshape(-1, 5),
    )


def _faces(pictures: Pictures, index: FrameIndex, tell: Tell) -> Iterator[tuple[int, Boxes]]:
    rate, per = index.rate
    step = max(1, round(rate / per / _LOOKS))
    smallest = round(_SMALLEST * min(pictures.size))
    last = len(index) - 1
    for number in [*range(0, last, step), last]:
        yield number, _faces_of(pictures.colours(number)[..., :3], smallest)
        tell("looking for faces", (number + 1) / len(index))


def _faces_of(picture: NDArray[np.uint8], smallest: int) -> Boxes:
    """Those that are cut off by the picture's edges, too: mirrored there, they are whole."""
    more = round(_BEYOND * min(picture.shape[:2]))
    whole = cv2.copyMakeBorder(picture, more, more, more, more, cv2.BORDER_REFLECT)
    boxes = faces_in(np.asarray(whole), smallest) - np.array([*[more] * 4, 0], np.float32)
    middles = (boxes[:, :2] + boxes[:, 2:4]) / 2
    within = (middles >= 0) & (middles < picture.shape[1::-1])
    return np.asarray(boxes[within.all(axis=1)])


def _seen(
    person: Person, looks: list[tuple[int, Boxes]], folder: MediaFolder, size: tuple[int, int]
) -> SeenFace:
    index = folder.index
    ticks = [int(index.times[number]) for number in person.numbers]
    told = _told(person, looks, ticks)
    views = tuple(
        View(at=ticks[at], corners=_seen_from_middle(person.boxes[at], size)) for at in told
    )
    before, after = (_handle(person.boxes[at], size) for at in (0, -1))
    end = min(ticks[-1] + after, folder.info.length - 1)
    first, last = max(ticks[0] - before, 0), max(end, views[-1].at)
    return SeenFace(
        first=ticks[0],
        last=ticks[-1],
        tracked=Tracked(views=views, first=first, last=last, face=True),
    )


def _handle(box: Any, size: tuple[int, int]) -> int:
    """How long a face is followed where it is not found any more: longer where it goes out of the
    picture, since what is cut off by its edge is not found.
    """
    reach = (box[2:4] - box[:2]) / 2
    leaves = ((box[:2] < reach) | (np.array(size) - box[2:4] < reach)).any()
    return 3 * _HANDLES if leaves else _HANDLES


def _told(person: Person, looks: list[tuple[int, Boxes]], ticks: list[int]) -> list[int]:
    """Which of its places a follower is told: some, and all at which it may go astray."""
    rows = {number: row for row, (number, _) in enumerate(looks)}
    seen = [rows[number] for number in person.numbers]
    astray = {
        at
        for at, (row, box) in enumerate(zip(seen, person.boxes, strict=True))
        if _beside(box, looks[row][1])
    }
    for at in range(1, len(seen)):
        if seen[at] > seen[at - 1] + 1:
            astray |= {at - 1, at}
    gap, told = max(_VIEWS, 2 * (ticks[-1] - ticks[0]) // MOST_VIEWS), [0]
    for at in range(1, len(ticks)):
        if ticks[at] - ticks[told[-1]] >= gap or at in astray:
            told.append(at)
    if len(told) <= MOST_VIEWS:
        return told
    return [told[round(at)] for at in np.linspace(0, len(told) - 1, MOST_VIEWS)]


def _beside(box: Any, boxes: Boxes) -> bool:
    """Whether another face is near."""
    middle, size = (box[:2] + box[2:4]) / 2, box[2:4] - box[:2]
    middles, sizes = (boxes[:, :2] + boxes[:, 2:4]) / 2, boxes[:, 2:4] - boxes[:, :2]
    apart = np.abs(middles - middle) / ((sizes + size) / 2) - 1
    others = np.abs(middles - middle).max(axis=1, initial=0) > 1
    return bool((others & (apart < _NEAR).all(axis=1)).any())


def _seen_from_middle(box: Any, size: tuple[int, int]) -> Any:
    """The corners of a box in heights of the picture, from its middle."""
    corners = (corners_of(box) - np.array(size) / 2) / size[1]
    return tuple((float(x), float(y)) for x, y in corners)


def read_faces(folder: MediaFolder) -> FacesFound:
    """What was found, or is found now."""
    return read_found(folder, "faces", FacesFound)


def boxes_seen(folder: MediaFolder) -> dict[int, Boxes]:
    """The faces of persons in each frame that was looked at, in pixels of the pictures looked at.

    Found now if that was not done; none where they cannot be found.
    """
    looks, _, numbers, boxes = _kept(folder)
    return {int(look): boxes[numbers == look] for look in looks}


def boxes_of(folder: MediaFolder, views: Mapping[int, Quad]) -> dict[int, Boxes]:
    """The same of one person alone, whose face was at ``views`` (frames, and corners in pixels)."""
    looks, whose, numbers, boxes = _kept(folder)
    found: Counter[int] = Counter()
    for number, quad in views.items():
        for at in np.flatnonzero(numbers == number):
            if np.abs(quad.mean(axis=0) - (boxes[at, :2] + boxes[at, 2:4]) / 2).max() < 1:
                found[int(whose[at])] += 1
    if not found:
        return {}
    own = whose == found.most_common(1)[0][0]
    return {int(look): boxes[own & (numbers == look)] for look in looks}


def _kept(folder: MediaFolder) -> tuple[NDArray[Any], ...]:
    """Frames that were looked at; of each face whose it is, in which frame, and its box."""
    if result_of(folder, "faces") is None and not can_find_faces():
        none = np.zeros(0, np.int64)
        return none, none, none, np.zeros((0, 5), np.float32)
    with np.load(analyse(folder, "faces") / _BOXES) as kept:
        return tuple(kept[name] for name in ("looks", "whose", "numbers", "boxes"))


def _moves(info: MediaInfo) -> bool:
    return info.kind == "video"


analyses.register("faces")(Analysis(version=3, fits=_moves, run=find_faces))
