from __future__ import annotations

from unittest import TestCase

import numpy as np

from kitecore.document.poses import POSES, REST
from kitecore.errors import BadInput
from kitecore.speech.aligning import aligned
from kitecore.speech.ear import likely_poses
from kitecore.speech.features import BANDS, LOOKS, energies_of, features_of
from kitecore.speech.phonemes import lips_meet, poses_of
from kitecore.speech.reading import LANGUAGES, MOST_LETTERS, NoVoice, read


class PhonemeTest(TestCase):
    def test_sounds_have_poses(self) -> None:
        known = {
            "m": [("closed", 1)],
            "pʰ": [("closed", 1)],
            "ɑː": [("open", 1)],
            "iː": [("wide", 1)],
            "uː": [("round", 1)],
            "v": [("teeth", 1)],
            "θ": [("tongue", 1)],
            "dʒ": [("smile", 1)],
            "t": [("small", 1)],
            "aɪ": [("open", 0.6), ("wide", 0.4)],
            "": [(REST, 1)],
            "|": [(REST, 1)],
        }
        for sound, poses in known.items():
            with self.subTest(sound):
                self.assertEqual(poses, poses_of(sound))

    def test_all_sounds_of_all_languages_are_known(self) -> None:
        for language in ("en", "de", "fr", "pl", "hi"):
            self.assertIn(language, LANGUAGES)
            reading = read("Buchstaben jeden Tag, quatre oiseaux, gatto che vola.", language)
            for said in reading.said:
                poses = poses_of(said.sign)
                with self.subTest(language=language, sign=said.sign):
                    self.assertAlmostEqual(1, sum(share for _, share in poses))
                    self.assertLessEqual({pose for pose, _ in poses}, set(POSES))

    def test_lips_meet_in_three(self) -> None:
        self.assertTrue(all(map(lips_meet, ("m", "b", "p", "mː"))))
        self.assertFalse(any(map(lips_meet, ("f", "w", "n", ""))))


class ReadingTest(TestCase):
    def test_sounds_follow_each_other_to_the_end(self) -> None:
        reading = read("Paper, weather.")
        self.assertAlmostEqual(len(reading.sound) / reading.rate, reading.said[-1].end)
        for one, after in zip(reading.said, reading.said[1:], strict=False):
            self.assertAlmostEqual(one.end, after.begin)
        self.assertEqual("peɪpə", "".join(one.sign for one in reading.said)[:5])

    def test_what_cannot_be_read_is_refused(self) -> None:
        for text in ("", "  \n", "x" * (MOST_LETTERS + 1)):
            self.assertRaises(BadInput, read, text)
        self.assertRaises(NoVoice, read, "Hello", "nowhere")

    def test_marks_and_commands_are_only_words(self) -> None:
        plain = read("<speak> [[p'eIp@]] & \x01 “paper” \U0001f4a8")
        self.assertGreater(len(plain.sound), 1000)


class FeatureTest(TestCase):
    def test_a_tone_is_in_its_band_as_loud_as_it_is(self) -> None:
        at = np.arange(16_000) / 16_000
        for hertz in (200.0, 1000.0, 4000.0):
            energies = energies_of(np.sin(2 * np.pi * hertz * at).astype(np.float32), 16_000)
            self.assertEqual((LOOKS, BANDS), energies.shape)
            mel = 2595 * np.log10(1 + hertz / 700)
            edges = np.linspace(*(2595 * np.log10(1 + np.array([80, 7600]) / 700)), BANDS + 2)
            nearest = int(np.abs(edges[1:-1] - mel).argmin())
            self.assertEqual(nearest, int(energies[50].argmax()))

    def test_level_and_colour_of_a_recording_do_not_matter(self) -> None:
        reading = read("A little weather over the bay.")
        plain = energies_of(reading.sound, reading.rate)
        tilted = plain * 1.0 + np.linspace(-12, 3, BANDS, dtype=np.float32) - 6
        self.assertLess(
            np.abs(features_of(plain)[:, :-1] - features_of(tilted)[:, :-1]).mean(), 0.15
        )

    def test_nothing_has_no_features(self) -> None:
        self.assertEqual((0, BANDS + 1), features_of(np.zeros((0, BANDS), np.float32)).shape)
        self.assertEqual((0, len(POSES)), likely_poses(np.zeros((0, BANDS), np.float32)).shape)


class AligningTest(TestCase):
    def test_the_same_lies_on_itself(self) -> None:
        reading = read("Four folds, one string.")
        energies = energies_of(reading.sound, reading.rate)
        self.assertLess(np.abs(aligned(energies, energies) - np.arange(len(energies))).max(), 1.1)

    def test_pauses_of_one_alone_are_passed_over(self) -> None:
        reading = read("Four folds one string and a kite.")
        energies = energies_of(reading.sound, reading.rate)[:-40]
        [one] = [said for said in reading.said if said.sign == "w"]
        at, pause = round(one.begin * LOOKS), np.full((60, BANDS), -90, np.float32)
        paused = np.concatenate([energies[:at], pause, energies[at:]])
        looks = np.arange(len(energies))
        longer, shorter = aligned(energies, paused), aligned(paused, energies)
        shorter = np.concatenate([shorter[:at], shorter[at + 60 :]])
        for places, later in ((longer, 60), (shorter, 0)):
            self.assertTrue((np.diff(places) >= 0).all())
            off = np.abs(places - looks - np.where(looks < at, 0, later))
            off[at - 3 : at + 3] = 0
            self.assertLess(off.max(), 4)
