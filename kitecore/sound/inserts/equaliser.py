from __future__ import annotations

from collections.abc import Iterator

import numpy as np
from numpy.typing import NDArray

from kitecore.document.inserts.equaliser import Bell, Equaliser
from kitecore.document.properties import Number
from kitecore.model import numbers_in
from kitecore.sound import biquad
from kitecore.sound.inserts._base import BLOCK, DECAYED, Over, Processing, insert_sounds
from kitecore.sound.ramps import RATE, SAMPLE_TICKS, Samples

_LONGEST = 8 * RATE


def _flat(gain: Number) -> bool:
    return all(value == 0 for value in numbers_in(gain))


def sections_of(insert: Equaliser, over: Over) -> list[NDArray[np.float64]]:
    """The filters that do something, from low to high."""
    at = over.blocks
    found = []
    if insert.low_cut.on:
        found.append(biquad.high_pass(at(insert.low_cut.frequency)))
    if not _flat(insert.low_shelf.gain):
        shelf = insert.low_shelf
        found.append(biquad.low_shelf(at(shelf.frequency), at(shelf.gain)))
    found += [biquad.bell(at(b.frequency), at(b.gain), at(b.q)) for b in _bells(insert)]
    if not _flat(insert.high_shelf.gain):
        high = insert.high_shelf
        found.append(biquad.high_shelf(at(high.frequency), at(high.gain)))
    if insert.high_cut.on:
        found.append(biquad.low_pass(at(insert.high_cut.frequency)))
    return found


def _bells(insert: Equaliser) -> Iterator[Bell]:
    bells: tuple[Bell, ...] = (insert.low_bell, insert.bell, insert.high_bell)
    return (bell for bell in bells if not _flat(bell.gain))


def curve_of(insert: Equaliser, tick: int, frequencies: NDArray[np.float64]) -> list[float]:
    """Gain in dB at frequencies, at a tick from where the keys count from."""
    found = biquad.response(sections_of(insert, Over(tick // SAMPLE_TICKS, 1)), frequencies)
    return [float(value) for value in found]


def _equalised(insert: Equaliser, samples: Samples, over: Over) -> Samples:
    return biquad.filtered(samples, sections_of(insert, over), BLOCK, over.offset)


def _before(insert: Equaliser) -> int:
    """Until the slowest filter has died away: its poles turn at f with quality q·A (boosted)."""
    slowest = 0.0
    for bell in _bells(insert):
        boost = 10 ** (max(0.0, *numbers_in(bell.gain)) / 40)
        lowest = max(10.0, min(numbers_in(bell.frequency)))
        slowest = max(slowest, max(numbers_in(bell.q)) * boost / (np.pi * lowest))
    others = [insert.low_shelf.frequency, insert.high_shelf.frequency]
    others += [cut.frequency for cut in (insert.low_cut, insert.high_cut) if cut.on]
    lowest = max(10.0, min(value for prop in others for value in numbers_in(prop)))
    slowest = max(slowest, 4 / (2 * np.pi * lowest))
    return min(_LONGEST, int(DECAYED * slowest * RATE))


insert_sounds.register("equaliser")(
    Processing(_equalised, _before, idle=lambda insert: not sections_of(insert, Over(0, 1)))
)
