"""Fonts as Skia knows them, opened once."""

from __future__ import annotations

from functools import lru_cache
from pathlib import Path

import skia

from kitecore.fonts import FindFont, fallbacks

_layout = skia.textlayout


class Typefaces:
    """A collection for text layout, to which fonts are added when they are first used."""

    def __init__(self, find: FindFont) -> None:
        self._find = find
        self._known: set[str] = set()
        self._provider = _layout.TypefaceFontProvider()
        self._fallbacks: list[str] = []
        for path in fallbacks():
            self._register(path, family := _family(path))
            if family not in self._fallbacks:
                self._fallbacks.append(family)
        self.collection = _layout.FontCollection()
        self.collection.setDefaultFontManager(self._provider)
        self.unicode = skia.Unicodes.ICU.Make()

    def families(self, font: str) -> list[str]:
        """Names under which a font, and what stands in for letters it lacks, are to be asked for."""
        if font not in self._known:
            for path in self._find(font):
                self._register(path, font)
            self._known.add(font)
        return [font, *self._fallbacks]

    def _register(self, path: Path, alias: str) -> None:
        typeface = skia.Typeface.MakeFromFile(str(path))
        if typeface is not None:
            self._provider.registerTypeface(typeface, alias)


def _family(path: Path) -> str:
    return path.stem.split("-")[0]


@lru_cache(maxsize=8)
def typefaces(find: FindFont) -> Typefaces:
    """The collection of a finder, made once."""
    return Typefaces(find)
