"""How loud a file is, told in it: ReplayGain 2.0, by which players bring files to one loudness."""

from __future__ import annotations

from typing import Final

import numpy as np

from kitecore.render.making.work import Work
from kitecore.render.pieces import frame_samples
from kitecore.render.samples import render_samples
from kitecore.render.sources import Sources
from kitecore.sound.loudness import LEAD, PART, SILENCE, powers, whole
from kitecore.sound.truepeak import true_levels

_REFERENCE: Final = -18.0
"""LUFS that ReplayGain brings files to."""
_STRETCH: Final = 100 * PART


def replay_gain(work: Work, sources: Sources) -> dict[str, str]:
    """Tags with the gain that the whole needs, in dB, and its true peak; none where nothing is heard."""
    start, end = frame_samples(work.rate, work.numbers.start, work.numbers.stop)
    parts, peak = [], 0.0
    before = np.zeros((LEAD, 2), np.float32)
    for begin in range(start, end, _STRETCH):
        mixed = render_samples(work.document, begin, min(_STRETCH, end - begin), sources)
        peak = max(peak, float(true_levels(mixed).max(initial=0.0)))
        heard = np.concatenate([before, mixed])
        rest = -(len(mixed)) % PART
        parts.append(powers(np.pad(heard, ((0, rest), (0, 0)))))
        before = heard[-LEAD:]
    loudness = whole(np.concatenate(parts))
    if loudness <= SILENCE:
        return {}
    return {
        "REPLAYGAIN_TRACK_GAIN": f"{_REFERENCE - loudness:+.2f} dB",
        "REPLAYGAIN_TRACK_PEAK": f"{peak:.6f}",
    }
