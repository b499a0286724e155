"""Whose faces are seen in a take, and when."""

from __future__ import annotations

from collections.abc import Iterator
from pathlib import Path
from typing import Any, Final

import numpy as np

from kitecore.analysis._base import (
    Analysis,
    NoParameters,
    analyse,
    analyses,
    read_found,
    result_of,
    write_found,
)
from kitecore.analysis._pictures import Pictures, pictures_of
from kitecore.document.trackers import Tracked, View
from kitecore.errors import BadInput
from kitecore.media.folder import MediaFolder
from kitecore.media.index import FrameIndex
from kitecore.media.info import MediaInfo
from kitecore.model import Model, Start
from kitecore.programs import Tell
from kitecore.ticks import TICKS_PER_SECOND
from kitecore.tracking.faces import Boxes, can_find_faces, faces_in
from kitecore.tracking.persons import Person, persons_of

_BOXES: Final = "boxes.npz"
_LOOKS: Final = 5
"""Pictures of a second in which faces are looked for."""
_SMALLEST: Final = 0.05
"""Heights of the picture (of its shorter side) of the smallest face that is looked for."""
_VIEWS: Final = 2 * TICKS_PER_SECOND
"""From one place of a face to the next that a follower is told; between, it finds its own way."""
_MOST_VIEWS: Final = 150
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
    found = FacesFound(persons=tuple(_seen(one, folder, size) for one in persons))
    write_found(out, "faces", found)
    sure = [
        (number, box) for one in persons for number, box in zip(one.numbers, one.boxes, strict=True)
    ]
    np.savez(
        out / _BOXES,
        looks=np.array([number for number, _ in looks], np.int64),
        numbers=np.array([number for number, _ in sure], np.int64),
        boxes=np.array([box for _, box in sure], np.float32).reshape(-1, 5),
    )


def _faces(pictures: Pictures, index: FrameIndex, tell: Tell) -> Iterator[tuple[int, Boxes]]:
    rate, per = index.rate
    step = max(1, round(rate / per / _LOOKS))
    smallest = round(_SMALLEST * min(pictures.size))
    for number in range(0, len(index), step):
        colours = np.ascontiguousarray(pictures.colours(number)[..., :3])
        yield number, faces_in(colours, smallest)
        tell("looking for faces", min((number + step) / len(index), 1.0))


def _seen(person: Person, folder: MediaFolder, size: tuple[int, int]) -> SeenFace:
    index = folder.index
    ticks = [int(index.times[number]) for number in person.numbers]
    views: list[View] = []
    gap = max(_VIEWS, (ticks[-1] - ticks[0]) // _MOST_VIEWS)
    for tick, box in zip(ticks, person.boxes, strict=True):
        if not views or tick - views[-1].at >= gap:
            views.append(View(at=tick, corners=_corners(box, size)))
    end = min(ticks[-1] + _HANDLES, folder.info.length - 1)
    first, last = max(ticks[0] - _HANDLES, 0), max(end, views[-1].at)
    return SeenFace(
        first=ticks[0],
        last=ticks[-1],
        tracked=Tracked(views=tuple(views), first=first, last=last, face=True),
    )


def _corners(box: Any, size: tuple[int, int]) -> Any:
    """In heights of the picture, from its middle."""
    left, top, right, bottom = (float(edge) for edge in box[:4])
    wide, high = size
    return tuple(
        ((x - wide / 2) / high, (y - high / 2) / high)
        for x, y in ((left, top), (right, top), (right, bottom), (left, bottom))
    )


def read_faces(folder: MediaFolder) -> FacesFound:
    """What was found, or is found now."""
    return read_found(folder, "faces", FacesFound)


def boxes_seen(folder: MediaFolder) -> dict[int, Boxes]:
    """The faces of persons in each frame that was looked at, in pixels of the pictures looked at.

    Found now if that was not done; none where they cannot be found.
    """
    if result_of(folder, "faces") is None and not can_find_faces():
        return {}
    with np.load(analyse(folder, "faces") / _BOXES) as kept:
        numbers, boxes = kept["numbers"], kept["boxes"]
        return {int(look): boxes[numbers == look] for look in kept["looks"]}


def _moves(info: MediaInfo) -> bool:
    return info.kind == "video"


analyses.register("faces")(Analysis(version=2, fits=_moves, run=find_faces))
