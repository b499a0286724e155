"""A spoken line is found, through noise too; music, paper and noise are no voice."""

from __future__ import annotations

import tempfile
from pathlib import Path
from unittest import TestCase

import av
import numpy as np
import soxr
from numpy.typing import NDArray

from demo.sounds import music, rustle, speak
from kitecore.analysis.voice import VOICE_SAMPLES, read_voice, voice_of
from kitecore.media.tests.material import ingested, make_wav
from kitecore.sound.ramps import RATE

Mono = NDArray[np.float32]


def spoken_line(folder: Path) -> Mono:
    """A second of silence, the line, a second of silence."""
    speak(folder / "line.wav")
    with av.open(str(folder / "line.wav")) as file:
        parts = [frame.to_ndarray().reshape(-1) for frame in file.decode(audio=0)]
        rate = file.streams.audio[0].codec_context.sample_rate
    line = np.concatenate(parts).astype(np.float32) / 32768
    return np.pad(soxr.resample(line, rate, RATE), RATE).astype(np.float32)


def share(sound: NDArray[np.floating]) -> float:
    mono = (sound if sound.ndim == 1 else sound.mean(axis=1)).astype(np.float32)
    found = np.concatenate(list(voice_of(iter(np.array_split(mono, 7)))))
    return float((found >= 128).mean())


class VoiceTest(TestCase):
    def test_a_line_is_found_where_it_is_spoken(self) -> None:
        root = Path(self.enterContext(tempfile.TemporaryDirectory()))
        line = spoken_line(root)
        hiss = np.random.default_rng(3).normal(0, 0.01, len(line)).astype(np.float32)
        pair = np.repeat((0.9 * line + hiss)[:, None], 2, axis=1)
        folder = ingested(root, "line", make_wav(root / "x", pair))
        found = read_voice(folder) >= 128
        self.assertEqual(-(-len(line) // VOICE_SAMPLES), len(found))
        level = np.add.reduceat(np.square(line), np.arange(0, len(line), VOICE_SAMPLES))
        loud = level > 0.02 * level.max()
        self.assertGreater(found[loud].mean(), 0.9)
        self.assertFalse(found[: int(0.8 * RATE / VOICE_SAMPLES)].any())

    def test_other_sounds_are_no_voice(self) -> None:
        noise = np.random.default_rng(1).normal(0, 0.05, 4 * RATE)
        for sound in (music(2), rustle(4.0), noise, np.zeros(RATE)):
            self.assertLess(share(np.asarray(sound)), 0.05)
