"""Faces of many pictures put together: who is where."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass, field
from typing import Final

import numpy as np
from numpy.typing import NDArray

from kitecore.tracking.faces import Boxes

_STEP: Final = 0.8
"""How far, in its own sizes, a face goes at most from one picture to the next."""
_GROWS: Final = 1.6
"""By how much it is larger or smaller there at most."""
_AWAY: Final = 6
"""Pictures for which it may not be seen and be the same one again."""
_SURELY: Final = 0.98
_LIKELY: Final = 0.9
"""How surely a face has to be seen that is seen only once: between others, and at the ends."""

Box = NDArray[np.float32]


@dataclass
class Person:
    """``numbers`` of the pictures in which a face was seen, and where: `Boxes`, one each."""

    numbers: list[int] = field(default_factory=list)
    boxes: list[Box] = field(default_factory=list)
    last: int = 0
    """Place in the row of the picture in which it was seen last."""

    def seen(self, number: int, row: int, box: Box) -> None:
        self.numbers.append(number)
        self.boxes.append(box)
        self.last = row

    def far(self, box: Box, away: int) -> float:
        """How far a box is from its last place, in sizes; infinite if it cannot be the same."""
        before = self.boxes[-1]
        size, now = _size(before), _size(box)
        gap = float(np.hypot(*(_middle(box) - _middle(before)))) / max(size, now)
        grown = max(size / now, now / size)
        return gap if gap < _STEP * away and grown < _GROWS**away else np.inf


def persons_of(faces: Iterable[tuple[int, Boxes]]) -> list[Person]:
    """The persons of pictures in a row, by when they are first seen.

    A face goes on with the nearest one seen shortly before that is about as large.

    Parameters
    ----------
    faces
        Number of each picture, and the faces in it.
    """
    everybody: list[Person] = []
    row = 0
    for row, (number, boxes) in enumerate(faces):
        free = list(range(len(boxes)))
        near = [one for one in everybody if row - one.last <= _AWAY]
        pairs = [
            (one.far(boxes[i], row - one.last), n, i) for n, one in enumerate(near) for i in free
        ]
        met: set[int] = set()
        for far, n, i in sorted(pairs):
            if np.isfinite(far) and n not in met and i in free:
                near[n].seen(number, row, boxes[i])
                met.add(n)
                free.remove(i)
        for i in free:
            everybody.append(Person())
            everybody[-1].seen(number, row, boxes[i])
    return [one for one in everybody if len(one.boxes) > 1 or _is_no_ghost(one, row)]


def _is_no_ghost(person: Person, last: int) -> bool:
    """Of one that was seen once: whoever leaves as the first picture is taken, or comes at the last."""
    return bool(person.boxes[0][4] >= (_LIKELY if person.last in (0, last) else _SURELY))


def _middle(box: Box) -> Box:
    return np.asarray((box[:2] + box[2:4]) / 2, np.float32)


def _size(box: Box) -> float:
    return float(max(*(box[2:4] - box[:2]), 1.0))
