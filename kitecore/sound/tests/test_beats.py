"""Beats of click tracks: steady, with swing, with a change of tempo; held against the truth."""

from __future__ import annotations

from unittest import TestCase

import numpy as np
from numpy.typing import NDArray

from kitecore.sound.beats import beats_of
from kitecore.sound.ramps import RATE

Times = NDArray[np.float64]


def clicks(
    times: Times, levels: NDArray[np.float64] | float = 1.0, noise: float = 0.002
) -> NDArray[np.float32]:
    rng = np.random.default_rng(2)
    out = rng.normal(0, noise, int((times[-1] + 1.5) * RATE))
    for at, level in zip(times, np.broadcast_to(levels, times.shape), strict=True):
        begin = round(at * RATE)
        fall = np.exp(-np.arange(2400) / 300)
        out[begin : begin + 2400] += level * rng.normal(0, 0.5, 2400) * fall
    return out.astype(np.float32)


def hit(found: tuple[int, ...], wanted: Times, within: float = 0.03) -> float:
    """The share of beats that were found within 30 ms."""
    at = np.array(found) / RATE
    return float(np.mean([np.abs(at - one).min(initial=9.0) < within for one in wanted]))


class BeatsTest(TestCase):
    def test_steady_ones_of_every_tempo(self) -> None:
        for tempo in (72, 90, 112.5, 128, 150):
            with self.subTest(tempo):
                beats = 0.4 + np.arange(40) * 60 / tempo
                found = beats_of(clicks(beats))
                self.assertGreaterEqual(hit(found.at, beats[1:-1]), 0.95)
                self.assertAlmostEqual(tempo, found.tempo, delta=1.5)
                self.assertLess(len(found.at), 44)

    def test_swing_does_not_lead_astray(self) -> None:
        beats = 0.3 + np.arange(36) * 0.5
        off = beats[:-1] + 0.5 * 2 / 3
        times = np.sort(np.concatenate([beats, off]))
        levels = np.where(np.isin(times, beats), 1.0, 0.35)
        found = beats_of(clicks(times, levels))
        self.assertGreaterEqual(hit(found.at, beats[1:-1]), 0.95)

    def test_a_change_of_tempo_is_followed(self) -> None:
        slow = 0.2 + np.arange(28) * 60 / 100
        fast = slow[-1] + np.arange(1, 40) * 60 / 126
        beats = np.concatenate([slow, fast])
        found = beats_of(clicks(beats))
        self.assertGreaterEqual(hit(found.at, beats[1:-1]), 0.95)

    def test_bars_begin_where_it_is_loudest(self) -> None:
        beats = 0.5 + np.arange(40) * 0.5
        levels = np.where(np.arange(40) % 4 == 2, 1.0, 0.4)
        found = beats_of(clicks(beats, levels))
        first = found.at[found.first] / RATE
        self.assertAlmostEqual(0.0, (first - beats[2] + 0.02) % 2.0, delta=0.06)

    def test_silence_and_scraps_have_none(self) -> None:
        for sound in (np.zeros(5 * RATE), np.zeros(100), np.zeros(0)):
            self.assertEqual((), beats_of(sound.astype(np.float32)).at)
