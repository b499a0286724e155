"""What a file is, by its first bytes. A cheap gate before any decoder sees it."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path
from typing import Final

from kitecore.errors import NotMedia

HEAD = 256
"""Bytes that `sniff` wants to see."""

_BRANDS_OF_STILLS: Final = {
    b"avif": "avif",
    b"avis": "avif",
    b"heic": "heif",
    b"heix": "heif",
    b"heim": "heif",
    b"heis": "heif",
    b"mif1": "heif",
}
"""Families of pictures by the main brand of their file (ISO/IEC 23008-12)."""


def sniff(head: bytes) -> str:
    """Family of container: ``mp4``, ``matroska``, ``png``, ``wav`` and so on.

    Raises
    ------
    NotMedia
        If the bytes are of nothing we take.
    """
    if head[4:8] in (b"ftyp", b"moov", b"mdat", b"wide", b"free", b"skip"):
        return _BRANDS_OF_STILLS.get(head[8:12], "mp4")
    if head[:4] == b"RIFF":
        family = {b"WAVE": "wav", b"WEBP": "webp", b"AVI ": "avi"}.get(head[8:12])
        if family:
            return family
    for magic, family in _MAGIC:
        if head.startswith(magic):
            return family
    if any(_is_stream(head[start:], packet) for start, packet in _STREAMS):
        return "mpegts"
    if len(head) > 1 and head[0] == 0xFF and head[1] & 0xE6 in (0xE2, 0xE4):
        return "mp3"
    if len(head) > 1 and head[0] == 0xFF and head[1] & 0xF6 == 0xF0:
        return "aac"
    for signs, told in _NO_TAKES:
        if any(sign in head for sign in signs):
            raise told()
    raise NotMedia("This is not a video, picture or sound file that can be used here.")


def _is_stream(head: bytes, packet: int) -> bool:
    """Whether packets of a transport stream (ISO/IEC 13818-1, 2.4.3.2) begin here and after it."""
    return len(head) > packet and head[0] == head[packet] == 0x47


_STREAMS: Final = ((0, 188), (4, 192))
"""Where packets begin and how long they are: as sent, and as camcorders keep them."""


def family_of(path: Path) -> str:
    """Family of container of a file. Raises as `sniff`."""
    with path.open("rb") as file:
        return sniff(file.read(HEAD))


_MAGIC: Final = (
    (b"\x1a\x45\xdf\xa3", "matroska"),
    (b"\x89PNG\r\n\x1a\n", "png"),
    (b"\xff\xd8\xff", "jpeg"),
    (b"OggS", "ogg"),
    (b"fLaC", "flac"),
    (b"ID3", "mp3"),
    (b"RF64", "wav"),
    (b"GIF8", "gif"),
)

_NO_TAKES: Final[tuple[tuple[tuple[bytes, ...], Callable[[], NotMedia]], ...]] = (
    (
        (b"<svg", b"<!DOCTYPE svg"),
        lambda: NotMedia(
            "This is a drawing, not a take.", todo="In Layer choose + Layer, then Drawing (SVG)."
        ),
    ),
    (
        (b"WEBVTT", b" --> "),
        lambda: NotMedia(
            "These are captions, not a take.", todo="In Send bring them in under Captions."
        ),
    ),
    (
        (b"OTIO_SCHEMA",),
        lambda: NotMedia("This is a timeline, not a take.", todo="In Send choose Take one over."),
    ),
)
"""What comes into a project elsewhere: signs of it, and what is said of it."""

STILLS: Final = frozenset({"png", "jpeg", "webp", "avif", "heif", "gif"})
