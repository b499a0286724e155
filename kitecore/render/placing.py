"""Where a picture lands on the canvas, and how large it is wanted."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from kitecore.document import Place
from kitecore.motion import value_at
from kitecore.picture.layer import Matrix, leaned, moved, sized, turned

Size = tuple[int, int]
Area = tuple[float, float]


@dataclass(frozen=True)
class Landing:
    """``matrix`` leads from the picture's own pixels to those of the output.

    ``pixels`` is the size in which the picture should be fetched: as large as it is drawn, never
    larger than it is.
    """

    matrix: Matrix
    pixels: Size
    density: float


def fit_factor(fit: str, picture: Size, area: Area) -> float:
    """How much a picture is enlarged before its own size counts."""
    across, down = area[0] / picture[0], area[1] / picture[1]
    return {"whole": min(across, down), "fill": max(across, down), "own": 1.0}[fit]


def land(place: Place, tick: int, picture: Size, area: Area, scale: Area) -> Landing:
    """The landing of a picture of a given size at a tick of its clip.

    Parameters
    ----------
    area
        Width and height, in canvas pixels, that it is fitted into and placed from the middle of.
    scale
        Output pixels to a canvas pixel, across and down.
    """
    fit = fit_factor(place.fit, picture, area)
    across, down = value_at(place.size, tick)
    pivot_x, pivot_y = value_at(place.pivot, tick)
    x, y = value_at(place.position, tick)
    lean, turn = value_at(place.lean, tick), value_at(place.turn, tick)
    canvas_matrix = (
        moved(area[0] / 2 + x + pivot_x, area[1] / 2 + y + pivot_y)
        @ turned(turn)
        @ leaned(lean)
        @ sized(across, down)
        @ moved(-pivot_x, -pivot_y)
        @ sized(fit, fit)
        @ moved(-picture[0] / 2, -picture[1] / 2)
    )
    drawn = sized(*scale) @ canvas_matrix
    wanted = _wanted(drawn, picture)
    matrix = drawn @ sized(picture[0] / wanted[0], picture[1] / wanted[1])
    density = wanted[0] / picture[0] / (fit * max(abs(across), 1e-6))
    return Landing(matrix, wanted, density)


def _wanted(matrix: Matrix, picture: Size) -> Size:
    """Size in which the picture is drawn, at most its own; coarser steps when it is turned."""
    across = float(np.hypot(matrix[0, 0], matrix[1, 0]))
    down = float(np.hypot(matrix[0, 1], matrix[1, 1]))
    if abs(matrix[0, 1]) > 1e-9 or abs(matrix[1, 0]) > 1e-9:
        across, down = _stepped(across), _stepped(down)
    width = min(picture[0], max(1, round(picture[0] * across)))
    height = min(picture[1], max(1, round(picture[1] * down)))
    return width, height


def _stepped(factor: float) -> float:
    """The next power of √√2 up, so that a growing picture is not fetched anew each frame."""
    return float(2 ** (np.ceil(np.log2(max(factor, 1e-4)) * 4) / 4))
