"""How something that is followed goes, as one number for each frame: what can lead a value."""

from __future__ import annotations

from collections.abc import Callable
from typing import Final, Literal

import numpy as np
from numpy.typing import NDArray

from kitecore.document import ClipBase, Document
from kitecore.errors import EditRefused
from kitecore.motion.matrices import parts
from kitecore.render.sources import Sources
from kitecore.render.spots import leader_of
from kitecore.render.tracked import Seen, seen_at

Numbers = NDArray[np.float64]
Measure = Literal["across", "down", "size", "turn", "place"]
"""What of the way of a thing leads a value; its whole place leads a point."""

_MEASURES: Final[dict[str, Callable[[Seen], float]]] = {
    "across": lambda seen: float(seen.now[:, 0].mean()),
    "down": lambda seen: float(seen.now[:, 1].mean()),
    "size": lambda seen: parts(seen.similar)[0],
    "turn": lambda seen: parts(seen.similar)[2],
}
_LEAST: Final = 1e-4
"""Heights of the picture, or times, below which nothing moves; of turns, degrees."""


def followed_shares(
    document: Document, clip: ClipBase, tracker: str, measure: Measure, sources: Sources
) -> Numbers:
    """0..1 for each frame of a clip: from the least of a measure to its most.

    Where what is followed is not seen it stays as it was, or will be, nearest to that.

    Raises
    ------
    EditRefused
        If nothing is followed by that name, or it does not change.
    """
    leader = leader_of(document, tracker)
    step = document.rate.exact.frame_ticks
    since = leader.shown_at(0, step)
    values = []
    for tick in range(clip.start, clip.end, step):
        local = min(max(tick - leader.start, 0), leader.length - step)
        seen = seen_at(leader, tracker, since, leader.shown_at(local, step), sources)
        assert seen is not None
        values.append(_MEASURES[measure](seen))
    found = np.array(values)
    if measure == "turn":
        found = np.unwrap(found, period=360)
    if np.ptp(found) < _LEAST:
        raise EditRefused("That does not change while this clip is seen.")
    return np.asarray((found - found.min()) / np.ptp(found))
