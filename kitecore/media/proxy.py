"""The small copy of a video that previews are made from."""

from __future__ import annotations

from collections.abc import Callable
from contextlib import closing
from fractions import Fraction

import av

from kitecore.media.folder import MediaFolder
from kitecore.media.hdr import HDR_TRANSFERS
from kitecore.media.info import MediaInfo, PictureInfo
from kitecore.media.pixels import fitting, planes_of, stacked, to_rgba
from kitecore.media.planes import upright_planes
from kitecore.media.reader import PROXY_BASE, PROXY_KEYS, PROXY_STEP, open_original
from kitecore.media.shots import Shots
from kitecore.media.whole import whole_file

PROXY_SIDE = 960
"""Pixels of a proxy's longer side."""
PROXY_VERSION = 1
"""Goes up when proxies get other pictures; since 1, HDR is shown by its tone curve."""

_OPTIONS = {"preset": "ultrafast", "crf": "22", "bf": "0", "sc_threshold": "0"}
_DEEP = {**_OPTIONS, "crf": "15"}
"""For takes of more than 8 bits: often log, whose small differences grow when they are graded."""


def make_proxy(folder: MediaFolder, progress: Callable[[float], None] = lambda share: None) -> None:
    """Decode the take once and write its proxy, and where its shots begin.

    Alpha is kept beside the colours.
    """
    picture, index = folder.info.picture, folder.index
    assert picture is not None
    width, height = fitting(picture.width, picture.height, PROXY_SIDE)
    deep = picture.depth > 8 and not (picture.turn or picture.mirrored or picture.alpha)
    pixels = "yuv420p10le" if deep else "yuv420p"
    shots = Shots()
    with (
        closing(open_original(folder, threads=2)) as reader,
        whole_file(folder.proxy) as unfinished,
        av.open(str(unfinished), "w", format="mp4") as out,
    ):
        options = _DEEP if deep else _OPTIONS
        stream = out.add_stream("libx264", rate=PROXY_BASE // PROXY_STEP, options=options)
        stream.width, stream.height = width, height * (2 if picture.alpha else 1)
        stream.pix_fmt = pixels
        stream.gop_size = PROXY_KEYS
        stream.codec_context.time_base = Fraction(1, PROXY_BASE)
        stream.time_base = Fraction(1, PROXY_BASE)
        for number in range(len(index)):
            small = _small(reader.frame(number), picture, (width, height), pixels)
            shots.look(small)
            small.pts, small.time_base = number * PROXY_STEP, Fraction(1, PROXY_BASE)
            small.pict_type = av.video.frame.PictureType.NONE
            out.mux(stream.encode(small))
            progress((number + 1) / len(index))
        out.mux(stream.encode(None))
    shots.save(folder.shots_file)


def is_outdated(info: MediaInfo) -> bool:
    """Whether a take's proxy shows something else than one that is made now would."""
    picture = info.picture
    hdr = picture is not None and picture.colours.transfer in HDR_TRANSFERS
    return info.kind == "video" and hdr and info.proxy < PROXY_VERSION


def _small(
    frame: av.VideoFrame, picture: PictureInfo, size: tuple[int, int], pixels: str
) -> av.VideoFrame:
    if picture.alpha:
        return stacked(to_rgba(frame, picture, size))
    return upright_planes(planes_of(frame, picture, size, pixels), picture)
