"""How strong a take sounds in the band of voices, a hundred times a second."""

from __future__ import annotations

from pathlib import Path
from typing import Final

import numpy as np
from numpy.typing import NDArray

from kitecore.analysis._base import Analysis, NoParameters, analyse, analyses, sounds
from kitecore.media.folder import MediaFolder
from kitecore.media.soundcopy import CHANNELS, SOUND_RATE
from kitecore.programs import Tell

POWER: Final = "power.f4"
"""float32, mean squares."""
POWER_SAMPLES: Final = SOUND_RATE // 100
_BAND: Final = (200.0, 4000.0)
_BLOCK: Final = POWER_SAMPLES * 4096


def find_power(folder: MediaFolder, wanted: NoParameters, out: Path, tell: Tell) -> None:
    from scipy.signal import butter, sosfilt  # a second of starting, for those who need it

    band = butter(2, _BAND, "band", fs=SOUND_RATE, output="sos").astype(np.float32)
    state = np.zeros((len(band), 2), np.float32)
    with (out / POWER).open("wb") as file:
        if not folder.sound.stat().st_size:
            return
        everything = np.memmap(folder.sound, np.float32, "r").reshape(-1, CHANNELS)
        for start in range(0, len(everything), _BLOCK):
            block = np.asarray(everything[start : start + _BLOCK]).mean(axis=1)
            padded = np.pad(block, (0, -len(block) % POWER_SAMPLES))
            heard, state = sosfilt(band, padded, zi=state)
            squares = np.square(heard.reshape(-1, POWER_SAMPLES)).mean(axis=1)
            file.write(squares.astype(np.float32).tobytes())
            tell("power", start / len(everything))


def read_power(folder: MediaFolder) -> NDArray[np.float32]:
    """What was found, or is found now: mean squares of each `POWER_SAMPLES`."""
    return np.fromfile(analyse(folder, "power") / POWER, np.float32)


analyses.register("power")(Analysis(version=1, fits=sounds, run=find_power))
