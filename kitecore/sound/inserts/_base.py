from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any, Final

import numpy as np
from numpy.typing import NDArray

from kitecore.document.properties import Keys, Number
from kitecore.motion import value_at
from kitecore.registry import Registry
from kitecore.sound.following import GRAIN
from kitecore.sound.ramps import SAMPLE_TICKS, Samples

BLOCK: Final = 480
"""Samples between two looks at a value with keys."""

DECAYED: Final = 13.8
"""Time constants after which what was before is a millionth of itself."""

Numbers = NDArray[np.float64]


def values_at(prop: Number, places: NDArray[np.int64]) -> Numbers:
    """The value at each of some samples, counted from where its keys count from."""
    if not isinstance(prop, Keys):
        return np.full(len(places), float(prop))
    return np.array([value_at(prop, int(place) * SAMPLE_TICKS) for place in places], np.float64)


@dataclass(frozen=True)
class Over:
    """Where samples lie in time: ``first`` counts from where keys count from."""

    first: int
    count: int

    @property
    def offset(self) -> int:
        """Samples by which the first block begins before them."""
        return self.first % BLOCK

    def blocks(self, prop: Number) -> Numbers:
        """The value for each `BLOCK` that the samples touch; one for all of them without keys."""
        if not isinstance(prop, Keys):
            return np.array([float(prop)])
        blocks = np.arange(self.first // BLOCK, (self.first + self.count - 1) // BLOCK + 1)
        return values_at(prop, blocks * BLOCK)

    def each(self, prop: Number) -> Numbers | float:
        """The value at each sample, straight between blocks; one number without keys."""
        if not isinstance(prop, Keys):
            return float(prop)
        return self._between(prop, np.arange(self.first, self.first + self.count))

    @property
    def lead(self) -> int:
        """Samples by which the first grain begins before them."""
        return self.first % GRAIN

    def grains(self, prop: Number) -> Numbers | float:
        """The same for each grain that the samples touch."""
        if not isinstance(prop, Keys):
            return float(prop)
        many = (self.count + self.lead + GRAIN - 1) // GRAIN
        return self._between(prop, self.first - self.lead + GRAIN * np.arange(many))

    def _between(self, prop: Number, at: NDArray[np.int64]) -> Numbers:
        looked = Over(self.first - BLOCK, self.count + 2 * BLOCK).blocks(prop)
        places = ((self.first - BLOCK) // BLOCK + np.arange(len(looked))) * BLOCK
        return np.interp(at, places, looked)


@dataclass(frozen=True)
class Processing:
    """What an insert does to sound.

    Attributes
    ----------
    run
        ``run(insert, samples, over)``: as many samples (count, 2) as it is given. The first
        ``before`` and the last ``after`` of them are not used.
    before, after
        Samples on either side that the result depends on, but for less than -100 dB.
    idle
        Whether it changes nothing, as it is set.
    reduction
        ``reduction(insert, samples, over)``: by how many dB it makes each grain quieter, if that is
        what it does. Of a part of the sound only, if it works on that.
    """

    run: Callable[[Any, Samples, Over], Samples]
    before: Callable[[Any], int]
    after: Callable[[Any], int] = lambda insert: 0
    idle: Callable[[Any], bool] = lambda insert: False
    reduction: Callable[[Any, Samples, Over], Numbers] | None = None


insert_sounds: Registry[Processing] = Registry("insert's processing")
