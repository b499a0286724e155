"""The sample shelf: the stand-in for a device's gallery. Files of our own, made by program."""

from __future__ import annotations

from pathlib import Path

import av
from django.conf import settings
from PIL import Image

from kitecore.errors import NotThere

_KINDS = {
    ".mp4": "video", ".mov": "video", ".webm": "video", ".mkv": "video",
    ".png": "still", ".jpg": "still", ".webp": "still",
    ".wav": "sound", ".flac": "sound", ".ogg": "sound", ".mp3": "sound",
}  # fmt: skip
_SIDE = 240
SOUND_TYPES = {
    ".wav": "audio/wav", ".flac": "audio/flac", ".ogg": "audio/ogg", ".mp3": "audio/mpeg",
}  # fmt: skip


def _folder() -> Path:
    return Path(settings.DATA_DIR) / "demo"


def files() -> list[Path]:
    """All of them, by name; none before the demo was made."""
    if not _folder().exists():
        return []
    return sorted(path for path in _folder().iterdir() if path.suffix in _KINDS)


def kind_of(path: Path) -> str:
    return _KINDS[path.suffix]


def path_of(name: str) -> Path:
    """The file of this name; names are only ever compared, never made into a path."""
    for path in files():
        if path.name == name:
            return path
    raise NotThere("That sample is not there.")


def picture_of(name: str) -> Path:
    """A small JPEG of a sample, made when it is first asked for."""
    path = path_of(name)
    made = Path(settings.CACHE_DIR) / "samples" / f"{path.name}.jpg"
    if not made.exists():
        if kind_of(path) == "sound":
            raise NotThere("A sound has no picture.")
        made.parent.mkdir(parents=True, exist_ok=True)
        picture = _frame(path) if kind_of(path) == "video" else Image.open(path)
        picture.thumbnail((_SIDE, _SIDE))
        grey = Image.new("RGB", picture.size, (40, 36, 44))
        cover = picture.convert("RGBA")
        grey.paste(cover, mask=cover.getchannel("A"))
        grey.save(made, "JPEG", quality=80)
    return made


def _frame(path: Path) -> Image.Image:
    with av.open(str(path)) as container:
        stream = container.streams.video[0]
        if stream.duration and stream.time_base:
            container.seek(int(stream.duration * 0.4), stream=stream)
        return next(container.decode(stream)).to_image()
