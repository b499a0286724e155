"""How loud a file is, told in it: ReplayGain 2.0, by which players bring files to one loudness."""

from __future__ import annotations

from typing import Final, Literal

import numpy as np

from kitecore.render.making.work import Work
from kitecore.render.pieces import frame_samples
from kitecore.render.samples import render_samples
from kitecore.render.sources import Sources
from kitecore.sound.loudness import LEAD, PART, SILENCE, powers, whole
from kitecore.sound.ramps import Samples
from kitecore.sound.truepeak import true_levels

GainIn = Literal["", "tags", "atoms"]
"""Where a container has it: among its tags, which come first; in atoms, written afterwards; nowhere."""

_REFERENCE: Final = -18.0
"""LUFS that ReplayGain brings files to."""
STRETCH: Final = 100 * PART
"""Samples that are heard in one go, but for the last."""


class Gain:
    """The gain of a mix that is heard stretch by stretch."""

    def __init__(self) -> None:
        self._parts: list[np.ndarray] = []
        self._peak = 0.0
        self._before = np.zeros((LEAD, 2), np.float32)

    def hear(self, mixed: Samples) -> None:
        """The next `STRETCH` of it."""
        self._peak = max(self._peak, float(true_levels(mixed).max(initial=0.0)))
        heard = np.concatenate([self._before, mixed])
        rest = -len(mixed) % PART
        self._parts.append(powers(np.pad(heard, ((0, rest), (0, 0)))))
        self._before = heard[-LEAD:]

    @property
    def tags(self) -> dict[str, str]:
        """The gain that the whole needs, in dB, and its true peak; none where nothing is heard."""
        loudness = whole(np.concatenate(self._parts)) if self._parts else SILENCE
        if loudness <= SILENCE:
            return {}
        return {
            "REPLAYGAIN_TRACK_GAIN": f"{_REFERENCE - loudness:+.2f} dB",
            "REPLAYGAIN_TRACK_PEAK": f"{self._peak:.6f}",
        }


def replay_gain(work: Work, sources: Sources) -> dict[str, str]:
    """Tags of a work that is mixed for that alone."""
    start, end = frame_samples(work.rate, work.numbers.start, work.numbers.stop)
    gain = Gain()
    for begin in range(start, end, STRETCH):
        gain.hear(render_samples(work.document, begin, min(STRETCH, end - begin), sources))
    return gain.tags
