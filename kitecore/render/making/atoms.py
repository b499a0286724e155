"""What files of the MP4 family say about themselves, written into them when they are whole."""

from __future__ import annotations

from pathlib import Path
from typing import Final

_FREE: Final = "----:com.apple.iTunes:"
"""The space of names in which ReplayGain 2.0 has its tags."""


def write_atoms(path: Path, tags: dict[str, str], cover: bytes = b"") -> None:
    """Tags and, if it is given, a JPEG as the cover; what else a file holds stays where it is found."""
    if not tags and not cover:
        return
    # Brought in only where it is needed.
    from mutagen.mp4 import MP4, MP4Cover, MP4FreeForm

    file = MP4(path)
    if file.tags is None:
        file.add_tags()
    for name, value in tags.items():
        file[_FREE + name.lower()] = [MP4FreeForm(value.encode())]
    if cover:
        file["covr"] = [MP4Cover(cover, MP4Cover.FORMAT_JPEG)]
    file.save()
