"""Sound at other speeds and across transitions, against the sines it should be."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray
from scipy.signal import butter, sosfilt

from kitecore.edits.tests.populated import SECOND
from kitecore.render.tests.test_sound import MixedTest, Samples
from kitecore.sound.crossfade import equal_power
from kitecore.sound.ramps import DECLICK
from kitecore.sound.varispeed import interpolated

RATE = 48_000
FAITHFUL = 2e-3
"""Difference of full scale: sixteen bits of the take, and the interpolation's stop band."""


def sine(phase: NDArray[np.float64], frequency: float = 440) -> NDArray[np.float64]:
    return 0.5 * np.sin(2 * np.pi * frequency * phase)


def loudest(samples: Samples) -> float:
    """Frequency in Hz of the strongest partial."""
    side = samples[:, 0] * np.hanning(len(samples))
    return float(np.argmax(np.abs(np.fft.rfft(side, 4 * RATE))) / 4)


class PacedSoundTest(MixedTest):
    def place(self, factor: float, **more: object) -> None:
        self.scene.place("tone", 2.0, into=1.0, mode="above", **more)
        self.scene.do(kind="set_speed", clips=[self.clip()], factor=factor, keep="content")

    def clip(self) -> str:
        return next(c.id for _, c in self.scene.document.clips())

    def test_varied_speed_is_the_sine_at_that_speed(self) -> None:
        for factor in (0.5, 2.0, -1.0, 1.37):
            with self.subTest(factor):
                self.setUp()
                self.place(factor, keep_pitch=False)
                count = int(2 / abs(factor) * RATE) // 1600 * 1600
                time = np.arange(count) / RATE
                wanted = sine(1.0 + time * factor if factor > 0 else 3.0 + time * factor)
                inner = slice(DECLICK, -DECLICK - 1600)
                off = np.abs(self.mix(0, count)[:, 0] - wanted)[inner]
                self.assertLess(off.max(), FAITHFUL)

    def test_kept_pitch_stays_at_speeds_and_on_ramps(self) -> None:
        for factor in (0.5, 2.0, -1.5):
            self.setUp()
            self.place(factor)
            length = int(2 / abs(factor) * RATE) - 9600
            got = self.mix(4800, length)
            self.assertAlmostEqual(440, loudest(got), delta=2)
            level = np.sqrt(np.mean(got[:, 0] ** 2))
            self.assertAlmostEqual(0.5 / np.sqrt(2), level, delta=0.06)
        self.setUp()
        self.scene.place("tone", 2.0, into=1.0, mode="above")
        points = [{"at": 0, "speed": 0.5}, {"at": 2 * SECOND, "speed": 3}]
        self.scene.do(kind="ramp", clip=self.clip(), points=points, keep="length")
        self.assertAlmostEqual(440, loudest(self.mix(4800, 80_000)), delta=3)

    def test_however_the_range_is_cut_the_samples_are_the_same(self) -> None:
        for pitch in (True, False):
            self.setUp()
            self.scene.place("tone", 2.0, into=1.0, mode="above", keep_pitch=pitch)
            points = [{"at": 0, "speed": 2}, {"at": SECOND, "speed": 0.4}]
            self.scene.do(kind="ramp", clip=self.clip(), points=points, keep="length")
            whole = self.mix(0, 96_000)
            parts = [self.mix(a, b - a) for a, b in ((0, 7), (7, 40_001), (40_001, 96_000))]
            self.assertLess(np.abs(np.concatenate(parts) - whole).max(), 1e-6)

    def test_a_split_of_a_ramp_is_not_heard(self) -> None:
        self.scene.place("tone", 2.0, into=1.0, mode="above", keep_pitch=False)
        points = [{"at": 0, "speed": 1.5}, {"at": 2 * SECOND, "speed": 0.5}]
        self.scene.do(kind="ramp", clip=self.clip(), points=points, keep="length")
        whole = self.mix(0, 96_000)
        self.scene.do(kind="split", at=SECOND)
        self.assertLess(np.abs(self.mix(0, 96_000) - whole).max(), FAITHFUL)

    def test_below_the_limit_it_is_silent_and_gets_there_without_a_click(self) -> None:
        self.scene.place("tone", 3.0, into=1.0, mode="above", silent_below=0.5)
        points = [{"at": 0, "speed": 1.5}, {"at": 3 * SECOND, "speed": 0.0}]
        self.scene.do(kind="ramp", clip=self.clip(), points=points, keep="length", soft=False)
        got = self.mix(0, 144_000)[:, 0]
        self.assertFalse(got[98_000:].any())
        self.assertTrue(got[90_000:94_000].any())
        high = sosfilt(butter(8, 8000, "high", fs=RATE, output="sos"), got)
        self.assertLess(np.abs(high[2000:]).max(), 0.01)

    def test_what_would_fold_over_is_filtered_out(self) -> None:
        time = np.arange(48_000) / RATE
        shrill = np.repeat(np.sin(2 * np.pi * 15_000 * time)[:, None], 2, axis=1).astype(np.float32)
        positions = np.arange(1000, 9000) * 4.0 + 100
        out = interpolated(shrill, positions, np.full(8000, 4.0))
        self.assertLess(np.abs(out[:, 0]).max(), 0.002)

    def test_speed_of_a_group_goes_for_its_sound(self) -> None:
        self.scene.place("film", 2.0)
        self.scene.do(kind="group", clips=[self.clip()])
        plain = self.mix(0, 96_000)
        self.scene.do(kind="adjust", clips=[self.clip()], values={"keep_pitch": False})
        self.scene.do(kind="set_speed", clips=[self.clip()], factor=2)
        self.assertEqual(SECOND, self.scene.document.length)
        self.assertAlmostEqual(440, loudest(plain[4800:90_000]), delta=2)
        self.assertAlmostEqual(880, loudest(self.mix(4800, 38_400)), delta=2)


