"""Where the files of angles lie in time."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Literal

from pydantic import Field

from kitecore.document import Document, Model, MulticamClip
from kitecore.document.model import Tick
from kitecore.edits._angles import angles_of, open_multicam, require_angle, with_angles
from kitecore.edits._base import edit_kinds, seconds_label
from kitecore.edits._files import files_of, moved
from kitecore.edits.angles import Index, OfMulticam
from kitecore.errors import EditRefused


class AnglePlace(Model):
    """Where tick 0 of a file lies, in the time of the multicam clip."""

    angle: Index
    file: int = Field(default=0, ge=0, lt=500)
    at: Tick


@edit_kinds.register("line_up")
class LineUp(OfMulticam):
    """Files of angles take places in time; switches stay where they are."""

    kind: Literal["line_up"] = "line_up"
    places: tuple[AnglePlace, ...] = Field(min_length=1, max_length=500)

    def label(self) -> str:
        many = len({place.angle for place in self.places})
        return "Line up an angle" if many == 1 else f"Line up {many} angles"

    def apply(self, document: Document) -> Document:
        clip = open_multicam(document, self.clip)
        moves: dict[int, dict[str, int]] = {}
        for place in self.places:
            require_angle(clip, place.angle)
            files = files_of(clip.angle(place.angle))
            if place.file >= len(files):
                raise EditRefused("There is no such file in this angle.")
            file = files[place.file]
            moves.setdefault(place.angle, {})[file.clip.id] = place.at - file.at
        return _moved(document, clip, moves)


@edit_kinds.register("nudge_angle")
class NudgeAngle(OfMulticam):
    """An angle comes later by ``by`` ticks, earlier below 0; that may be less than a frame."""

    kind: Literal["nudge_angle"] = "nudge_angle"
    angle: Index
    by: Tick

    def label(self) -> str:
        return f"Nudge an angle by {seconds_label(self.by)}"

    def apply(self, document: Document) -> Document:
        clip = open_multicam(document, self.clip)
        require_angle(clip, self.angle)
        files = files_of(clip.angle(self.angle))
        return _moved(document, clip, {self.angle: {one.clip.id: self.by for one in files}})


def _moved(
    document: Document, clip: MulticamClip, moves: Mapping[int, Mapping[str, int]]
) -> Document:
    """With files of angles, by index and id, so many ticks later; what stays is as it was."""
    angles, step = angles_of(clip), document.rate.exact.frame_ticks
    for index, by in moves.items():
        if any(by.values()):
            angles[index] = angles[index].holding(moved(angles[index].group, by, step))
    return with_angles(document, clip, angles)
