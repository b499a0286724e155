"""Sounds of all rates, layouts and depths, and of hardly any length."""

from __future__ import annotations

import tempfile
from fractions import Fraction
from pathlib import Path
from unittest import TestCase

import av
import numpy as np
from numpy.typing import NDArray

from kitecore import edits
from kitecore.document import empty_document
from kitecore.edits.tests.populated import edit
from kitecore.errors import KiteError
from kitecore.media.folder import MediaFolder
from kitecore.media.soundcopy import read_sound
from kitecore.media.tests.material import ingested, make_wav, tone
from kitecore.ticks import TICKS_PER_SECOND

Floats = NDArray[np.float32]


def encoded(
    path: Path, samples: Floats, rate: int, layout: str, codec: str, container: str = "wav"
) -> Path:
    """A file of samples by channels, in one of FFmpeg's codecs."""
    with av.open(str(path), "w", format=container) as out:
        track = out.add_stream(codec, rate=rate, layout=layout)
        for first in range(0, len(samples), 4096):
            part = np.ascontiguousarray(samples[first : first + 4096].reshape(1, -1))
            frame = av.AudioFrame.from_ndarray(part, "flt", layout)
            frame.sample_rate, frame.pts, frame.time_base = rate, first, Fraction(1, rate)
            out.mux(track.encode(frame))
        out.mux(track.encode(None))
    return path


class OddSoundsTest(TestCase):
    def setUp(self) -> None:
        self.root = Path(self.enterContext(tempfile.TemporaryDirectory()))

    def taken(self, name: str, source: Path) -> MediaFolder:
        return ingested(self.root, name, source)

    def test_sounds_of_all_rates_keep_pitch_level_length_and_place(self) -> None:
        wanted = tone(1.0, frequency=1000)
        for rate in (8000, 11_025, 16_000, 22_050, 32_000, 44_100, 88_200, 96_000, 192_000):
            with self.subTest(rate):
                wave = tone(1.0, rate=rate, frequency=1000)
                folder = self.taken(str(rate), make_wav(self.root / "x", wave, rate))
                self.assertEqual(TICKS_PER_SECOND, folder.info.length)
                got = read_sound(folder, 0, 48_000)
                inner = slice(4000, 44_000)
                self.assertLess(np.abs(got[inner] - wanted[inner, None]).max(), 2e-3)

    def test_each_channel_of_many_is_heard_on_its_side_and_none_overflows(self) -> None:
        # Left, right, both; the low channel, where it is heard, on both.
        sides = {"5.1": "LRB-LR", "7.1": "LRB-LRLR"}
        for layout, row in sides.items():
            for channel, side in enumerate(row):
                with self.subTest(layout, channel=channel):
                    samples = np.zeros((24_000, len(row)), np.float32)
                    samples[:, channel] = tone(0.5, frequency=1000)
                    path = encoded(self.root / "x", samples, 48_000, layout, "pcm_f32le")
                    got = read_sound(self.taken(f"{layout}-{channel}", path), 0, 24_000)
                    left, right = (float(np.sqrt((got[:, n] ** 2).mean())) for n in (0, 1))
                    if side == "B":
                        self.assertAlmostEqual(left, right, delta=1e-4)
                    if side in "BL":
                        self.assertGreater(left, 0.03)
                    if side in "BR":
                        self.assertGreater(right, 0.03)
                    if side == "L":
                        self.assertLess(right, left / 10)
                    if side == "R":
                        self.assertLess(left, right / 10)
            full = np.repeat(2 * tone(0.5, frequency=1000)[:, None], len(row), axis=1)
            path = encoded(self.root / "x", full, 48_000, layout, "pcm_f32le")
            got = read_sound(self.taken(f"{layout}-full", path), 0, 24_000)
            # All channels at their highest: louder than one, but the same wave.
            spectrum = np.abs(np.fft.rfft(got[:, 0]))
            rest = np.delete(spectrum, np.arange(495, 506))
            self.assertLess(rest.max(), spectrum.max() / 1000)

    def test_depths_and_old_codings(self) -> None:
        wave = tone(0.5, frequency=1000)
        for codec, error in {
            "pcm_u8": 1 / 100,
            "pcm_s24le": 1e-5,
            "pcm_s32le": 1e-5,
            "pcm_f64le": 1e-6,
            "pcm_alaw": 0.03,
            "pcm_mulaw": 0.03,
            "adpcm_ms": 0.06,
        }.items():
            with self.subTest(codec):
                path = encoded(self.root / "x", wave[:, None], 48_000, "mono", codec)
                got = read_sound(self.taken(codec, path), 0, 24_000)
                self.assertLess(np.abs(got[100:23_000, 0] - wave[100:23_000]).max(), error)

    def test_silence_and_what_goes_beyond_full_scale_stay_as_they_are(self) -> None:
        silent = self.taken("silent", make_wav(self.root / "x", np.zeros(4800, np.float32)))
        self.assertFalse(read_sound(silent, 0, 4800).any())
        over = 4 * tone(0.1, frequency=1000)
        path = encoded(self.root / "x", over[:, None], 48_000, "mono", "pcm_f32le")
        got = read_sound(self.taken("over", path), 0, 4800)
        self.assertLess(np.abs(got[:, 0] - over).max(), 1e-5)

    def test_a_single_sample_is_a_take_and_none_at_all_is_refused(self) -> None:
        folder = self.taken("one", make_wav(self.root / "x", np.array([0.5], np.float32)))
        self.assertEqual(TICKS_PER_SECOND // 48_000, folder.info.length)
        self.assertAlmostEqual(0.5, float(read_sound(folder, 0, 1)[0, 0]), delta=1e-4)
        part = {"media": "one", "name": "one", "kind": "sound", "length": folder.info.length}
        with self.assertRaisesRegex(KiteError, "short"):
            edits.apply(empty_document(), edit(kind="place_takes", takes=[part]))
        with self.assertRaises(KiteError):
            self.taken("none", make_wav(self.root / "x", np.zeros(0, np.float32)))
