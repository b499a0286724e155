"""Moving pictures in files of stills (GIF, WebP, APNG, AVIF), made films that can be read by number."""

from __future__ import annotations

from collections.abc import Callable
from fractions import Fraction
from pathlib import Path
from typing import Final

import av
import numpy as np
from PIL import Image

from kitecore.errors import BrokenMedia, NotMedia
from kitecore.media.folder import MediaFolder
from kitecore.media.pictures import DAMAGED, open_still
from kitecore.media.sniff import STILLS, family_of
from kitecore.media.whole import whole_file

MOST_PIXELS: Final = 6_000_000_000
"""Of all pictures of a file together."""
SHORTEST: Final = 11
"""Milliseconds below which pictures are shown for `UNTOLD`, as browsers do."""
UNTOLD: Final = 100
_BASE: Final = Fraction(1, 1000)


def is_moving(path: Path) -> bool:
    """Whether a file of a kind that holds stills holds several pictures, one after another."""
    if family_of(path) not in STILLS:
        return False
    try:
        with open_still(path) as image:
            return bool(getattr(image, "is_animated", False)) and getattr(image, "n_frames", 1) > 1
    except (*DAMAGED, Image.DecompressionBombError):
        return False


def unfold(folder: MediaFolder, progress: Callable[[float], None] = lambda share: None) -> bool:
    """Write all pictures of the file into `MediaFolder.unfolded`: without loss, each with its time.

    Returns
    -------
    Whether any of them is seen through.

    Raises
    ------
    BrokenMedia
        If they cannot be decoded.
    NotMedia
        If there are too many.
    """
    try:
        with open_still(folder.original) as image, whole_file(folder.unfolded) as unfinished:
            count = getattr(image, "n_frames", 1)
            if image.width * image.height * count > MOST_PIXELS:
                raise NotMedia("This moving picture is too long for its size.")
            return _written(image, count, unfinished, progress)
    except (*DAMAGED, av.FFmpegError) as error:
        raise BrokenMedia("The pictures of this file are damaged or incomplete.") from error


def _written(image: Image.Image, count: int, path: Path, progress: Callable[[float], None]) -> bool:
    clear, at = False, 0
    with av.open(str(path), "w", format="matroska") as out:
        stream = out.add_stream("ffv1", rate=1000)
        stream.width, stream.height, stream.pix_fmt = image.width, image.height, "bgra"
        stream.codec_context.time_base = stream.time_base = _BASE
        for number in range(count):
            image.seek(number)
            pixels = np.asarray(image.convert("RGBA"))
            clear = clear or bool((pixels[..., 3] < 255).any())
            length = round(image.info.get("duration") or 0)
            length = length if length >= SHORTEST else UNTOLD
            frame = av.VideoFrame.from_ndarray(pixels, format="rgba").reformat(format="bgra")
            frame.pts, frame.time_base = at, _BASE
            for packet in stream.encode(frame):
                packet.duration = length
                out.mux(packet)
            at += length
            progress((number + 1) / count)
        out.mux(stream.encode(None))
    return clear
