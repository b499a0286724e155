"""How a picture lies in its file, and turning it upright."""

from __future__ import annotations

import math
import struct
from typing import Any, TypeVar

import av
import numpy as np
from av.sidedata.sidedata import Type
from numpy.typing import NDArray

from kitecore.media.info import PictureInfo

T = TypeVar("T", bound=np.generic)


def orientation_of(frame: av.VideoFrame) -> tuple[int, bool]:
    """Degrees clockwise (0, 90, 180, 270) that make a frame upright, and whether it is flipped left
    to right after that: by its display matrix (ISO/IEC 14496-12, 8.3.2), to the nearest quarter.
    """
    data: Any = frame.side_data
    matrix = data.get(Type.DISPLAYMATRIX)
    if matrix is None:
        return 0, False
    a, b, _, c, d = struct.unpack("<5i", bytes(matrix)[:20])
    mirrored = a * d - b * c < 0
    turn = math.degrees(math.atan2(b, -a if mirrored else a))
    return round(turn / 90) * 90 % 360, mirrored


def upright(pixels: NDArray[T], picture: PictureInfo) -> NDArray[T]:
    """Rows of pixels, shape (height, width, ...), turned and flipped as their picture is shown."""
    if picture.turn:
        pixels = np.rot90(pixels, k=-picture.turn // 90)
    if picture.mirrored:
        pixels = pixels[:, ::-1]
    return np.ascontiguousarray(pixels)
