"""Waveforms: the lowest and highest sample of each stretch."""

from __future__ import annotations

from pathlib import Path

import numpy as np
from numpy.typing import NDArray

from kitecore.analysis._base import Analysis, NoParameters, analyses, sounds
from kitecore.media.folder import MediaFolder
from kitecore.media.soundcopy import CHANNELS
from kitecore.programs import Tell

PEAKS = "peaks.i8"
"""int8, pairs of lowest and highest, full scale 127."""
PEAK_SAMPLES = 480
"""Samples (at 48 kHz) in a stretch: a hundred stretches a second."""
_BLOCK = PEAK_SAMPLES * 4096


def peaks_of(samples: NDArray[np.float32]) -> NDArray[np.int8]:
    """Lowest and highest value of each stretch over both channels.

    Parameters
    ----------
    samples
        float32, shape (n, 2), full scale 1.

    Returns
    -------
    int8, shape (ceil(n / PEAK_SAMPLES), 2), full scale 127.
    """
    missing = -len(samples) % PEAK_SAMPLES
    padded = np.pad(samples, ((0, missing), (0, 0)), mode="edge") if missing else samples
    rows = padded.reshape(-1, PEAK_SAMPLES * CHANNELS)
    both = np.stack([rows.min(axis=1), rows.max(axis=1)], axis=1)
    peaks: NDArray[np.int8] = np.rint(np.clip(both, -1, 1) * 127).astype(np.int8)
    return peaks


def make_peaks(folder: MediaFolder, wanted: NoParameters, out: Path, tell: Tell) -> None:
    """The take's waveform, from its sound copy block by block."""
    with (out / PEAKS).open("wb") as file:
        if not folder.sound.stat().st_size:
            return
        everything = np.memmap(folder.sound, np.float32, "r").reshape(-1, CHANNELS)
        for start in range(0, len(everything), _BLOCK):
            file.write(peaks_of(np.asarray(everything[start : start + _BLOCK])).tobytes())
            tell("waveform", start / len(everything))


analyses.register("peaks")(Analysis(version=1, fits=sounds, run=make_peaks, standing=True))
