"""Grades of clips, and their zones."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any, Literal, TypeVar

from pydantic import Field

from kitecore.document import Document, Grade, Id, Pictured, Zone, derived_id
from kitecore.document.grade import MOST_ZONES
from kitecore.edits._base import EditBase, count, edit_kinds, open_clips
from kitecore.edits._properties import with_values
from kitecore.edits._rows import reordered
from kitecore.errors import EditRefused, NotThere

M = TypeVar("M", Grade, Zone)


@edit_kinds.register("set_grade")
class SetGrade(EditBase):
    """Set values of grades by path, e.g. ``{"light/exposure": 0.5, "curves/on": false}``.

    With ``zone`` of that zone, where ``adjust/light/exposure`` is its grade and ``masks`` its masks.
    Clips without a picture stay as they are, as long as one has one.
    """

    kind: Literal["set_grade"] = "set_grade"
    clips: tuple[Id, ...]
    values: dict[str, Any]
    zone: Id | None = None

    def label(self) -> str:
        if all(path.startswith("masks/") for path in self.values):
            return "Change a mask of a zone"
        words = {path.split("/")[-1].replace("_", " ") for path in self.values}
        return f"Grade: {', '.join(sorted(words))}"

    def apply(self, document: Document) -> Document:
        if self.zone is None:
            return _graded(document, self.clips, lambda grade: _with_values(grade, self.values))
        zone = self.zone
        return _graded(
            document, self.clips, lambda grade: _with_zone(grade, zone, self.values), zone
        )


@edit_kinds.register("replace_grade")
class ReplaceGrade(EditBase):
    """Another grade for clips, or none."""

    kind: Literal["replace_grade"] = "replace_grade"
    clips: tuple[Id, ...]
    grade: Grade | None = None
    name: str = Field(default="", max_length=200)

    def label(self) -> str:
        if self.grade is None:
            return f"Take the grade off {count(self.clips)}"
        return f"Grade {count(self.clips)}" + (f" with “{self.name}”" if self.name else "")

    def apply(self, document: Document) -> Document:
        return _graded(document, self.clips, lambda before: self.grade)


@edit_kinds.register("add_zone")
class AddZone(EditBase):
    """A further grade on clips; it works after the zones that are there."""

    kind: Literal["add_zone"] = "add_zone"
    clips: tuple[Id, ...]
    zone: Zone

    def label(self) -> str:
        return f"Add the zone “{self.zone.name}”" if self.zone.name else "Add a zone"

    def apply(self, document: Document) -> Document:
        new = self.zone.model_copy(update={"id": derived_id(self.seed, 0)})

        def added(grade: Grade) -> Grade:
            if len(grade.zones) >= MOST_ZONES:
                raise EditRefused(f"A clip has at most {MOST_ZONES} zones.")
            return grade.model_copy(update={"zones": (*grade.zones, new)})

        return _graded(document, self.clips, added)


@edit_kinds.register("remove_zone")
class RemoveZone(EditBase):
    kind: Literal["remove_zone"] = "remove_zone"
    clips: tuple[Id, ...]
    zone: Id

    def label(self) -> str:
        return "Remove a zone"

    def apply(self, document: Document) -> Document:
        def removed(grade: Grade) -> Grade:
            left = tuple(zone for zone in grade.zones if zone.id != self.zone)
            return grade.model_copy(update={"zones": left})

        return _graded(document, self.clips, removed, self.zone)


@edit_kinds.register("order_zone")
class OrderZone(EditBase):
    """Let a zone work earlier or later, as the one at index ``to``."""

    kind: Literal["order_zone"] = "order_zone"
    clips: tuple[Id, ...]
    zone: Id
    to: int = Field(ge=0, lt=MOST_ZONES)

    def label(self) -> str:
        return "Reorder zones"

    def apply(self, document: Document) -> Document:
        def ordered(grade: Grade) -> Grade:
            zones = reordered(grade.zones, self.zone, self.to)
            return grade.model_copy(update={"zones": zones})

        return _graded(document, self.clips, ordered, self.zone)


def _graded(
    document: Document,
    clips: tuple[str, ...],
    change: Callable[[Grade], Grade | None],
    zone: str | None = None,
) -> Document:
    """With the grades of clips changed; of those that have a ``zone``, if one is named.

    Clips that are parts of one clip, or were graded alike, have zones of the same id.
    """
    pictured = [clip for _, clip in open_clips(document, clips) if isinstance(clip, Pictured)]
    if not pictured:
        raise EditRefused("What is in hand has no picture to be graded.")
    if zone is not None:
        pictured = [clip for clip in pictured if clip.grade and _has(clip.grade, zone)]
        if not pictured:
            raise NotThere("That zone is not there any more.")
    for clip in pictured:
        grade = change(clip.grade or Grade())
        kept = None if grade == Grade() else grade
        document = document.with_clip(clip.model_copy(update={"grade": kept}))
    return document


def _has(grade: Grade, zone_id: str) -> bool:
    return any(zone.id == zone_id for zone in grade.zones)


def _find(grade: Grade, zone_id: str) -> Zone:
    return next(zone for zone in grade.zones if zone.id == zone_id)


def _with_zone(grade: Grade, zone_id: str, values: dict[str, Any]) -> Grade:
    changed = _with_values(_find(grade, zone_id), values)
    zones = tuple(changed if zone.id == zone_id else zone for zone in grade.zones)
    return grade.model_copy(update={"zones": zones})


def _with_values(model: M, values: dict[str, Any]) -> M:
    """The model with values set by path, but for those that other edits take care of."""
    for path in values:
        if path.split("/")[-1] in ("id", "zones"):
            raise EditRefused(f"A grade has no “{path}”.")
    return with_values(model, values)
