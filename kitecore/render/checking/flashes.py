"""Flashes that may harm: WCAG 2.2, 2.3.1 (three flashes), areas by Rec. ITU-R BT.1702-2."""

from collections.abc import Iterable, Iterator
from typing import Final

import numpy as np
from numpy.typing import NDArray

from kitecore.render.checking._base import Check, Film, Finding, checks

_AREA: Final = 0.25
"""Share of the picture that has to flash at once."""
_STEP: Final = 0.1
"""Of full luminance, by which opposing changes differ."""
_DARKER: Final = 0.8
"""Flashes between two lighter pictures are harmless."""
_RED_STEP: Final = 20 / 320
"""Of (R − G − B) × 320, for changes to and from a saturated red."""
_MOST: Final = 3
"""Flashes within any one second: pairs of opposing changes."""


def _flashes(film: Film) -> Iterator[Finding]:
    # Frame by frame: all of a long film in floats would not fit.
    light = ((one / np.float32(255)) ** np.float32(2.4) for one in film.pictures.light)
    red = (one / np.float32(255) for one in film.pictures.red)
    second = film.frames(1.0)
    for told, changes in (
        ("flashes", flips(light, _STEP, _DARKER)),
        ("red flashes", flips(red, _RED_STEP * 4, 1.0)),
    ):
        for first, last, count in crowded(changes, second):
            yield Finding(
                check="flashes",
                grade="bad",
                message=f"{count} {told} within a second: more than {_MOST} can harm.",
                **film.stretch(first, last),
            )


def flips(levels: Iterable[NDArray[np.floating]], step: float, darker: float) -> list[int]:
    """Frames at which a quarter of the picture goes over from rising to falling, or back.

    Parameters
    ----------
    levels
        Of each frame, 0..1, shape (height, width).
    step
        By how much a level has to change for it to count.
    darker
        The darker side of a change is below that.
    """
    found: list[int] = []
    low = high = rising = None
    way = 0
    for number, now in enumerate(levels):
        if low is None or high is None or rising is None:
            low, high, rising = now.copy(), now.copy(), np.zeros(now.shape, np.int8)
            continue
        low, high = np.minimum(low, now), np.maximum(high, now)
        up = (now - low >= step) & (low < darker) & (rising <= 0)
        down = (high - now >= step) & (now < darker) & (rising >= 0)
        for flipped, to in ((up, 1), (down, -1)):
            if flipped.mean() >= _AREA and way != to:
                found.append(number)
                way = to
        rising[up], rising[down] = 1, -1
        low[up | down], high[up | down] = now[up | down], now[up | down]
    return found


def crowded(changes: list[int], second: int) -> Iterator[tuple[int, int, int]]:
    """Stretches with too many flashes: first frame, last, and the most within a second."""
    first, begin, end, most = 0, 0, -1, 0
    for index, at in enumerate(changes):
        while at - changes[first] >= second:
            first += 1
        flashes = (index + 1 - first) // 2
        if flashes <= _MOST:
            continue
        if changes[first] > end >= 0:
            yield begin, end + 1, most
            end = -1
        if end < 0:
            begin, most = changes[first], 0
        end, most = at, max(most, flashes)
    if end >= 0:
        yield begin, end + 1, most


checks.register("flashes")(Check(label="No harmful flashes", of="picture", run=_flashes))
