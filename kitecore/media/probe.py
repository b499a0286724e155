"""Finding out what a file is."""

from __future__ import annotations

import struct
from pathlib import Path
from typing import Any, Final

import av
from av.container import InputContainer
from av.sidedata.sidedata import Type
from av.video.stream import VideoStream
from PIL import Image, ImageOps

from kitecore.errors import BrokenMedia, NotMedia
from kitecore.media.clocks import clock_of
from kitecore.media.container import opened, origin_of, picture_stream, to_ticks
from kitecore.media.index import FrameIndex, build_index
from kitecore.media.info import Colours, MediaInfo, Pace, PictureInfo, SoundInfo
from kitecore.media.orientation import orientation_of
from kitecore.media.pictures import DAMAGED, open_still
from kitecore.media.sniff import STILLS, family_of
from kitecore.ticks import TICKS_PER_SECOND

MAX_PIXELS = 64_000_000
"""Largest picture that is decoded, in pixels."""

_DOUBLE_COVER = {"vp8", "vp9"}
"""Codecs whose alpha comes as a second picture that the pixel format does not tell of."""


UNREADABLE_SOUND: Final = "Its sound is coded in a way that nothing here can decode: it is silent."


def probe(path: Path) -> tuple[MediaInfo, FrameIndex | None]:
    """What the file holds, and for video when each frame is shown.

    Every claim is tried: the first picture is decoded, the first sound too.

    Raises
    ------
    NotMedia, BrokenMedia, MediaMissing
    """
    family = family_of(path)
    if family in STILLS:
        return _probe_still(path, family), None
    with opened(path) as container:
        stream = picture_stream(container)
        sound = _probe_sound(container)
        if stream is None and sound is None:
            raise NotMedia("The file holds neither picture nor sound.")
        has_sound = bool(container.streams.audio)
        sound_end = _sound_end(container)
        clock = clock_of(container, stream.average_rate if stream is not None else None)
        picture = _probe_picture(stream, container) if stream is not None else None
    if picture is None:
        if not sound_end:
            raise BrokenMedia("The sound of this file has no length.")
        info = MediaInfo(kind="sound", container=family, length=sound_end, sound=sound, clock=clock)
        return info, None
    index = build_index(path)
    picture = picture.model_copy(
        update={
            "rate": Pace(num=index.rate[0], den=index.rate[1]),
            "variable": index.variable,
            "frames": len(index),
        }
    )
    remarks = (UNREADABLE_SOUND,) if sound is None and has_sound else ()
    info = MediaInfo(
        kind="video",
        container=family,
        length=index.end,
        picture=picture,
        sound=sound,
        remarks=remarks,
        clock=clock,
    )
    return info, index


def _probe_still(path: Path, family: str) -> MediaInfo:
    try:
        with open_still(path) as image:
            if image.width * image.height > MAX_PIXELS:
                raise NotMedia(
                    f"The picture is too large ({image.width} × {image.height}).",
                    todo=f"Make it smaller than {MAX_PIXELS // 1_000_000} million pixels.",
                )
            image.load()
            alpha = image.has_transparency_data
            upright = ImageOps.exif_transpose(image)
            size = (upright.width, upright.height)
    except DAMAGED as error:
        raise BrokenMedia("The picture is damaged or incomplete.") from error
    except Image.DecompressionBombError as error:
        raise NotMedia("The picture is too large.") from error
    picture = PictureInfo(width=size[0], height=size[1], alpha=alpha, codec=family)
    return MediaInfo(kind="still", container=family, length=0, picture=picture)


def _probe_picture(stream: VideoStream, container: InputContainer) -> PictureInfo:
    context = _context_of(stream)
    if context is None:
        raise BrokenMedia("Its picture is coded in a way that nothing here can decode.")
    if context.width * context.height > MAX_PIXELS:
        raise NotMedia(f"The picture is too large ({context.width} × {context.height}).")
    frame = next(container.decode(stream), None)
    if frame is None:
        raise BrokenMedia("No picture of this video can be decoded.")
    width, height = frame.width, frame.height
    ratio = stream.sample_aspect_ratio
    if ratio and ratio != 1 and 0.1 < ratio < 10:
        width = round(width * ratio)
    turn, mirrored = orientation_of(frame)
    if turn % 180:
        width, height = height, width
    pixels = frame.format
    doubled = context.name in _DOUBLE_COVER or context.codec.canonical_name in _DOUBLE_COVER
    alpha = any(component.is_alpha for component in pixels.components)
    alpha = alpha or (doubled and stream.metadata.get("alpha_mode", "0") == "1")
    return PictureInfo(
        width=width,
        height=height,
        turn=turn,
        mirrored=mirrored,
        codec=context.codec.canonical_name,
        pixels=pixels.name,
        depth=max(component.bits for component in pixels.components),
        alpha=alpha,
        interlaced=frame.interlaced_frame,
        colours=Colours(
            matrix=int(frame.colorspace),
            primaries=int(frame.color_primaries),
            transfer=int(frame.color_trc),
            full_range=int(frame.color_range) == 2,
            peak=_peak_of(frame),
        ),
    )


def _peak_of(frame: av.VideoFrame) -> float:
    """Brightest light of the content in cd/m² (CTA-861.3, MaxCLL); 0 if it is not told."""
    data: Any = frame.side_data
    told = data.get(Type.CONTENT_LIGHT_LEVEL)
    return float(struct.unpack("<I", bytes(told)[:4])[0]) if told is not None else 0.0


def _probe_sound(container: InputContainer) -> SoundInfo | None:
    if not container.streams.audio:
        return None
    context = _context_of(container.streams.audio[0])
    if context is None or not context.sample_rate:
        return None
    return SoundInfo(
        codec=context.codec.canonical_name, rate=context.sample_rate, channels=context.channels
    )


def _context_of(stream: Any) -> Any:
    """What decodes a stream; None where its coding is unknown, whatever the types say."""
    return stream.codec_context


def _sound_end(container: InputContainer) -> int:
    """Tick at which the sound ends, by its header; 0 if that does not say."""
    if not container.streams.audio:
        return 0
    stream = container.streams.audio[0]
    if stream.duration and stream.time_base:
        start = to_ticks(stream.start_time or 0, stream.time_base) - origin_of(container)
        return start + to_ticks(stream.duration, stream.time_base)
    if container.duration:
        return container.duration * TICKS_PER_SECOND // av.time_base
    return 0
