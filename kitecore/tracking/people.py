"""Persons in a picture, pixel by pixel, found by themselves.

A small network that a package carries (V. Bazarevsky, A. Tkachenka, "Model Card MediaPipe Selfie
Segmentation", 2021) tells of each of 256 × 256 cells how surely it is of a person. It is meant for
persons that fill a picture, so it looks a second time, at what is around the one that is meant. Without the
package nobody is found.
"""

from __future__ import annotations

from functools import cache
from importlib.util import find_spec
from pathlib import Path
from typing import Any, Final

import cv2
import numpy as np
from numpy.typing import NDArray

from kitecore.arrays import Box

_PACKAGE: Final = "mediapipe"
_MODEL: Final = "modules/selfie_segmentation/selfie_segmentation.tflite"
_SIDE: Final = 256
_NEAR: Final = 0.03
"""Of the longer side of a picture: so far from a tap somebody may be."""
_WINDOWS: Final = (0.6, 0.35, 0.2)
"""Sides of squares around a tap, of the longer side, where nobody is seen in the whole picture."""
_SEEN: Final = 0.5
_CLOSER: Final = 2
"""Looks at what is around a person: of one that did not fit into a window more is seen each time."""
_CLEAR: Final = 0.8
"""How surely a person is seen, over all of it, that is not looked for any closer."""
_LOOSE: Final = 0.3
"""How surely what hangs together with a person is of it."""
_AROUND: Final = 0.25
"""What is looked at around a person, of its width and height."""

Sure = NDArray[np.float32]
"""How surely each pixel is of a person, 0..1, shape (height, width)."""
Picture = NDArray[np.uint8]


def can_find_people() -> bool:
    """Whether the model is there."""
    return _file() is not None


@cache
def _file() -> Path | None:
    package = find_spec(_PACKAGE)
    if package is None or not package.submodule_search_locations:
        return None
    file = Path(package.submodule_search_locations[0]) / _MODEL
    return file if file.is_file() else None


@cache
def _network() -> Any:
    return cv2.dnn.readNetFromTFLite(str(_file()))


def people_in(picture: Picture, box: Box | None = None) -> Sure:
    """All persons in a picture, RGB, or within a part of it; nobody beyond that."""
    height, width = picture.shape[:2]
    out = np.zeros((height, width), np.float32)
    left, top, right, bottom = box or (0, 0, width, height)
    part = picture[top:bottom, left:right]
    if not part.size or not can_find_people():
        return out
    cells = cv2.resize(part, (_SIDE, _SIDE), interpolation=cv2.INTER_AREA)
    network = _network()
    network.setInput(cv2.dnn.blobFromImage(cells, 1 / 255))
    answer = network.forward()[0, 0]
    size = right - left, bottom - top
    found = cv2.resize(answer, size, interpolation=cv2.INTER_LINEAR)
    out[top:bottom, left:right] = np.clip(found, 0, 1)
    return out


def person_at(picture: Picture, spot: tuple[float, float]) -> Sure:
    """The person at a place, in pixels, or very near it; nothing if nobody is there."""
    there = _first_look(picture, spot)
    one = joined(there, spot)
    for _ in range(_CLOSER):
        closer = people_in(picture, around(one))
        again = joined(closer, spot)
        if not again.any():
            break
        there, one = closer, again
    return np.asarray(np.where(one, there, 0), np.float32)


def _first_look(picture: Picture, spot: tuple[float, float]) -> Sure:
    """The picture, or the largest window in it, in which somebody is seen clearly; else the best."""
    best, most = people_in(picture), -1.0
    for share in (None, *_WINDOWS):
        there = best if share is None else people_in(picture, _window(picture, spot, share))
        one = joined(there, spot)
        clear = float(there[one].mean()) if one.any() else 0.0
        if clear > most:
            best, most = there, clear
        if most > _CLEAR:
            break
    return best


def joined(there: Sure, spot: tuple[float, float]) -> NDArray[np.bool_]:
    """What hangs together with the person at a place."""
    near = _nearest(there, spot)
    if near is None:
        return np.zeros(there.shape, np.bool_)
    _, parts = cv2.connectedComponents((there > _LOOSE).astype(np.uint8), connectivity=4)
    return np.asarray(parts == parts[near])


def around(there: NDArray[np.bool_]) -> Box | None:
    """A part of the picture with what is there, and some of what is around it."""
    rows, columns = np.flatnonzero(there.any(axis=1)), np.flatnonzero(there.any(axis=0))
    if not len(rows):
        return None
    height, width = there.shape
    top, bottom, left, right = rows[0], rows[-1] + 1, columns[0], columns[-1] + 1
    down, across = _AROUND * (bottom - top), _AROUND * (right - left)
    return (
        max(0, round(float(left - across))),
        max(0, round(float(top - down))),
        min(width, round(float(right + across))),
        min(height, round(float(bottom + down))),
    )


def _nearest(there: Sure, spot: tuple[float, float]) -> tuple[int, int] | None:
    """Row and column of the nearest pixel to a place that is surely of somebody."""
    rows, columns = np.nonzero(there > _SEEN)
    if not len(rows):
        return None
    far = np.hypot(columns + 0.5 - spot[0], rows + 0.5 - spot[1])
    index = int(far.argmin())
    if far[index] > max(1.0, _NEAR * max(there.shape)):
        return None
    return int(rows[index]), int(columns[index])


def _window(picture: Picture, spot: tuple[float, float], share: float) -> Box:
    height, width = picture.shape[:2]
    half = share * max(height, width) / 2
    left, right = max(0.0, spot[0] - half), min(float(width), spot[0] + half)
    top, bottom = max(0.0, spot[1] - half), min(float(height), spot[1] + half)
    return round(left), round(top), max(round(right), 1), max(round(bottom), 1)
