"""Fonts that people bring in: looked into without being drawn."""

from __future__ import annotations

import io
from typing import Final

from fontTools.ttLib import TTFont

from kitecore.errors import BadInput

MOST_BYTES: Final = 24 * 2**20
_NEEDED: Final = ("cmap", "head", "hhea", "hmtx", "maxp", "name")
_KINDS: Final = (b"\x00\x01\x00\x00", b"OTTO", b"true")


def title_of_font(data: bytes) -> str:
    """Name of the family of a TrueType or OpenType font.

    Raises
    ------
    BadInput
        If it is none, or lacks what is needed to set text.
    """
    if data[:4] not in _KINDS:
        raise BadInput(
            "This file is no TrueType or OpenType font.", todo="Bring in a TTF or OTF file."
        )
    try:
        font = TTFont(io.BytesIO(data), lazy=True)
        missing = [table for table in _NEEDED if table not in font]
        title = font["name"].getBestFamilyName() if not missing else None
        letters = len(font.getBestCmap() or ())
    except Exception as error:
        raise BadInput(
            "This font is damaged.", todo="Fetch it once more, then try again."
        ) from error
    if missing or not letters:
        raise BadInput("This font lacks what is needed to set text.")
    return (title or "Font")[:200]
