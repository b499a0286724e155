"""Strips and waveforms against what the takes hold."""

from __future__ import annotations

import json
import subprocess
import sys
import tempfile
from pathlib import Path
from unittest import TestCase
from unittest.mock import patch

import numpy as np
from PIL import Image

from kitecore.analysis import analyse, analyses, place_of, result_of, standing_for
from kitecore.analysis.peaks import PEAK_SAMPLES, PEAKS, fine_peaks, peaks_of
from kitecore.analysis.strip import POSTER, STRIP, layout_of
from kitecore.errors import BrokenMedia
from kitecore.media.soundcopy import read_sound
from kitecore.media.tests.material import ingested, make_video, make_wav, read_number, tone
from kitecore.media.whole import UNFINISHED


class PeaksTest(TestCase):
    def test_peaks_are_lowest_and_highest(self) -> None:
        samples = np.zeros((PEAK_SAMPLES * 2 + 10, 2), np.float32)
        samples[5] = (0.5, -0.25)
        samples[PEAK_SAMPLES + 1] = (2.0, 0.0)
        found = peaks_of(samples)
        self.assertEqual([[0, 0.5, -0.25, 0], [0, 1, 0, 0], [0, 0, 0, 0]], found.tolist())

    def test_to_single_samples_they_are_the_sound_itself(self) -> None:
        with tempfile.TemporaryDirectory() as name:
            root = Path(name)
            folder = ingested(root, "sound", make_wav(root / "x", tone(0.5)))
            sound = read_sound(folder, 100, 40)
            single = fine_peaks(folder, 100, 40, 1) / 32767
            np.testing.assert_allclose(single[:, :2], sound[:, :1].repeat(2, axis=1), atol=1e-4)
            tens = fine_peaks(folder, 100, 4, 10) / 32767
            wanted = sound.reshape(4, 10, 2)
            np.testing.assert_allclose(tens[:, 2], wanted[..., 1].min(axis=1), atol=1e-4)
            np.testing.assert_allclose(tens[:, 1], wanted[..., 0].max(axis=1), atol=1e-4)
            self.assertFalse(fine_peaks(folder, 48_000, 5, 480).any())


class StandingTest(TestCase):
    def setUp(self) -> None:
        self.root = Path(self.enterContext(tempfile.TemporaryDirectory()))

    def test_a_strip_shows_the_frames_of_its_moments(self) -> None:
        path = make_video(self.root / "x", frames=90, size=(360, 640))
        folder = ingested(self.root, "take", path)
        made = analyse(folder, "strip")
        layout = layout_of(made)
        self.assertEqual((54, 96, 6), (layout.width, layout.height, layout.count))
        with Image.open(made / STRIP) as sheet:
            pixels = np.asarray(sheet)
        self.assertEqual((96, 6 * 54, 3), pixels.shape)
        tiles = [pixels[:, n * 54 : (n + 1) * 54] for n in range(6)]
        wanted = [folder.index.frame_at(n * layout.step) for n in range(6)]
        self.assertEqual(wanted, [read_number(tile) for tile in tiles])
        with Image.open(made / POSTER) as poster:
            self.assertEqual((wanted[2], 360), (read_number(np.asarray(poster)), poster.height))

    def test_stills_have_a_strip_and_sounds_a_waveform(self) -> None:
        Image.new("RGBA", (40, 60), (200, 100, 0, 128)).save(self.root / "a", "PNG")
        still = ingested(self.root, "still", self.root / "a")
        self.assertEqual(["strip"], standing_for(still.info))
        self.assertEqual(1, layout_of(analyse(still, "strip")).count)
        sound = ingested(self.root, "sound", make_wav(self.root / "b", tone(1.0)))
        self.assertEqual(["peaks", "voice"], standing_for(sound.info))
        peaks = np.fromfile(analyse(sound, "peaks") / PEAKS, np.int8).reshape(-1, 4)
        self.assertEqual((100, 64), (len(peaks), peaks[:, 1].max()))

    def test_a_result_is_there_whole_or_not_at_all(self) -> None:
        sound = ingested(self.root, "sound", make_wav(self.root / "b", tone(1.0)))
        self.assertIsNone(result_of(sound, "peaks"))
        with (
            patch("kitecore.analysis.peaks.peaks_of", side_effect=BrokenMedia("torn")),
            self.assertRaises(BrokenMedia),
        ):
            analyse(sound, "peaks")
        self.assertIsNone(result_of(sound, "peaks"))
        self.assertFalse(list(sound.path.rglob(f"{UNFINISHED}*")))
        made = analyse(sound, "peaks")
        self.assertEqual(made, result_of(sound, "peaks"))

    def test_a_result_that_is_there_is_not_made_again(self) -> None:
        sound = ingested(self.root, "sound", make_wav(self.root / "b", tone(1.0)))
        first = analyse(sound, "peaks")
        with patch("kitecore.analysis.peaks.peaks_of", side_effect=AssertionError("again")):
            self.assertEqual(first, analyse(sound, "peaks"))

    def test_another_version_has_a_place_of_its_own(self) -> None:
        sound = ingested(self.root, "sound", make_wav(self.root / "b", tone(0.2)))
        now = place_of(sound, "peaks")
        later = analyses["peaks"].__class__(
            version=99, fits=analyses["peaks"].fits, run=analyses["peaks"].run
        )
        with patch.dict(analyses._entries, {"peaks": later}):
            self.assertNotEqual(now, place_of(sound, "peaks"))

    def test_as_a_program_it_tells_its_progress_and_its_refusal(self) -> None:
        sound = ingested(self.root, "sound", make_wav(self.root / "b", tone(1.0)))
        command = [sys.executable, "-m", "kitecore.analysis", str(sound.path), "peaks", "{}"]
        done = subprocess.run(command, capture_output=True, text=True, check=False)
        self.assertEqual((0, "waveform"), (done.returncode, json.loads(done.stdout)["doing"]))
        self.assertIsNotNone(result_of(sound, "peaks"))
        torn = self.root / "torn"
        torn.mkdir()
        done = subprocess.run(
            [*command[:3], str(torn), "strip", "{}"], capture_output=True, text=True, check=False
        )
        self.assertEqual(3, done.returncode)
        self.assertEqual("media_missing", json.loads(done.stdout)["refused"]["code"])
