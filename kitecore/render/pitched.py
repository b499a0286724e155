"""The sound of clips at another pitch, as long as it was."""

from __future__ import annotations

from typing import Final

import numpy as np

from kitecore.document import Paced, Sounding
from kitecore.document.properties import Keys
from kitecore.kept import Kept
from kitecore.model import numbers_in
from kitecore.motion import value_at
from kitecore.render.paced import Read, windowed
from kitecore.sound.ramps import RATE, SAMPLE_TICKS, Samples, sample_at
from kitecore.sound.stretch import followed, transposed
from kitecore.sound.varispeed import interpolated, margin

_LEAD: Final = RATE // 2
_GRID: Final = 64
"""Samples between two looks at a pitch with keys."""


def pitched_samples(
    clip: Paced, first: int, count: int, read: Read, cache: Kept[Samples]
) -> Samples:
    """Samples of a clip counted from its start, its pitch changed.

    The same however the range is cut, and, of a clip at its own speed, however that is split.

    Parameters
    ----------
    read
        The clip's sound at its own pitch, counted alike.
    """
    assert isinstance(clip, Sounding)
    if not any(numbers_in(clip.pitch)):
        return read(first, count)
    # Windows lie on the source where that runs plainly, so that a split does not move them.
    lying = clip.speed.plain and not isinstance(clip.pitch, Keys)
    off = sample_at(clip.start) + sample_at(clip.source_in - clip.start) if lying else 0
    pace = (clip.speed, clip.keep_pitch, 0 if lying else clip.source_in, clip.silent_below)
    name = ("pitch", clip.uses(), pace, clip.pitch, getattr(clip, "tracks", None))

    def from_source(at: int, many: int) -> Samples:
        return read(at - off, many)

    def make(begin: int, many: int, lead: int) -> Samples:
        if isinstance(clip.pitch, Keys):
            return _bent(clip, begin, many, from_source)
        around = from_source(begin - lead, lead + many + _LEAD)
        return transposed(around, float(clip.pitch), RATE)[lead : lead + many]

    return windowed(name, off + first, count, make, cache)


def _bent(clip: Sounding, begin: int, count: int, read: Read) -> Samples:
    """A pitch that moves: first stretched as it rises, then played as much faster.

    Each window is bent from its own beginning on; its sound is put where the clip has it.
    """
    total = _LEAD + count + _LEAD
    first = begin - _LEAD
    grid = np.arange(first // _GRID, (first + total) // _GRID + 2) * _GRID
    looked = [2 ** (value_at(clip.pitch, int(at) * SAMPLE_TICKS) / 12) for at in grid]
    ratio = np.interp(np.arange(first, first + total), grid, looked)
    # Where each sample lies in a copy that is longer by the ratio.
    there = np.concatenate([[0.0], np.cumsum(ratio)[:-1]])
    longer = np.arange(int(np.ceil(there[-1])) + 1)
    back = np.interp(longer, there, np.arange(total))
    stretched = followed(read(first, total), back)
    edge = margin(float(ratio.max()))
    padded = np.pad(stretched, ((edge, edge), (0, 0)))
    return interpolated(padded, there + edge, ratio)[_LEAD : _LEAD + count]
