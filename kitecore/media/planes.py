"""The planes of decoded frames as arrays."""

from __future__ import annotations

from dataclasses import dataclass

import av
import numpy as np
from av.video.plane import VideoPlane
from numpy.typing import NDArray

from kitecore.media.info import PictureInfo
from kitecore.media.orientation import upright

Plane = NDArray[np.uint8]


@dataclass(frozen=True)
class Halved:
    """A picture of 8 bits as luma, Cb and Cr, chroma of half its ``size`` (width and height), rounded up.

    BT.709 in limited range, upright, opaque. Rows may be padded.
    """

    planes: tuple[Plane, Plane, Plane]
    size: tuple[int, int]


def rows_of(plane: VideoPlane) -> Plane:
    """The plane's own memory, uint8, its padding at the right included."""
    rows = np.frombuffer(memoryview(plane), np.uint8)
    return rows.reshape(plane.height, plane.line_size)


def upright_planes(frame: av.VideoFrame, picture: PictureInfo) -> av.VideoFrame:
    """A yuv420p frame turned and flipped as its picture is shown."""
    if not picture.turn and not picture.mirrored:
        return frame
    turned = [upright(rows_of(plane)[:, : plane.width], picture) for plane in frame.planes]
    height, width = turned[0].shape
    made = av.VideoFrame(width, height, "yuv420p")
    for plane, rows in zip(made.planes, turned, strict=True):
        rows_of(plane)[:, : plane.width] = rows
    return made
