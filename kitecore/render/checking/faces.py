"""Faces that are cut off by the file's edges, or lie where its place puts signs of its own."""

from collections.abc import Iterator
from typing import Final

import numpy as np

from kitecore.render.checking._base import Check, Film, Finding, checks, together
from kitecore.render.making.following import corner_at
from kitecore.tracking.faces import can_find_faces

_MOST_OUTSIDE: Final = 0.25
"""Share of a face that may lie outside the safe area."""
_LOST: Final = 0.9
"""Share outside the picture from which on nobody misses it: it is not in the film."""


def _faces(film: Film) -> Iterator[Finding]:
    if not can_find_faces():
        yield Finding(
            check="faces",
            grade="doubt",
            message="Faces cannot be looked for here: their model is not installed.",
        )
        return
    looked = np.flatnonzero(~np.isnan(film.pictures.faces[:, 0, 0])).tolist()
    outside = (number for number in looked if _is_outside(film, number))
    for begin, end in together(outside, film.frames(1.0)):
        yield Finding(
            check="faces",
            grade="doubt",
            message="A face leaves the safe area.",
            **film.stretch(begin, min(end, film.document.frames)),
        )


def _is_outside(film: Film, number: int) -> bool:
    """Whether a face lies partly where it should not; as it is seen in the file."""
    framing, margins = film.work.framing, film.destination.margins
    at = corner_at(film.work, film.tick(number), film.sources)
    boxes = film.pictures.faces[number]
    boxes = boxes[~np.isnan(boxes[:, 0])].reshape(-1, 2, 2)
    boxes = (boxes * framing.drawn + at) / framing.size
    safe = np.array([[margins.left, margins.top], [1 - margins.right, 1 - margins.bottom]])
    for box in boxes:
        outside = _outside(box, safe)
        if outside > _MOST_OUTSIDE and _outside(box, np.array([[0, 0], [1, 1]])) < _LOST:
            return True
    return False


def _outside(box: np.ndarray, area: np.ndarray) -> float:
    """Share of a box (left top, right bottom) that lies outside another."""
    sides = np.minimum(box[1], area[1]) - np.maximum(box[0], area[0])
    return float(1 - np.prod(np.maximum(sides, 0)) / np.prod(box[1] - box[0]))


checks.register("faces")(Check(label="Faces lie in the safe area", of="picture", run=_faces))
