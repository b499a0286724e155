"""Baked tables of colours, kept while they are of use."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any, Final, TypeVar

from kitecore.colour.cube import FindLook
from kitecore.colour.planes import (
    DRAFT_CHROMA,
    FINE_CHROMA,
    PlaneTable,
    RgbaTable,
    bake_planes,
    bake_rgba,
)
from kitecore.colour.table import DRAFT, FINE, Pixels, Table, bake, bake_matte
from kitecore.document import Grade, Model, Zone
from kitecore.document.grade import Lut
from kitecore.kept import Kept

KEPT_TABLES: Final = 32

T = TypeVar("T")


class Tables:
    """Of grades without keys; smaller ones for a draft."""

    def __init__(self, find: FindLook, *, draft: bool) -> None:
        self.find = find
        self._size = DRAFT if draft else FINE
        self._chroma = DRAFT_CHROMA if draft else FINE_CHROMA
        self._kept: Kept[Any] = Kept(KEPT_TABLES)

    def of(self, grade: Grade) -> Table:
        """For any colours."""
        return self._get("", grade, lambda: bake(grade, self.find, self._size))

    def of_look(self, look: str) -> Callable[[Pixels], Pixels]:
        """How to bring premultiplied RGBA through a look alone.

        Raises
        ------
        NotThere
            If there is no look of that name.
        """
        return self.of(Grade(lut=Lut(look=look))).over

    def of_planes(self, grade: Grade) -> PlaneTable:
        """For the planes of a video that passes as it is."""
        return self._get("planes", grade, lambda: bake_planes(grade, self.find, self._chroma))

    def to_rgba(self, grade: Grade) -> RgbaTable:
        """For the planes of a video that becomes a layer."""
        return self._get("rgba", grade, lambda: bake_rgba(grade, self.find, self._chroma))

    def matte(self, zone: Zone) -> Table:
        """Which colours the ranges of a zone mean."""
        ranges = Zone(id="ranges", brightness=zone.brightness, hues=zone.hues)
        return self._get("matte", ranges, lambda: bake_matte(zone, self._size))

    def _get(self, kind: str, meant: Model, make: Callable[[], T]) -> T:
        found: T = self._kept.get((kind, meant.model_dump_json()), make)
        return found
