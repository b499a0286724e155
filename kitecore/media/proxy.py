"""The small copy of a video that previews are made from."""

from __future__ import annotations

from collections.abc import Callable
from contextlib import closing
from fractions import Fraction

import av

from kitecore.media.folder import MediaFolder
from kitecore.media.pixels import fitting, scaled
from kitecore.media.planes import upright_planes
from kitecore.media.reader import PROXY_BASE, PROXY_KEYS, PROXY_STEP, open_original
from kitecore.media.whole import whole_file

PROXY_SIDE = 960
"""Pixels of a proxy's longer side."""

_OPTIONS = {"preset": "ultrafast", "crf": "22", "bf": "0", "sc_threshold": "0"}
_DEEP = {**_OPTIONS, "crf": "15"}
"""For takes of more than 8 bits: often log, whose small differences grow when they are graded."""


def make_proxy(folder: MediaFolder, progress: Callable[[float], None] = lambda share: None) -> None:
    """Decode the take once and write its proxy.

    A take with alpha gets none (H.264 has no alpha): it is always read from the original.
    """
    picture, index = folder.info.picture, folder.index
    assert picture is not None
    if picture.alpha:
        return
    width, height = fitting(picture.width, picture.height, PROXY_SIDE)
    deep = picture.depth > 8 and not (picture.turn or picture.mirrored)
    pixels = "yuv420p10le" if deep else "yuv420p"
    with (
        closing(open_original(folder, threads=2)) as reader,
        whole_file(folder.proxy) as unfinished,
        av.open(str(unfinished), "w", format="mp4") as out,
    ):
        options = _DEEP if deep else _OPTIONS
        stream = out.add_stream("libx264", rate=PROXY_BASE // PROXY_STEP, options=options)
        stream.width, stream.height, stream.pix_fmt = width, height, pixels
        stream.gop_size = PROXY_KEYS
        stream.codec_context.time_base = Fraction(1, PROXY_BASE)
        stream.time_base = Fraction(1, PROXY_BASE)
        for number in range(len(index)):
            small = scaled(reader.frame(number), picture, (width, height), pixels)
            small = upright_planes(small, picture)
            small.pts, small.time_base = number * PROXY_STEP, Fraction(1, PROXY_BASE)
            small.pict_type = av.video.frame.PictureType.NONE
            out.mux(stream.encode(small))
            progress((number + 1) / len(index))
        out.mux(stream.encode(None))
