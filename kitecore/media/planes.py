"""The planes of decoded frames as arrays."""

from __future__ import annotations

import av
import numpy as np
from av.video.plane import VideoPlane
from numpy.typing import NDArray

Plane = NDArray[np.uint8]


def rows_of(plane: VideoPlane) -> Plane:
    """The plane's own memory, uint8, its padding at the right included."""
    rows = np.frombuffer(memoryview(plane), np.uint8)
    return rows.reshape(plane.height, plane.line_size)


def upright_planes(frame: av.VideoFrame, turn: int) -> av.VideoFrame:
    """A yuv420p frame turned clockwise by a multiple of 90°."""
    if not turn:
        return frame
    turned = [np.rot90(rows_of(p)[:, : p.width], k=-turn // 90) for p in frame.planes]
    height, width = turned[0].shape
    upright = av.VideoFrame(width, height, "yuv420p")
    for plane, rows in zip(upright.planes, turned, strict=True):
        rows_of(plane)[:, : plane.width] = rows
    return upright
