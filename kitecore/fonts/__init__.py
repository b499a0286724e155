"""Fonts: ours lie here, others were brought in; for scripts that neither has, the system's."""

from __future__ import annotations

import re
from collections.abc import Callable
from dataclasses import dataclass
from pathlib import Path
from typing import Final

from kitecore.errors import NotThere

FONTS: Final = "fonts"
"""Name of the folder, beside those of takes, in which fonts lie that were brought in."""
_HERE = Path(__file__).parent
_OWN = re.compile(r"[0-9a-f]{32}")

FindFont = Callable[[str], tuple[Path, ...]]
"""From a font's name to its files, one for each style it has."""


@dataclass(frozen=True)
class ShippedFont:
    """``title`` is what people read."""

    name: str
    title: str

    @property
    def files(self) -> tuple[Path, ...]:
        styles = ("", "-bold", "-italic", "-bold-italic")
        paths = (_HERE / f"{self.name}{style}.ttf" for style in styles)
        return tuple(path for path in paths if path.exists())

    @property
    def bold(self) -> bool:
        return (_HERE / f"{self.name}-bold.ttf").exists()

    @property
    def italic(self) -> bool:
        return (_HERE / f"{self.name}-italic.ttf").exists()


SHIPPED_FONTS: Final = {
    font.name: font
    for font in (
        ShippedFont("bricolage-grotesque", "Bricolage Grotesque"),
        ShippedFont("instrument-sans", "Instrument Sans"),
        ShippedFont("fraunces", "Fraunces"),
        ShippedFont("young-serif", "Young Serif"),
        ShippedFont("caveat", "Caveat"),
        ShippedFont("bowlby-one", "Bowlby One"),
        ShippedFont("space-mono", "Space Mono"),
    )
}


def shipped_font(name: str) -> tuple[Path, ...]:
    """The files of one of our own fonts.

    Raises
    ------
    NotThere
        If there is none of that name.
    """
    if name not in SHIPPED_FONTS:
        raise NotThere("A font that a text uses is not there.", todo="Choose another font.")
    return SHIPPED_FONTS[name].files


class FontFolder:
    """Fonts that were brought in, as files named by their ids; and our own."""

    def __init__(self, path: Path) -> None:
        self.path = path

    def file(self, name: str) -> Path:
        return self.path / f"{name}.font"

    def find(self, name: str) -> tuple[Path, ...]:
        """The files of a font by name (see `shipped_font`)."""
        if _OWN.fullmatch(name) and self.file(name).exists():
            return (self.file(name),)
        return shipped_font(name)


_SYSTEM: Final = Path("/usr/share/fonts/truetype")
_FIRST: Final = ("NotoSans-", "NotoSansArabic-", "NotoSansHebrew-", "NotoSansDevanagari-")


def fallbacks() -> tuple[Path, ...]:
    """Fonts of the system for all other scripts, the ones with the most readers first."""
    noto = sorted(
        path
        for weight in ("Regular", "Bold")
        for path in _SYSTEM.glob(f"noto/NotoSans*-{weight}.ttf")
        if "Display" not in path.name
    )
    first = [path for path in noto if path.name.startswith(_FIRST)]
    rest = [path for path in noto if path not in first]
    others = ("droid/DroidSansFallbackFull.ttf", "nanum/NanumGothic.ttf", "noto/NotoColorEmoji.ttf")
    wide = [_SYSTEM / name for name in others if (_SYSTEM / name).exists()]
    return (*first, *wide, *rest)
