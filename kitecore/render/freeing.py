"""A layer that follows another, set free: keys of its place that do the same."""

from __future__ import annotations

from typing import Any, Final

import numpy as np
from numpy.typing import NDArray

from kitecore.document import Document, Pictured, VideoClip
from kitecore.document.moves import Moves
from kitecore.document.properties import MOST_KEYS
from kitecore.errors import EditRefused
from kitecore.motion.following import rest_of
from kitecore.motion.matrices import Matrix
from kitecore.motion.posing import pose_at
from kitecore.motion.thinning import plain_keys
from kitecore.render.frame import stage_of
from kitecore.render.sources import Sources
from kitecore.render.stage import Stage
from kitecore.ticks import TICKS_PER_SECOND

LONGEST: Final = 10 * 60
"""Seconds of a clip that is set free."""
_TOLERANCES: Final = {
    "place/position": 0.25,
    "place/size": 0.0005,
    "place/turn": 0.03,
    "place/lean": 0.03,
}
"""How far keys may lead from where it lay, on any frame."""
_LEANS: Final = 1e-7
"""Of what a homography has in its last row: more cannot be said by a place."""

Numbers = NDArray[np.float64]


def freed(document: Document, clip: str, sources: Sources) -> dict[str, Any]:
    """Values by which a clip goes on as it does now and follows nothing, to be set at once.

    Where it comes, goes, or moves all the time is left to it: that is done about the place that it
    then has.

    Raises
    ------
    EditRefused
        If it follows nothing, or what no keys of a place can tell.
    """
    _, found = document.find_clip(clip)
    if not isinstance(found, Pictured) or found.moves.follow is None:
        raise EditRefused("It follows nothing.")
    if found.length > LONGEST * TICKS_PER_SECOND:
        raise EditRefused("That is too long to become keys.", todo="Split the clip first.")
    canvas, step = document.canvas, document.rate.exact.frame_ticks
    stage = stage_of(document, (canvas.width, canvas.height), sources)
    moves = Moves(follow=found.moves.follow, along=found.moves.along)
    bare: dict[str, object] = {"moves": moves}
    if isinstance(found, VideoClip):
        bare["steady"] = None
    plain = found.model_copy(update=bare)
    ticks = [*range(0, found.length, step)]
    values = {
        path: _led(ticks, rows, _TOLERANCES[path]) for path, rows in _places(plain, ticks, stage)
    }
    return {**values, "moves/follow": None, "moves/along": False}


def _places(clip: Pictured, ticks: list[int], stage: Stage) -> list[tuple[str, Numbers]]:
    """Where it really lies at each tick, by what says so."""
    rests, pivots = [], []
    for tick in ticks:
        own = pose_at(clip, tick, stage.area)
        rests.append(rest_of(_flat(stage.frame_of(clip, tick)), stage.area))
        pivots.append(own.pivot)
    return [
        ("place/position", np.array([rest.position for rest in rests]) - np.array(pivots)),
        ("place/size", np.array([rest.size for rest in rests])),
        ("place/turn", np.unwrap([rest.turn for rest in rests], period=360)),
        ("place/lean", np.array([rest.lean for rest in rests])),
    ]


def _flat(frame: Matrix) -> Matrix:
    if np.abs(frame[2, :2]).max() > _LEANS:
        raise EditRefused(
            "It leans in space with what it follows: keys of its place cannot do that.",
            todo="Let it take over position, turn or size alone first.",
        )
    return frame


def _led(ticks: list[int], rows: Numbers, tolerance: float) -> Any:
    """A value, or keys where it changes."""
    values = np.round(rows, 5).tolist()
    if np.ptp(rows, axis=0).max() <= tolerance:
        return values[0]
    keys = plain_keys(ticks, values, tolerance)
    if len(keys) > MOST_KEYS:
        raise EditRefused("That needs too many keys.", todo="Split the clip first.")
    return {"keys": keys}
