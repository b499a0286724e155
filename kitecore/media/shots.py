"""Where one shot of a take ends and another begins: frames there are never mixed."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Final

import av
import cv2
import numpy as np
from numpy.typing import NDArray

from kitecore.media.planes import rows_of
from kitecore.media.whole import whole_file

SIDE: Final = (32, 32)
LEAST: Final = 9.0
"""Mean difference of two frames, levels of 255, below which it is no change of shot."""
TIMES: Final = 2.5
"""How much larger it is than those before and after it: what moves fast differs all the time, and a
flash twice."""
_AROUND: Final = 3

Small = NDArray[np.float32]


class Shots:
    """Looks at the frames of a take one after the other, and says where shots begin."""

    def __init__(self) -> None:
        self._last: Small | None = None
        self._differences: list[float] = []

    def look(self, frame: av.VideoFrame) -> None:
        """The next frame, as planes whose first is luma; 8 bits or 10."""
        small = _small(frame)
        before = small if self._last is None else self._last
        self._differences.append(float(np.abs(small - before).mean()))
        self._last = small

    @property
    def begins(self) -> list[int]:
        """Numbers of the frames that begin another shot, the first frame of all left out."""
        found = []
        all_of_them = np.array(self._differences)
        for number in np.flatnonzero(all_of_them > LEAST).tolist():
            first = max(number - _AROUND, 1)
            around = np.delete(all_of_them[first : number + _AROUND + 1], number - first)
            if not len(around) or all_of_them[number] > TIMES * around.max():
                found.append(number)
        return found

    def save(self, path: Path) -> None:
        with whole_file(path) as unfinished:
            unfinished.write_text(json.dumps(self.begins))


def _small(frame: av.VideoFrame) -> Small:
    """Luma of a frame in few pixels, 0 to 255."""
    plane = frame.planes[0]
    deep = frame.format.components[0].bits > 8
    rows = rows_of(plane).view(np.uint16) if deep else rows_of(plane)
    picture = np.ascontiguousarray(rows[:, : frame.width])
    small = cv2.resize(picture, SIDE, interpolation=cv2.INTER_AREA).astype(np.float32)
    return np.asarray(small / 4 if deep else small)