class CrossfadeTest(MixedTest):
    def test_sound_crosses_with_equal_power_to_the_sample(self) -> None:
        self.scene.place("film", 1.0, into=0.5)
        self.scene.place("film", 1.0, into=1.5)
        later = self.scene.document.main.clips[1].id
        self.scene.do(
            kind="set_transition", clip=later, transition={"kind": "dissolve", "length": SECOND // 5 * 2}
        )  # fmt: skip
        got = self.mix(0, 96_000)[:, 0]
        sources = self.sources.folder("film")
        from kitecore.media.soundcopy import read_sound

        first = read_sound(sources, 24_000, 57_600)[:, 0]
        second = read_sound(sources, 72_000 - 9_600, 57_600)[:, 0]
        ramp = np.arange(19_200)
        falling, rising = (equal_power(ramp, 19_200, rising=up) for up in (False, True))
        self.assertLess(np.abs(falling**2 + rising**2 - 1).max(), 1e-6)
        wanted = first[38_400:] * falling + second[:19_200] * rising
        self.assertLess(np.abs(got[38_400:57_600] - wanted).max(), 1e-6)
        self.assertLess(np.abs(got[200:38_400] - first[200:38_400]).max(), 1e-6)

    def test_a_crossfade_does_not_click(self) -> None:
        self.scene.place("tone", 1.0, mode="above")
        self.scene.place("other", 1.0, into=2.0, at=1.0, mode="above")
        later = next(c.id for _, c in self.scene.document.clips() if c.name == "other")
        self.scene.do(
            kind="set_transition",
            clip=later,
            transition={"kind": "dissolve", "length": SECOND // 5},
            short="hold",
        )
        got = self.mix(0, 96_000)[:, 0]
        high = sosfilt(butter(8, 8000, "high", fs=RATE, output="sos"), got)
        self.assertLess(np.abs(high[2000:94_000]).max(), 0.002)
