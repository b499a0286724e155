"""The picture by which a file is shown in lists of files."""

from __future__ import annotations

import io
from fractions import Fraction
from typing import Final, Literal

import av
from av.container import OutputContainer
from av.stream import Disposition
from av.video.stream import VideoStream
from PIL import Image

from kitecore.render.making.drawing import picture
from kitecore.render.making.work import Work
from kitecore.render.sources import Sources

CoverIn = Literal["", "stream", "atoms"]
"""Where a container has its cover: nowhere, as a stream of its own, or in its atoms."""
_LARGEST: Final = 720
"""Pixels of its longer side."""


def cover_of(work: Work, tick: int, sources: Sources) -> Image.Image:
    """A frame of the film as it is seen in a list."""
    image = Image.fromarray(picture(work, tick, sources)).convert("RGB")
    image.thumbnail((_LARGEST, _LARGEST), Image.Resampling.LANCZOS)
    return image


def jpeg_of(image: Image.Image) -> bytes:
    coded = io.BytesIO()
    image.save(coded, "JPEG", quality=88)
    return coded.getvalue()


def atoms_of(where: CoverIn, work: Work, sources: Sources) -> bytes:
    """The cover as a JPEG that is written into a file's atoms, if that is its place and it has one."""
    if work.cover is None or where != "atoms":
        return b""
    return jpeg_of(cover_of(work, work.cover, sources))


class Cover:
    """A frame of the film as the cover of a file; its place is made first, then it is written."""

    def __init__(self, out: OutputContainer, work: Work, tick: int, sources: Sources) -> None:
        self._out, self._image = out, cover_of(work, tick, sources)
        image = self._image
        stream = out.add_stream("mjpeg")
        assert isinstance(stream, VideoStream)
        stream.width, stream.height = image.size
        stream.pix_fmt = "yuvj420p"
        stream.disposition = Disposition.attached_pic
        self._stream = stream

    def write(self) -> None:
        """Before anything else is."""
        self._out.start_encoding()
        packet = av.Packet(jpeg_of(self._image))
        packet.stream, packet.time_base = self._stream, Fraction(1, 1000)
        packet.pts = packet.dts = 0
        packet.is_keyframe = True
        self._out.mux(packet)
