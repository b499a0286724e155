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
    """Cells of one size, each of the film's shape, in reading order.

    ``beside`` of them in each row go to the film, left of all, as high as they are together.
    """

    columns: int
    rows: int
    cell: tuple[int, int]
    beside: int = 0

    @property
    def canvas(self) -> Canvas:
        across = self.beside + self.columns
        return Canvas(width=across * self.cell[0], height=self.rows * self.cell[1])

    def middle(self, number: int) -> tuple[float, float]:
        """Of a cell, in canvas pixels from the middle of the wall."""
        row, column = divmod(number, self.columns)
        return self._place(self.beside + column + 0.5, row + 0.5)

    @property
    def middle_of_film(self) -> tuple[float, float]:
        return self._place(self.beside / 2, self.rows / 2)

    def _place(self, column: float, row: float) -> tuple[float, float]:
        across = self.beside + self.columns
        return (column - across / 2) * self.cell[0], (row - self.rows / 2) * self.cell[1]


def grid_of(count: int, canvas: Canvas, columns: int, *, film: bool = False) -> Grid:
    """So many pictures in rows of ``columns``, of fewer if there are not as many; or the film, too."""
    columns = min(columns, count)
    rows = math.ceil(count / columns)
    beside = rows if film else 0
    scale = _LONGEST / max((beside + columns) * canvas.width, rows * canvas.height)
    cell = (_even(canvas.width * scale), _even(canvas.height * scale))
    return Grid(columns, rows, cell, beside)


def _even(side: float) -> int:
    return max(16, round(side / 2) * 2)


def wall(
    document: Document,
    clip_id: str,
    columns: int,
    apart: Sequence[int] = (),
    *,
    film: bool = False,
) -> Document:
    """A document of the same times that shows all angles of a clip; what is heard is the film.

    Parameters
    ----------
    columns
        Pictures in a row: whoever shows the wall knows its place.
    apart
        Two angles, to be checked against each other: only they are seen, and the first is heard on
        the left, the second on the right.
    film
        Whether the film's own picture is shown beside them.

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
    shown = [index for index in clip.shown if not apart or index in apart]
    shown.sort(key=list(apart).index if apart else None)
    grid = grid_of(max(1, len(shown)), document.canvas, columns, film=film)
    heard = [
        track.model_copy(
            update={"hidden": True, **({"muted": True, "solo": False} if apart else {})}
        )
        for track in document.tracks
    ]
    pictures = [
        _row(
            _alone(
                clip,
                index,
                "seen",
                canvas=document.canvas,
                place=_place(grid, grid.middle(number), 1),
            ),
            muted=True,
        )
        for number, index in enumerate(shown)
    ]
    sounds = [
        _row(_alone(clip, index, "heard", pan=side, channels="mono"), kind="sound")
        for index, side in zip(apart, _SIDES, strict=False)
    ]
    if film:
        pictures.insert(0, _row(_film(document, grid), muted=True))
    tracks = (*heard, *pictures, *sounds)
    return document.model_copy(update={"canvas": grid.canvas, "tracks": tracks})


def _place(grid: Grid, middle: tuple[float, float], cells: int) -> Place:
    """Where a picture of the film's shape lies, when size 1 shows it whole on the wall."""
    across, down = grid.canvas.width / grid.cell[0], grid.canvas.height / grid.cell[1]
    size = cells / min(across, down)
    return Place(position=middle, size=(size, size))


def _film(document: Document, grid: Grid) -> GroupClip:
    """The film itself as one picture of the wall."""
    return GroupClip(
        id="film",
        length=document.length,
        tracks=document.tracks,
        canvas=document.canvas,
        place=_place(grid, grid.middle_of_film, grid.beside),
    )


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
