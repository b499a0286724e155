"""Frames of a video by number, exactly."""

from __future__ import annotations

from collections import OrderedDict
from collections.abc import Iterator
from contextlib import ExitStack
from pathlib import Path

import av
import numpy as np
from av.video.codeccontext import VideoCodecContext

from kitecore.errors import BrokenMedia
from kitecore.media.container import opened, picture_stream, plain_errors
from kitecore.media.fields import whole_frames
from kitecore.media.folder import MediaFolder
from kitecore.media.index import FrameIndex
from kitecore.media.info import Colours, PictureInfo

FORWARD = 40
"""Frames that are decoded on the way rather than seeking."""

KEPT_BACK = 32
"""Decoded frames kept while a video is read backwards: each is decoded on the way to a later one."""

PROXY_BASE = 12800
"""Units a second of a proxy's time base; a frame is `PROXY_STEP` of them."""
PROXY_STEP = 512

_HELD = 10
"""Pictures of a file that a decoder holds, or nearly."""
_COVERED = {"vp9": "libvpx-vp9", "vp8": "libvpx"}
"""Decoders that also decode the second picture which holds the alpha."""


class VideoReader:
    """Decodes one file. Fast forwards; goes back by seeking to the nearest key frame, and keeps

    the frames on the way, since the next one wanted is probably the one before.

    Not for use by several threads at once.
    """

    def __init__(
        self, path: Path, picture: PictureInfo, index: FrameIndex, *, threads: int = 1
    ) -> None:
        self.path = path
        self.picture = picture
        self.index = index
        self._threads = threads
        self._stack = ExitStack()
        self._asked = -1
        self._back: OrderedDict[int, av.VideoFrame] = OrderedDict()
        self._begin()

    @property
    def nbytes(self) -> int:
        """About what is held for it: the pictures that a decoder keeps to tell others by."""
        sample = 2 if self.picture.depth > 8 else 1
        return round(self.picture.width * self.picture.height * 1.5) * sample * _HELD

    def _begin(self) -> None:
        """Open the file at its start."""
        self._stack.close()
        self._container = self._stack.enter_context(opened(self.path))
        stream = picture_stream(self._container)
        if stream is None:
            raise BrokenMedia("There is no moving picture in this file.")
        self._stream = stream
        own = _COVERED.get(self.picture.codec) if self.picture.alpha else None
        self._context: VideoCodecContext = (
            av.CodecContext.create(own, "r") if own else stream.codec_context  # type: ignore[assignment]
        )
        if not own:
            self._context.thread_type = "AUTO" if self._threads > 1 else "SLICE"
            self._context.thread_count = self._threads
        self._frames = self._decode()
        self._last: tuple[int, av.VideoFrame] | None = None

    def frame(self, number: int) -> av.VideoFrame:
        """The decoded frame, as it is in the file (not turned, not scaled).

        Raises
        ------
        BrokenMedia
            If decoding stops before any frame could be had.
        """
        number = min(max(number, 0), len(self.index) - 1)
        backwards, self._asked = number < self._asked, number
        if self._last and self._last[0] == number:
            return self._last[1]
        if number in self._back:
            return self._back[number]
        self._back.clear()
        with plain_errors(self.path):
            if not self._is_ahead(number):
                self._seek(number)
            return self._forward(number, keep=backwards)

    def _is_ahead(self, number: int) -> bool:
        done = self._last[0] if self._last else -1
        if not done < number:
            return False
        return number - done <= FORWARD or self.index.key_before(number) <= done + 1

    def _seek(self, number: int) -> None:
        """Go to a key frame from which ``number`` can be decoded, and whole frames made."""
        before = 1 if self.picture.interlaced else 0
        key = self.index.key_before(max(number - before, 0))
        while True:
            self._container.seek(int(self.index.pts[key]), stream=self._stream, backward=True)
            self._context.flush_buffers()
            self._frames = self._decode()
            self._last = None
            first = next(self._frames, None)
            if first is not None and self._number(first) <= number:
                self._last = (self._number(first), first)
                return
            if key == 0:
                # Files that cannot be searched are read from their start.
                self._begin()
                return
            key = self.index.key_before(key - 1)

    def _forward(self, number: int, keep: bool) -> av.VideoFrame:
        while self._last is None or self._last[0] < number:
            if keep and self._last:
                self._back[self._last[0]] = self._last[1]
                if len(self._back) > KEPT_BACK:
                    self._back.popitem(last=False)
            frame = next(self._frames, None)
            if frame is None:
                break
            at = self._number(frame)
            if at > number and self._last is not None:
                # The wanted frame is missing in a damaged file: the one before it stands in.
                kept = self._last[1]
                self._last = (at, frame)
                return kept
            self._last = (at, frame)
        if self._last is None:
            raise BrokenMedia("This part of the video cannot be decoded.")
        return self._last[1]

    def _number(self, frame: av.VideoFrame) -> int:
        found = int(np.searchsorted(self.index.pts, frame.pts or 0, side="right")) - 1
        return max(found, 0)

    def _decode(self) -> Iterator[av.VideoFrame]:
        return whole_frames(self._coded()) if self.picture.interlaced else self._coded()

    def _coded(self) -> Iterator[av.VideoFrame]:
        place = None
        for packet in self._container.demux(self._stream):
            if place is None and packet.dts is not None:
                place = int(np.searchsorted(self.index.pts, packet.dts))
            for frame in self._context.decode(packet):
                if self.index.counted and place is not None:
                    frame.pts = int(self.index.pts[min(place, len(self.index) - 1)])
                    place += 1
                yield frame

    def close(self) -> None:
        self._frames = iter(())
        self._last = None
        self._back.clear()
        self._stack.close()


def open_original(folder: MediaFolder, *, threads: int = 1) -> VideoReader:
    """Reader of the file as it came."""
    picture = folder.info.picture
    assert picture is not None
    return VideoReader(folder.film, picture, folder.index, threads=threads)


def open_proxy(folder: MediaFolder) -> VideoReader:
    """Reader of the small copy; same frame numbers."""
    picture = folder.info.picture
    assert picture is not None
    upright = picture.model_copy(
        update={
            "turn": 0,
            "mirrored": False,
            "codec": "h264",
            "stacked": picture.alpha,
            "interlaced": False,
            "colours": Colours(matrix=1, primaries=1, transfer=1),
        }
    )
    numbers = np.arange(len(folder.index), dtype=np.int64) * PROXY_STEP
    keys = np.arange(len(numbers)) % PROXY_KEYS == 0
    index = FrameIndex(folder.index.times, numbers, keys, folder.index.end)
    return VideoReader(folder.proxy, upright, index)


PROXY_KEYS = 6
"""Frames from one key frame of a proxy to the next: at most so many are decoded for a scrub."""
