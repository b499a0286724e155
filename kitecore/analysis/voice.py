"""Where somebody speaks: how surely, for each stretch of 32 ms."""

from __future__ import annotations

from collections.abc import Iterator
from functools import cache
from importlib.util import find_spec
from pathlib import Path
from typing import Any, Final

import numpy as np
import soxr
from numpy.typing import NDArray

from kitecore.analysis._base import Analysis, NoParameters, analyse, analyses, sounds
from kitecore.media.folder import MediaFolder
from kitecore.media.soundcopy import CHANNELS, SOUND_RATE
from kitecore.programs import Tell

VOICE: Final = "voice.u8"
"""uint8, 255 for surely."""
_HEARD_RATE: Final = 16_000
_STEP: Final = 512
"""Samples, at the rate of the model, that it hears at a time."""
_BEFORE: Final = 64
"""Samples of the step before, which it hears again."""
VOICE_SAMPLES: Final = _STEP * SOUND_RATE // _HEARD_RATE
"""Samples, at 48 kHz, of each value."""
_BLOCK: Final = 30 * SOUND_RATE


@cache
def _model() -> Any:
    """Silero VAD, as its package carries it: a small recurrent network, on one thread."""
    import onnxruntime

    package = find_spec("silero_vad")
    assert package is not None and package.submodule_search_locations
    file = Path(package.submodule_search_locations[0]) / "data" / "silero_vad.onnx"
    options = onnxruntime.SessionOptions()
    options.intra_op_num_threads = options.inter_op_num_threads = 1
    return onnxruntime.InferenceSession(str(file), options, providers=["CPUExecutionProvider"])


def voice_of(blocks: Iterator[NDArray[np.float32]]) -> Iterator[NDArray[np.uint8]]:
    """How surely somebody speaks, for sound in mono at 48 kHz that comes in blocks."""
    model, rate = _model(), np.array(_HEARD_RATE, np.int64)
    state, before = np.zeros((2, 1, 128), np.float32), np.zeros(_BEFORE, np.float32)
    rest = np.zeros(0, np.float32)
    for heard in _resampled(blocks):
        rest = np.concatenate([rest, heard])
        found = []
        while len(rest) >= _STEP:
            step, rest = rest[:_STEP], rest[_STEP:]
            given = {"input": np.concatenate([before, step])[None], "state": state, "sr": rate}
            surely, state = model.run(None, given)
            before = step[-_BEFORE:]
            found.append(float(surely[0, 0]))
        yield np.rint(np.clip(found, 0, 1) * np.float64(255)).astype(np.uint8)


def _resampled(blocks: Iterator[NDArray[np.float32]]) -> Iterator[NDArray[np.float32]]:
    """At the rate of the model; filled up with silence to a whole step."""
    stream = soxr.ResampleStream(SOUND_RATE, _HEARD_RATE, 1, "float32")
    count = 0
    for block in blocks:
        heard = stream.resample_chunk(block)
        count += len(heard)
        yield heard
    last = stream.resample_chunk(np.zeros(0, np.float32), last=True)
    count += len(last)
    yield np.pad(last, (0, -count % _STEP))


def find_voice(folder: MediaFolder, wanted: NoParameters, out: Path, tell: Tell) -> None:
    with (out / VOICE).open("wb") as file:
        if not folder.sound.stat().st_size:
            return
        everything = np.memmap(folder.sound, np.float32, "r").reshape(-1, CHANNELS)

        def blocks() -> Iterator[NDArray[np.float32]]:
            for start in range(0, len(everything), _BLOCK):
                tell("voice", start / len(everything))
                yield np.asarray(everything[start : start + _BLOCK]).mean(axis=1)

        for found in voice_of(blocks()):
            file.write(found.tobytes())


def read_voice(folder: MediaFolder) -> NDArray[np.uint8]:
    """What was found, or is found now: how surely, 0..255, for each `VOICE_SAMPLES`."""
    return np.fromfile(analyse(folder, "voice") / VOICE, np.uint8)


analyses.register("voice")(Analysis(version=1, fits=sounds, run=find_voice, standing=True))
