"""Where the files of angles lie in time."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from typing import Annotated, Literal, TypeVar

from pydantic import Field

from kitecore.document import Document, GroupClip, Model, MulticamClip
from kitecore.edits._angles import angles_of, open_multicam, require_angle, with_angles
from kitecore.edits._base import edit_kinds, seconds_label
from kitecore.edits._files import MOST_DRIFT, Clock, Placed, clocked, drift_of, files_of, moved
from kitecore.edits.angles import Index, OfMulticam
from kitecore.errors import EditRefused
from kitecore.model import Start, Tick

T = TypeVar("T")


class AnglePlace(Model):
    """Where tick 0 of a file lies, in the time of the multicam clip."""

    angle: Index
    file: int = Field(default=0, ge=0, lt=500)
    at: Tick


@edit_kinds.register("line_up")
class LineUp(OfMulticam):
    """Files of angles take places in time; switches stay where they are.

    They run by their own clocks again, by which places are found.
    """

    kind: Literal["line_up"] = "line_up"
    places: tuple[AnglePlace, ...] = Field(min_length=1, max_length=500)

    def label(self) -> str:
        many = len({place.angle for place in self.places})
        return "Line up an angle" if many == 1 else f"Line up {many} angles"

    def apply(self, document: Document) -> Document:
        clip = open_multicam(document, self.clip)
        moves: dict[int, dict[str, int]] = {}
        clocks: dict[int, dict[str, Clock]] = {}
        for place in self.places:
            file = _file(clip, place.angle, place.file)
            moves.setdefault(place.angle, {})[file.clip.id] = place.at - file.at
            if drift_of(file.clip):
                clocks.setdefault(place.angle, {})[file.clip.id] = Clock(0.0)
        document = _changed(document, clip, clocks, clocked)
        return _moved(document, open_multicam(document, self.clip), moves)


class FileClock(Model):
    """How much faster the clock of a file ran, as a share of one; at tick ``held`` it lies right."""

    angle: Index
    file: int = Field(default=0, ge=0, lt=500)
    drift: Annotated[float, Field(ge=-MOST_DRIFT, le=MOST_DRIFT)]
    held: Start = 0


@edit_kinds.register("even_clocks")
class EvenClocks(OfMulticam):
    """Take the drift of clocks out of files; with a drift of 0 they run as recorded again."""

    kind: Literal["even_clocks"] = "even_clocks"
    clocks: tuple[FileClock, ...] = Field(min_length=1, max_length=500)

    def label(self) -> str:
        out = any(one.drift for one in self.clocks)
        return "Take drift out" if out else "Leave drift in"

    def apply(self, document: Document) -> Document:
        clip = open_multicam(document, self.clip)
        clocks: dict[int, dict[str, Clock]] = {}
        for one in self.clocks:
            file = _file(clip, one.angle, one.file)
            if drift_of(file.clip) != one.drift:
                clock = Clock(one.drift, one.held)
                clocks.setdefault(one.angle, {})[file.clip.id] = clock
        return _changed(document, clip, clocks, clocked)


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


def _file(clip: MulticamClip, angle: int, file: int) -> Placed:
    require_angle(clip, angle)
    files = files_of(clip.angle(angle))
    if file >= len(files):
        raise EditRefused("There is no such file in this angle.")
    return files[file]


def _moved(
    document: Document, clip: MulticamClip, moves: Mapping[int, Mapping[str, int]]
) -> Document:
    """With files of angles, by index and id, so many ticks later; what stays is as it was."""
    some = {index: by for index, by in moves.items() if any(by.values())}
    return _changed(document, clip, some, moved)


def _changed(
    document: Document,
    clip: MulticamClip,
    how: Mapping[int, Mapping[str, T]],
    change: Callable[[GroupClip, Mapping[str, T], int], GroupClip],
) -> Document:
    """With files of angles, by index and id, changed on frames of the document's length."""
    angles, step = angles_of(clip), document.rate.exact.frame_ticks
    for index, by in how.items():
        angles[index] = angles[index].holding(change(angles[index].group, by, step))
    return with_angles(document, clip, angles)
