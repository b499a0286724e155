"""Angles of a multicam clip beside each other: all while switching, two while checking."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any, Final

from kitecore.document import Canvas, Document, GroupClip, MulticamClip, Place, Track
from kitecore.document.track import TrackKind
from kitecore.errors import NotThere

_LONGEST: Final = 1920
"""Pixels of the longer side of a wall's canvas."""

_SIDES: Final = (-1.0, 1.0)
"""Pans of two angles that are checked."""


@dataclass(frozen=True)
class Grid:
    """Cells of one size, each of the film's shape, in reading order."""

    columns: int
    rows: int
    cell: tuple[int, int]

    @property
    def canvas(self) -> Canvas:
        return Canvas(width=self.columns * self.cell[0], height=self.rows * self.cell[1])

    def middle(self, number: int) -> tuple[float, float]:
        """Of a cell, in canvas pixels from the middle of the wall."""
        row, column = divmod(number, self.columns)
        return (
            (column + 0.5 - self.columns / 2) * self.cell[0],
            (row + 0.5 - self.rows / 2) * self.cell[1],
        )


def grid_of(count: int, canvas: Canvas, columns: int) -> Grid:
    """So many pictures in rows of ``columns``; of fewer if there are not as many."""
    columns = min(columns, count)
    rows = math.ceil(count / columns)
    scale = _LONGEST / max(columns * canvas.width, rows * canvas.height)
    return Grid(columns, rows, (_even(canvas.width * scale), _even(canvas.height * scale)))


def _even(side: float) -> int:
    return max(16, round(side / 2) * 2)


def shown_angles(clip: MulticamClip) -> list[int]:
    """The angles that have a picture."""
    return [index for index, track in enumerate(clip.tracks) if track.kind != "sound"]


def wall(document: Document, clip_id: str, columns: int, apart: Sequence[int] = ()) -> Document:
    """A document of the same times that shows all angles of a clip; what is heard is the film.

    Parameters
    ----------
    columns
        Pictures in a row: whoever shows the wall knows its place.
    apart
        Two angles, to be checked against each other: only they are seen, and the first is heard on
        the left, the second on the right.

    Raises
    ------
    NotThere
        If there is no such multicam clip on the timeline, or no such angle.
    """
    _, clip = document.find_clip(clip_id)
    if not isinstance(clip, MulticamClip):
        raise NotThere("That multicam clip is not there any more.")
    if not all(0 <= index < len(clip.tracks) for index in apart):
        raise NotThere("That angle is not there any more.")
    shown = [index for index in shown_angles(clip) if not apart or index in apart]
    shown.sort(key=list(apart).index if apart else None)
    grid = grid_of(max(1, len(shown)), document.canvas, columns)
    film = [
        track.model_copy(
            update={"hidden": True, **({"muted": True, "solo": False} if apart else {})}
        )
        for track in document.tracks
    ]
    pictures = [
        _row(
            _alone(clip, index, "seen", canvas=document.canvas, place=_cell(grid, number)),
            muted=True,
        )
        for number, index in enumerate(shown)
    ]
    sounds = [
        _row(_alone(clip, index, "heard", pan=side, channels="mono"), kind="sound")
        for index, side in zip(apart, _SIDES, strict=False)
    ]
    tracks = (*film, *pictures, *sounds)
    return document.model_copy(update={"canvas": grid.canvas, "tracks": tracks})


def _cell(grid: Grid, number: int) -> Place:
    """Where a picture of the film's shape lies, when size 1 shows it whole on the wall."""
    across, down = grid.canvas.width / grid.cell[0], grid.canvas.height / grid.cell[1]
    size = 1 / min(across, down)
    return Place(position=grid.middle(number), size=(size, size))


def _alone(clip: MulticamClip, index: int, name: str, **look: Any) -> GroupClip:
    """One angle, for the time of the clip; the same ids each time, so that its pieces are known again."""
    return GroupClip(
        id=f"{name}-{index}",
        start=clip.start,
        length=clip.length,
        source_in=clip.source_in,
        speed=clip.speed,
        tracks=(clip.tracks[index],),
        **look,
    )


def _row(clip: GroupClip, kind: TrackKind = "picture", *, muted: bool = False) -> Track:
    return Track(id=f"{clip.id}-{kind}", kind=kind, muted=muted).with_clips((clip,))
