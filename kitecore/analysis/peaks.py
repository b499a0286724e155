"""Waveforms: the lowest and highest sample of each stretch, left and right."""

from __future__ import annotations

from pathlib import Path
from typing import Final

import numpy as np
from numpy.typing import NDArray

from kitecore.analysis._base import Analysis, NoParameters, analyses, sounds
from kitecore.media.folder import MediaFolder
from kitecore.media.soundcopy import CHANNELS, read_sound
from kitecore.programs import Tell

PEAKS = "waveform.i8"
"""int8, of each stretch four numbers (`peaks_of`), full scale 127."""
PEAK_SAMPLES = 480
"""Samples (at 48 kHz) in a stretch: a hundred stretches a second."""
MOST_STRETCHES: Final = 8192
"""That are asked for at once (`fine_peaks`)."""
_BLOCK = PEAK_SAMPLES * 4096


def peaks_of(samples: NDArray[np.float32], each: int = PEAK_SAMPLES) -> NDArray[np.float32]:
    """Lowest and highest value of each stretch of ``each`` samples, left and right.

    Parameters
    ----------
    samples
        float32, shape (n, 2), full scale 1.

    Returns
    -------
    float32, shape (ceil(n / each), 4), within full scale: left lowest and highest, right lowest and
    highest.
    """
    missing = -len(samples) % each
    padded = np.pad(samples, ((0, missing), (0, 0)), mode="edge") if missing else samples
    # Each side by itself: numbers in a row are looked through many times as fast as every second one.
    sides = np.ascontiguousarray(padded.T).reshape(CHANNELS, -1, each)
    both = np.stack([sides.min(axis=2), sides.max(axis=2)], axis=2).swapaxes(0, 1)
    return np.asarray(np.clip(both, -1, 1).reshape(-1, 2 * CHANNELS), np.float32)


def fine_peaks(folder: MediaFolder, first: int, count: int, each: int) -> NDArray[np.int16]:
    """``count`` stretches of ``each`` samples from sample ``first`` of a take on, as `peaks_of`.

    Full scale 32767; outside of the file there is silence. At most `MOST_STRETCHES` of at most
    `PEAK_SAMPLES`.
    """
    count, each = min(count, MOST_STRETCHES), min(each, PEAK_SAMPLES)
    found = peaks_of(read_sound(folder, first, count * each), each)
    return np.asarray(np.rint(found * 32767), np.int16)


def make_peaks(folder: MediaFolder, wanted: NoParameters, out: Path, tell: Tell) -> None:
    """The take's waveform, from its sound copy block by block."""
    with (out / PEAKS).open("wb") as file:
        if not folder.sound.stat().st_size:
            return
        everything = np.memmap(folder.sound, np.float32, "r").reshape(-1, CHANNELS)
        for start in range(0, len(everything), _BLOCK):
            found = peaks_of(np.asarray(everything[start : start + _BLOCK]))
            file.write(np.rint(found * 127).astype(np.int8).tobytes())
            tell("waveform", start / len(everything))


analyses.register("peaks")(Analysis(version=2, fits=sounds, run=make_peaks, standing=True))
