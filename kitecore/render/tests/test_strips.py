"""Clips, tracks and the film: sides, pitch, chains, and what becomes of them when cut."""

from __future__ import annotations

from itertools import pairwise
from typing import Any

import numpy as np

from kitecore.edits.tests.populated import SECOND
from kitecore.errors import EditRefused
from kitecore.media.folder import MediaFolder
from kitecore.media.tests.material import ingested, make_wav
from kitecore.render.extract import content_key
from kitecore.render.tests.test_sound import MixedTest, Samples
from kitecore.sound.ramps import RATE, from_db
from kitecore.sound.truepeak import true_levels
from kitecore.ticks import Span


def loudness(samples: Samples) -> tuple[float, float]:
    """Root mean square of both sides."""
    left, right = np.sqrt(np.square(samples.astype(float)).mean(axis=0))
    return float(left), float(right)


def frequency(samples: Samples) -> float:
    part = samples[:, 0].astype(float) * np.hanning(len(samples))
    spectrum = np.abs(np.fft.rfft(part, 1 << 19))
    return float(np.argmax(spectrum) * RATE / (1 << 19))


class StripTest(MixedTest):
    def track(self, number: int = 2) -> str:
        return self.scene.document.tracks[number].id

    def strip(self, track: str | None = None, **values: Any) -> None:
        self.scene.do(kind="set_strip", track=track, values=values)

    def test_a_clip_goes_to_a_side_with_its_power(self) -> None:
        self.scene.place("tone", 2.0)
        middle = loudness(self.mix(10_000, 40_000))
        for pan, wanted in ((-1.0, (2**0.5, 0.0)), (1.0, (0.0, 2**0.5))):
            clip = self.scene.document.tracks[2].clips[0]
            self.scene.do(kind="adjust", clips=[clip.id], values={"pan": pan})
            got = loudness(self.mix(10_000, 40_000))
            for side in (0, 1):
                self.assertAlmostEqual(wanted[side] * middle[side], got[side], places=3)

    def test_pan_by_keys_passes_the_middle(self) -> None:
        keys = {"keys": [{"at": 0, "value": -1.0}, {"at": 2 * SECOND, "value": 1.0}]}
        self.scene.place("tone", 2.0, pan=keys)
        left, right = loudness(self.mix(47_000, 2000))
        self.assertAlmostEqual(left, right, delta=0.01)
        self.assertGreater(loudness(self.mix(10_000, 2000))[0], 2 * left * 0.6)

    def test_sides_are_chosen(self) -> None:
        time = np.arange(2 * RATE) / RATE
        pair = np.stack([np.sin(880 * np.pi * time), 0.25 * np.sin(2000 * np.pi * time)], axis=1)
        if not MediaFolder(self.root / "pair").original.exists():
            ingested(self.root, "pair", make_wav(self.root / "x", pair * 0.5))
        self.scene.place("pair", 2.0)
        clip = self.scene.document.tracks[2].clips[0].id
        whole = self.mix(5000, 20_000)
        wanted = {
            "left": whole[:, [0, 0]],
            "right": whole[:, [1, 1]],
            "swapped": whole[:, ::-1],
            "mono": np.repeat(whole.mean(axis=1, keepdims=True), 2, axis=1),
        }
        for channels, samples in wanted.items():
            self.scene.do(kind="adjust", clips=[clip], values={"channels": channels})
            np.testing.assert_allclose(self.mix(5000, 20_000), samples, atol=1e-6)

    def test_pitch_moves_by_cents_and_the_length_stays(self) -> None:
        for pitch in (12.0, -7.0, 0.5):
            with self.subTest(pitch):
                self.setUp()
                self.scene.place("tone", 3.0, pitch=pitch)
                got = self.mix(24_000, 96_000)
                cents = 1200 * np.log2(frequency(got) / 440)
                self.assertAlmostEqual(100 * pitch, cents, delta=3)
                self.assertAlmostEqual(0.5 / 2**0.5, loudness(got)[0], delta=0.03)
                self.assertFalse(self.mix(144_000, 4000).any())

    def test_pitch_by_keys_glides(self) -> None:
        keys = {"keys": [{"at": 0, "value": 0.0}, {"at": 4 * SECOND, "value": 12.0}]}
        self.scene.place("tone", 4.0, pitch=keys)
        for at in (1.0, 2.0, 3.0):
            part = self.mix(round((at - 0.1) * RATE), round(0.2 * RATE))
            cents = 1200 * np.log2(frequency(part) / 440)
            self.assertAlmostEqual(300 * at, cents, delta=25)

    def test_a_split_of_what_is_pitched_and_chained_is_not_heard(self) -> None:
        chain = [{"kind": "compressor", "threshold": -30}, {"kind": "room", "seconds": 0.3}]
        self.scene.place("tone", 4.0, into=0.5, pitch=3.0, chain=chain)
        before = self.mix(0, 200_000)
        self.scene.do(kind="split", at=2 * SECOND)
        after = self.mix(0, 200_000)
        self.assertEqual(2, len(self.scene.document.tracks[2].clips))
        self.assertLess(np.abs(after - before)[60_000:140_000].max(), 10 ** (-90 / 20))

    def test_nothing_from_before_its_start_comes_back_from_the_walls(self) -> None:
        chain = [{"kind": "room", "seconds": 0.5, "ahead": 100, "mix": 100}]
        self.scene.place("tone", 2.0, into=2.0, chain=chain)
        self.assertLess(np.abs(self.mix(0, 4700)).max(), 1e-6)
        self.assertGreater(np.abs(self.mix(12_000, 4800)).max(), 0.01)

    def test_fades_have_shapes(self) -> None:
        half = {"straight": 0.5, "early": 0.5**0.5, "late": 1 - 0.5**0.5, "smooth": 0.5}
        for shape, wanted in half.items():
            self.setUp()
            self.scene.place("tone", 2.0, fade_in=SECOND, fade_in_shape=shape)
            got = np.abs(self.mix(23_900, 200)).max()
            self.assertAlmostEqual(0.5 * wanted, got, delta=0.01)

    def test_a_track_and_the_film_have_gain_pan_and_chain(self) -> None:
        self.scene.place("tone", 2.0)
        plain = loudness(self.mix(20_000, 40_000))
        self.strip(self.track(), gain=-6.0)
        self.strip(None, gain=-3.0)
        got = loudness(self.mix(20_000, 40_000))
        self.assertAlmostEqual(plain[0] * from_db(-9), got[0], places=4)
        equaliser = {"kind": "equaliser", "bell": {"frequency": 440, "gain": 9}}
        self.scene.do(kind="add_inserts", track=self.track(), inserts=[equaliser])
        self.assertAlmostEqual(plain[0], loudness(self.mix(20_000, 40_000))[0], delta=0.005)
        insert = self.scene.document.tracks[2].strip.chain[0]
        self.strip(self.track(), **{f"chain/{insert.id}/bell/gain": 0.0})
        self.assertAlmostEqual(got[0], loudness(self.mix(20_000, 40_000))[0], places=4)
        with self.assertRaises(EditRefused):
            self.strip(self.track(), under={"tracks": [self.track()]})

    def test_a_gain_of_a_track_by_keys_counts_from_the_start_of_the_film(self) -> None:
        self.scene.place("tone", 4.0, at=1.0, mode="above")
        keys = {"keys": [{"at": 0, "value": 0.0}, {"at": 4 * SECOND, "value": -40.0}]}
        track = next(t for t in self.scene.document.tracks if t.clips)
        self.strip(track.id, gain=keys)
        got = loudness(self.mix(2 * RATE - 240, 480))[0]
        self.assertAlmostEqual(0.5 / 2**0.5 * from_db(-20), got, delta=0.001)

    def test_no_peak_of_the_film_is_above_its_ceiling(self) -> None:
        self.scene.place("tone", 4.0, gain=12.0)
        self.strip(None, ceiling=-1.0)
        done = self.mix(10_000, 90_000)
        self.assertLessEqual(true_levels(done)[100:-100].max(), from_db(-1.0) + 0.002)
        self.assertGreater(np.abs(done).max(), from_db(-1.3))

    def test_with_chains_everywhere_pieces_join_without_a_trace(self) -> None:
        self.scene.place("tone", 4.0, chain=[{"kind": "gate"}, {"kind": "delay"}])
        self.scene.place("other", 4.0)
        compressor = {"kind": "compressor", "threshold": -40, "release": 300}
        self.scene.do(kind="add_inserts", track=self.track(), inserts=[{"kind": "room"}])
        self.scene.do(kind="add_inserts", inserts=[compressor, {"kind": "de_esser"}])
        whole = self.mix(0, 200_000)
        borders = [0, 1601, 48_000, 100_000, 200_000]
        parts = [self.mix(a, b - a) for a, b in pairwise(borders)]
        self.assertLess(np.abs(np.concatenate(parts) - whole).max(), 10 ** (-90 / 20))

    def test_a_piece_is_known_by_all_that_its_sound_depends_on(self) -> None:
        self.scene.place("tone", 1.0)
        self.scene.place("other", 3.0)
        span = Span(2 * SECOND, 3 * SECOND)

        def key() -> str:
            return content_key(self.scene.document, span, self.scene.find, heard=True)

        keys = [key()]
        first = self.scene.document.tracks[2].clips[0].id
        self.scene.do(kind="adjust", clips=[first], values={"gain": -3.0})
        self.assertEqual(keys[0], key())
        self.scene.do(
            kind="add_inserts", track=self.track(), inserts=[{"kind": "room", "seconds": 3.0}]
        )
        keys.append(key())
        self.scene.do(kind="adjust", clips=[first], values={"gain": -9.0})
        keys.append(key())
        self.strip(None, gain=-1.0)
        keys.append(key())
        self.assertEqual(len(keys), len(set(keys)))
        self.strip(None, target=-20.0)
        self.assertEqual(keys[-1], key())
