"""Small pictures of a take, for what looks at many of them."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager

import cv2
import numpy as np
from numpy.typing import NDArray

from kitecore.arrays import Size
from kitecore.media.folder import MediaFolder
from kitecore.media.pixels import Rgba, fitting, to_rgba
from kitecore.media.proxy import PROXY_SIDE
from kitecore.media.reader import VideoReader, open_original, open_proxy


class Pictures:
    """Of the proxy, or of the original if there is none; no larger than they are looked at."""

    def __init__(self, reader: VideoReader) -> None:
        self._reader = reader

    @property
    def size(self) -> Size:
        picture = self._reader.picture
        return fitting(picture.width, picture.height, PROXY_SIDE)

    def colours(self, number: int) -> Rgba:
        return to_rgba(self._reader.frame(number), self._reader.picture, self.size)

    def grey(self, number: int) -> NDArray[np.uint8]:
        picture = self._reader.picture
        if picture.turn or picture.mirrored or picture.stacked:
            return np.asarray(cv2.cvtColor(self.colours(number), cv2.COLOR_RGBA2GRAY))
        frame = self._reader.frame(number).reformat(*self.size, format="gray")
        return np.asarray(frame.to_ndarray())


@contextmanager
def pictures_of(folder: MediaFolder) -> Iterator[Pictures]:
    """Open while they are read."""
    reader = open_proxy(folder) if folder.proxy.exists() else open_original(folder)
    try:
        yield Pictures(reader)
    finally:
        reader.close()
