"""The picture by which a file is shown in lists of files."""

from __future__ import annotations

import io
from fractions import Fraction
from typing import Final

import av
from av.container import OutputContainer
from av.stream import Disposition
from av.video.stream import VideoStream
from PIL import Image

from kitecore.render.making.drawing import picture
from kitecore.render.making.work import Work
from kitecore.render.sources import Sources

_LARGEST: Final = 720
"""Pixels of its longer side."""


class Cover:
    """A frame of the film as the cover of a file; its place is made first, then it is written."""

    def __init__(self, out: OutputContainer, work: Work, tick: int, sources: Sources) -> None:
        image = Image.fromarray(picture(work, tick, sources)).convert("RGB")
        image.thumbnail((_LARGEST, _LARGEST), Image.Resampling.LANCZOS)
        self._out, self._image = out, image
        stream = out.add_stream("mjpeg")
        assert isinstance(stream, VideoStream)
        stream.width, stream.height = image.size
        stream.pix_fmt = "yuvj420p"
        stream.disposition = Disposition.attached_pic
        self._stream = stream

    def write(self) -> None:
        """Before anything else is."""
        coded = io.BytesIO()
        self._image.save(coded, "JPEG", quality=88)
        self._out.start_encoding()
        packet = av.Packet(coded.getvalue())
        packet.stream, packet.time_base = self._stream, Fraction(1, 1000)
        packet.pts = packet.dts = 0
        packet.is_keyframe = True
        self._out.mux(packet)
