"""Flashes that may harm: WCAG 2.2, 2.3.1 (three flashes), areas by Rec. ITU-R BT.1702-2."""

from collections.abc import Iterator
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
    light = (film.pictures.light / np.float32(255)) ** np.float32(2.4)
    red = film.pictures.red / np.float32(255)
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


def flips(levels: NDArray[np.floating], step: float, darker: float) -> list[int]:
    """Frames at which a quarter of the picture goes over from rising to falling, or back.

    Parameters
    ----------
    levels
        0..1, shape (frames, height, width).
    step
        By how much a level has to change for it to count.
    darker
        The darker side of a change is below that.
    """
    if not len(levels):
        return []
    low, high = levels[0].copy(), levels[0].copy()
    rising = np.zeros(levels.shape[1:], np.int8)
    found: list[int] = []
    way = 0
    for number, now in enumerate(levels):
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
    begin, end, most = 0, -1, 0
    for index, at in enumerate(changes):
        within = [one for one in changes[: index + 1] if at - one < second]
        flashes = len(within) // 2
        if flashes <= _MOST:
            continue
        if within[0] > end >= 0:
            yield begin, end + 1, most
            end = -1
        if end < 0:
            begin, most = within[0], 0
        end, most = at, max(most, flashes)
    if end >= 0:
        yield begin, end + 1, most


checks.register("flashes")(Check(label="No harmful flashes", of="picture", run=_flashes))
