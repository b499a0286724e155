"""A take as a document of its own, so that the take viewer plays it like a project."""

from __future__ import annotations

from kitecore.document import (
    Canvas,
    ClipBase,
    Document,
    SoundClip,
    StillClip,
    Track,
    VideoClip,
)
from kitecore.errors import MediaMissing
from kitecore.media.info import MediaInfo
from kitecore.media.pixels import fitting
from kitecore.ticks import TICKS_PER_SECOND
from studio.library.models import Take

STILL_LENGTH = 3 * TICKS_PER_SECOND


def document_of_take(take: Take) -> Document:
    """One clip with all of the take, on a canvas of its shape, at the rate nearest to its own.

    Raises
    ------
    MediaMissing
        If the take has not been looked at yet, or was refused.
    """
    if take.facts is None:
        raise MediaMissing("This take is not ready to be watched.", todo="Wait a moment.")
    info = MediaInfo.model_validate(take.facts)
    rate = info.nearest_project_rate()
    canvas = Canvas(width=1280, height=320)
    if info.picture is not None:
        width, height = fitting(info.picture.width, info.picture.height, 4096)
        canvas = Canvas(width=max(16, width), height=max(16, height))
    step = rate.exact.frame_ticks
    length = max(step, (info.length or STILL_LENGTH) // step * step)
    kind = "sound" if info.kind == "sound" else "main"
    track = Track(id="take", kind=kind, clips=(_clip(take, info, length),))
    main = () if kind == "main" else (Track(id="main", kind="main"),)
    return Document(canvas=canvas, rate=rate, tracks=(*main, track))


def _clip(take: Take, info: MediaInfo, length: int) -> ClipBase:
    media, source = take.id.hex, max(info.length, length)
    if info.kind == "still":
        return StillClip(id="clip", media=media, length=length)
    if info.kind == "sound":
        return SoundClip(id="clip", media=media, length=length, source_length=source)
    return VideoClip(id="clip", media=media, length=length, source_length=source)
