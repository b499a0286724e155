"""The small copy of a video that previews are made from, its strip and its poster, in one pass."""

from __future__ import annotations

from collections.abc import Callable
from fractions import Fraction

import av

from kitecore.media.folder import MediaFolder
from kitecore.media.pixels import fitting, scaled, to_rgba
from kitecore.media.planes import upright_planes
from kitecore.media.reader import PROXY_BASE, PROXY_KEYS, PROXY_STEP, open_original
from kitecore.media.strips import StripMaker, over_ground

PROXY_SIDE = 960
"""Pixels of a proxy's longer side."""

_OPTIONS = {"preset": "ultrafast", "crf": "22", "bf": "0", "sc_threshold": "0"}
_DEEP = {**_OPTIONS, "crf": "15"}
"""For takes of more than 8 bits: often log, whose small differences grow when they are graded."""


def make_proxy(folder: MediaFolder, progress: Callable[[float], None] = lambda share: None) -> None:
    """Decode the take once and write proxy, strip and poster.

    A take with alpha gets no proxy (H.264 has no alpha): it is always read from the original.
    """
    picture, index = folder.info.picture, folder.index
    assert picture is not None
    width, height = fitting(picture.width, picture.height, PROXY_SIDE)
    strip = StripMaker(folder, width, height, index.end)
    reader = open_original(folder, threads=2)
    unfinished = folder.proxy.with_suffix(".part")
    try:
        with av.open(str(unfinished), "w", format="mp4") as out:
            deep = picture.depth > 8 and not picture.turn
            pixels = "yuv420p10le" if deep else "yuv420p"
            options = _DEEP if deep else _OPTIONS
            stream = out.add_stream("libx264", rate=PROXY_BASE // PROXY_STEP, options=options)
            stream.width, stream.height, stream.pix_fmt = width, height, pixels
            stream.gop_size = PROXY_KEYS
            stream.codec_context.time_base = Fraction(1, PROXY_BASE)
            stream.time_base = Fraction(1, PROXY_BASE)
            for number in range(len(index)):
                frame = reader.frame(number)
                tick = int(index.times[number])
                if strip.wants(tick):
                    strip.offer(tick, over_ground(to_rgba(frame, picture, (width, height))))
                if not picture.alpha:
                    small = upright_planes(
                        scaled(frame, picture, (width, height), pixels), picture.turn
                    )
                    small.pts, small.time_base = number * PROXY_STEP, Fraction(1, PROXY_BASE)
                    small.pict_type = av.video.frame.PictureType.NONE
                    out.mux(stream.encode(small))
                progress((number + 1) / len(index))
            out.mux(stream.encode(None))
    finally:
        reader.close()
    strip.write()
    if picture.alpha:
        unfinished.unlink()
    else:
        unfinished.replace(folder.proxy)
