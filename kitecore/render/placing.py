"""Where a picture lands on the canvas, and how large it is wanted."""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np

from kitecore.arrays import Size
from kitecore.document import Place
from kitecore.motion.following import frame_of
from kitecore.motion.pose import Pose
from kitecore.picture.layer import Matrix, sized

MOST_DRAWN = 4096
"""Pixels on a side of what the program draws."""

FINEST = 2.0
"""Pixels to one of its canvas, along a side, in which what a clip holds is drawn where it is enlarged."""

OVER = 1.42
"""Pixels to one of the output, along a side, at which a second sampling does the least harm."""

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


def fit_factor(fit: str, picture: Area, area: Area) -> float:
    """How much a picture is enlarged before its own size counts."""
    across, down = area[0] / picture[0], area[1] / picture[1]
    return {"whole": min(across, down), "fill": max(across, down), "own": 1.0}[fit]


def land(
    place: Place,
    pose: Pose,
    picture: Area,
    area: Area,
    onto: Matrix,
    *,
    core: Area | None = None,
    drawn: bool = False,
    growing: bool = False,
    fine: bool = False,
    carried: Matrix | None = None,
) -> Landing:
    """The landing of a picture of a given size.

    Parameters
    ----------
    place, pose
        How it is fitted and flipped, and where it is at the moment.
    area
        Width and height, in canvas pixels, that it is fitted into and placed from the middle of.
    onto
        From canvas pixels to those of the output.
    core
        Of a picture that is composited for it: the part in its middle that is fitted. Such a one can
        be had finer than it is, too (`FINEST`).
    drawn
        For what is drawn by the program: ``picture`` is its size in canvas pixels, which no fit
        changes, and it can be had in any number of pixels.
    growing
        Whether its size changes over time: then it comes in coarser steps, so that it need not be
        fetched anew for each frame.
    fine
        Whether a picture that grows or is turned comes in `OVER` times as many pixels as it is drawn
        with, so that sampling it again hardly softens it, and always as much.
    carried
        What the layer that it follows does to it, in canvas pixels.
    """
    fit = 1.0 if drawn else fit_factor(place.fit, core or picture, area)
    wide, high = (
        fit * (-1.0 if flipped else 1.0) for flipped in (place.mirrored, place.upside_down)
    )
    pivot_x, pivot_y = pose.pivot
    # About the pivot, from the picture's own corner: sized, then moved.
    inner = np.array(
        [
            [wide, 0.0, -pivot_x - wide * picture[0] / 2],
            [0.0, high, -pivot_y - high * picture[1] / 2],
            [0.0, 0.0, 1.0],
        ]
    )
    canvas_matrix = frame_of(pose, area) @ inner
    if carried is not None:
        canvas_matrix = carried @ canvas_matrix
    shown = onto @ canvas_matrix
    finest = MOST_DRAWN if drawn else FINEST if core else 1.0
    wanted = _wanted(shown, picture, finest, drawn=drawn, growing=growing, fine=fine)
    matrix = shown @ sized(picture[0] / wanted[0], picture[1] / wanted[1])
    density = wanted[0] / picture[0] / (fit * max(abs(pose.size[0]), 1e-6))
    # A picture that has almost vanished still has a pixel: its effects stay as large as they are.
    return Landing(matrix, wanted, min(density, 2 * max(onto[0, 0], onto[1, 1])))


def _wanted(
    matrix: Matrix, picture: Area, finest: float, *, drawn: bool, growing: bool, fine: bool
) -> Size:
    """Pixels in which the picture is drawn, at most ``finest`` times its own."""
    (a, c, _), (b, d, _), _ = matrix.tolist()
    across, down = math.hypot(a, b), math.hypot(c, d)
    turned = abs(c) > 1e-9 or abs(b) > 1e-9
    if drawn and growing:
        # Kept from frame to frame, and fine enough that sampling it again hardly changes with its step.
        across, down = OVER * _stepped(across), OVER * _stepped(down)
    elif growing or (turned and not drawn):
        if fine:
            across, down = OVER * across, OVER * down
        else:
            across, down = _stepped(across), _stepped(down)
    width, height = (
        max(1, min(MOST_DRAWN, int(finest * side), round(side * factor)))
        for side, factor in zip(picture, (across, down), strict=True)
    )
    return width, height


def _stepped(factor: float) -> float:
    """The next power of √√2 up, so that a growing picture is not fetched anew each frame."""
    return float(2 ** (math.ceil(math.log2(max(factor, 1e-4)) * 4) / 4))
