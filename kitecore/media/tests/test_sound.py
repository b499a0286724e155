"""Sound to the sample."""

from __future__ import annotations

import tempfile
from fractions import Fraction
from pathlib import Path
from unittest import TestCase

import av
import numpy as np

from kitecore.media.folder import MediaFolder
from kitecore.media.soundcopy import make_sound_copy, read_sound
from kitecore.media.tests.material import ingested, make_video, make_wav, tone
from kitecore.ticks import TICKS_PER_SECOND


class SoundCopyTest(TestCase):
    def setUp(self) -> None:
        self.root = Path(self.enterContext(tempfile.TemporaryDirectory()))

    def test_plain_sound_is_kept_to_the_bit_in_both_channels(self) -> None:
        wave = tone(1.0)
        folder = ingested(self.root, "take", make_wav(self.root / "x", wave))
        got = read_sound(folder, 0, 48_000)
        # A 16-bit file decodes to n / 32768; ours was written as n = round(32767 x).
        wanted = np.rint(wave * 32767) / 32768
        self.assertLess(np.abs(got - wanted[:, None]).max(), 1e-6)

    def test_outside_of_the_file_there_is_silence(self) -> None:
        folder = ingested(self.root, "take", make_wav(self.root / "x", tone(0.5)))
        got = read_sound(folder, -100, 48_000)
        self.assertFalse(got[:100].any() or got[24_100:].any())
        self.assertTrue(got[101:24_000].any())

    def test_another_rate_keeps_pitch_level_and_place(self) -> None:
        path = make_wav(self.root / "x", tone(2.0, rate=44_100, frequency=1000), rate=44_100)
        folder = ingested(self.root, "take", path)
        got = read_sound(folder, 0, 96_000)[:, 0]
        inner = slice(2000, 94_000)
        self.assertLess(np.abs(got - tone(2.0, frequency=1000))[inner].max(), 1e-3)

    def test_coded_sound_lies_where_it_was(self) -> None:
        noise = np.random.default_rng(8).normal(0, 1, 72_000)
        hum = 0.3 * np.convolve(noise, np.ones(24) / 24, "same").astype(np.float32)
        for codec, container in (("aac", "mp4"), ("libopus", "webm"), ("flac", "matroska")):
            with self.subTest(codec):
                video = "libvpx-vp9" if container == "webm" else "libx264"
                path = make_video(
                    self.root / "x", frames=45, codec=video, container=container,
                    sound=hum, sound_codec=codec,
                )  # fmt: skip
                folder = ingested(self.root, codec, path)
                got = read_sound(folder, 0, 72_000)[:, 0]
                # The lag at which both agree best, over ± 20 ms.
                part, lags = hum[10_000:60_000], range(-960, 961)
                best = max(lags, key=lambda lag: float(part @ got[10_000 + lag : 60_000 + lag]))
                self.assertLessEqual(abs(best), 1)

    def test_a_coded_sound_is_as_long_as_it_is_heard(self) -> None:
        """Opus tells of its run-up and of the rest of its last packet, which are cut off."""
        path = self.root / "x"
        wave = tone(1.2345)
        with av.open(str(path), "w", format="ogg") as out:
            track = out.add_stream("libopus", rate=48_000, layout="mono")
            frame = av.AudioFrame.from_ndarray(wave[None], "flt", "mono")
            frame.sample_rate, frame.pts, frame.time_base = 48_000, 0, Fraction(1, 48_000)
            out.mux(track.encode(frame))
            out.mux(track.encode(None))
        with av.open(str(path)) as told:
            self.assertGreater(told.streams.audio[0].duration, len(wave))
        folder = ingested(self.root, "opus", path)
        self.assertEqual(len(wave) * TICKS_PER_SECOND // 48_000, folder.info.length)

    def test_a_copy_is_made_when_it_is_missing(self) -> None:
        folder = ingested(self.root, "take", make_wav(self.root / "x", tone(0.5)))
        before = folder.sound.read_bytes()
        folder.sound.unlink()
        read_sound(folder, 0, 10)
        self.assertEqual(before, folder.sound.read_bytes())

    def test_progress_reaches_the_end(self) -> None:
        folder = MediaFolder(self.root / "take")
        folder.path.mkdir()
        make_wav(folder.original, tone(3.0))
        shares: list[float] = []
        make_sound_copy(folder, shares.append)
        self.assertEqual(sorted(shares), shares)
        self.assertAlmostEqual(1.0, shares[-1], places=2)
