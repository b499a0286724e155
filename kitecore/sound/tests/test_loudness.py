"""Loudness, held against FFmpeg's meter and the signals of EBU Tech 3341 and 3342, by formula."""

from __future__ import annotations

from unittest import TestCase

import av
import numpy as np

from kitecore.sound import loudness
from kitecore.sound.ramps import RATE, Samples
from kitecore.sound.truepeak import true_levels

Steps = list[tuple[float, float]]


def tone(steps: Steps, frequency: float = 1000.0) -> Samples:
    """A tone on both sides, by levels in dB of full scale and seconds."""
    levels = np.concatenate([np.full(round(s * RATE), 10 ** (db / 20)) for db, s in steps])
    wave = levels * np.sin(2 * np.pi * frequency * np.arange(len(levels)) / RATE)
    return np.repeat(wave[:, None], 2, axis=1).astype(np.float32)


def parts_of(samples: Samples) -> loudness.Numbers:
    more = -len(samples) % loudness.PART
    return loudness.powers(np.pad(samples, ((loudness.LEAD, more), (0, 0))))


def by_ffmpeg(samples: Samples) -> tuple[float, float, float]:
    """Integrated loudness, range and true peak."""
    graph = av.filter.Graph()
    source = graph.add_abuffer(format="flt", sample_rate=RATE, layout="stereo", time_base=None)
    meter = graph.add("ebur128", "metadata=1:peak=true")
    sink = graph.add("abuffersink")
    source.link_to(meter)
    meter.link_to(sink)
    graph.configure()
    found: dict[str, str] = {}
    for at in range(0, len(samples), RATE):
        part = np.ascontiguousarray(samples[at : at + RATE]).reshape(1, -1)
        frame = av.AudioFrame.from_ndarray(part, format="flt", layout="stereo")
        frame.sample_rate, frame.pts = RATE, at
        graph.push(frame)
        while True:
            try:
                found.update(graph.pull().metadata)
            except (av.BlockingIOError, av.EOFError):
                break
    peaks = [float(found[name]) for name in found if "true_peak" in name]
    peak = 20 * np.log10(max(peaks)) if peaks else 0.0
    return float(found["lavfi.r128.I"]), float(found["lavfi.r128.LRA"]), float(peak)


class LoudnessTest(TestCase):
    def test_the_signals_of_the_standard(self) -> None:
        """EBU Tech 3341, cases 1 to 5: integrated loudness within 0.1 LU."""
        cases: list[tuple[Steps, float]] = [
            ([(-23, 20)], -23),
            ([(-33, 20)], -33),
            ([(-36, 10), (-23, 60), (-36, 10)], -23),
            ([(-72, 10), (-36, 10), (-23, 60), (-36, 10), (-72, 10)], -23),
            ([(-26, 20), (-20, 20.1), (-26, 20)], -23),
        ]
        for steps, wanted in cases:
            self.assertAlmostEqual(wanted, loudness.whole(parts_of(tone(steps))), delta=0.1)

    def test_the_ranges_of_the_standard(self) -> None:
        """EBU Tech 3342, cases 1 to 4: within 1 LU."""
        cases: list[tuple[Steps, float]] = [
            ([(-20, 20), (-30, 20)], 10),
            ([(-20, 20), (-15, 20)], 5),
            ([(-40, 20), (-20, 20)], 20),
            ([(-50, 20), (-35, 20), (-20, 20), (-35, 20), (-50, 20)], 15),
        ]
        for steps, wanted in cases:
            self.assertAlmostEqual(wanted, loudness.spread(parts_of(tone(steps))), delta=1)

    def test_a_steady_tone_is_as_loud_at_every_moment(self) -> None:
        parts = parts_of(tone([(-23, 5)]))
        for window in (loudness.MOMENT, loudness.SHORT):
            line = loudness.over_time(parts, window)
            self.assertLess(np.abs(line[window:] + 23).max(), 0.1)

    def test_it_agrees_with_an_independent_meter(self) -> None:
        rng = np.random.default_rng(4)
        swell = 0.02 + 0.2 * np.sin(np.arange(40 * RATE) / RATE / 3) ** 2
        noise = (rng.normal(0, 1, (40 * RATE, 2)) * swell[:, None] * [1.0, 0.4]).astype(np.float32)
        low = tone([(-12, 8), (-40, 6), (-20, 10)], 60)
        for sound in (noise, low):
            whole, spread, peak = by_ffmpeg(sound)
            parts = parts_of(sound)
            self.assertAlmostEqual(whole, loudness.whole(parts), delta=0.1)
            self.assertAlmostEqual(spread, loudness.spread(parts), delta=0.5)
            own = 20 * np.log10(true_levels(sound).max())
            self.assertAlmostEqual(peak, own, delta=0.3)

    def test_silence_and_what_is_shorter_than_a_block(self) -> None:
        self.assertEqual(loudness.SILENCE, loudness.whole(parts_of(tone([(-200, 3)]))))
        self.assertEqual(0.0, loudness.spread(parts_of(tone([(-23, 1)]))))
        self.assertGreater(loudness.whole(parts_of(tone([(-23, 0.2)]))), -35)

    def test_true_peaks_of_the_standard(self) -> None:
        """EBU Tech 3341, cases 15 to 18: tones of a quarter of the rate and less, within 0.4 dB."""
        for times, turn in ((4, 0.0), (4, 45.0), (6, 60.0), (8, 67.5)):
            time = np.arange(RATE)
            wave = 0.5 * np.sin(2 * np.pi * time / times + np.radians(turn))
            sound = np.repeat(wave[:, None], 2, axis=1).astype(np.float32)
            found = 20 * np.log10(true_levels(sound)[100:-100].max())
            self.assertTrue(-6.4 < found < -5.8, found)
