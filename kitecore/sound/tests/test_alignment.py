"""One recording found in another, held against how it was made."""

from __future__ import annotations

from unittest import TestCase

import numpy as np
import scipy.signal
from numpy.typing import NDArray

from kitecore.sound.alignment import HEARD_RATE, Alignment, aligned, heard

Mono = NDArray[np.float32]
RATE = 16_000


def spoken(seed: int, seconds: float) -> Mono:
    """Like somebody who speaks: noise of a voice's bands in syllables, with pauses."""
    luck = np.random.default_rng(seed)
    count = round(seconds * RATE)
    syllables = np.clip(luck.standard_normal(count * 8 // RATE + 2), 0, None)
    noise = luck.standard_normal(count) * np.repeat(syllables, RATE // 8)[:count]
    bands = scipy.signal.butter(2, [200, 2500], "band", fs=RATE)
    voice = scipy.signal.lfilter(*bands, noise)
    return (voice / np.abs(voice).max()).astype(np.float32)


def hummed(seed: int, seconds: float) -> Mono:
    """Music: all in one tuning and at one pace, chords that come again, each note struck anew."""
    luck = np.random.default_rng(seed)
    time = np.arange(round(seconds * RATE)) / RATE
    chords = 220 * 2 ** (luck.integers(0, 13, (4, 3)) / 12)
    beat = (time * 2).astype(int)
    phases = luck.uniform(0, 2 * np.pi, (beat[-1] + 1, 3))[beat]
    notes = np.sin(2 * np.pi * chords[beat % 4] * time[:, None] + phases)
    return (notes.sum(axis=1) * np.exp(-3 * (time * 2 % 1))).astype(np.float32)


def part(sound: Mono, begin: float, seconds: float) -> Mono:
    return sound[round(begin * RATE) : round((begin + seconds) * RATE)]


def in_noise(sound: Mono, seed: int, db: float) -> Mono:
    luck = np.random.default_rng(seed)
    noise = luck.standard_normal(len(sound)) * sound.std() * 10 ** (-db / 20)
    return (sound + noise).astype(np.float32)


def in_a_room(sound: Mono, seed: int) -> Mono:
    """As far from the speaker as its echoes are loud."""
    luck = np.random.default_rng(seed)
    time = np.arange(RATE // 2) / RATE
    answer = luck.standard_normal(len(time)) * np.exp(-time / 0.12)
    answer[0] = np.sqrt(np.sum(answer[1:] ** 2))
    return scipy.signal.fftconvolve(sound, answer)[: len(sound)].astype(np.float32)


def by_another_clock(sound: Mono, drift: float) -> Mono:
    """What a recorder whose clock runs faster by ``drift`` has taken of it."""
    at = np.arange(0, len(sound) - 1, 1 / (1 + drift))
    return np.interp(at, np.arange(len(sound)), sound).astype(np.float32)


class AlignmentTest(TestCase):
    def found(self, one: Mono, other: Mono) -> Alignment | None:
        return aligned(heard(one, RATE), heard(other, RATE))

    def holds(self, one: Mono, other: Mono, offset: float) -> Alignment:
        """Within 1 ms, and the same from the other side."""
        found, back = self.found(one, other), self.found(other, one)
        assert found is not None and back is not None
        self.assertAlmostEqual(offset, found.offset, delta=0.001)
        self.assertAlmostEqual(-offset, back.offset, delta=0.001)
        return found

    def test_the_same_sound_at_another_place(self) -> None:
        sound = spoken(1, 60)
        for begin, offset in ((20.0, 12.34567), (20.0, -7.9), (30.0, 15.5)):
            there, here = part(sound, begin, 30), part(sound, begin + offset, 30)
            found = self.holds(here, there, round(offset * RATE) / RATE)
            self.assertGreater(found.confidence, 0.9)

    def test_noise_rooms_levels_and_bad_microphones(self) -> None:
        sound = spoken(2, 80)
        there, here = part(sound, 10, 60), part(sound, 22.2, 45)
        telephone = scipy.signal.butter(2, [400, 1500], "band", fs=RATE)
        for name, heard_so in {
            "noise as loud as it": in_noise(here, 3, 0),
            "a room": in_a_room(here, 4),
            "a room and noise": in_noise(in_a_room(here, 4), 5, 3),
            "quietly": here * np.float32(0.002),
            "clipped": np.clip(here * 20, -1, 1),
            "few bands": scipy.signal.lfilter(*telephone, here).astype(np.float32),
            "few bits": (np.round(here * 12) / 12).astype(np.float32),
        }.items():
            with self.subTest(name):
                self.holds(heard_so, in_noise(there, 6, 10), 12.2)

    def test_clocks_that_differ(self) -> None:
        sound = spoken(7, 320)
        there = part(sound, 0, 300)
        for drift in (1e-4, -1e-4):
            here = by_another_clock(part(sound, 40, 260), drift)
            found = self.found(here, there)
            assert found is not None
            middle = 40 - 130 * drift
            self.assertAlmostEqual(middle, found.offset, delta=0.001)
            self.assertAlmostEqual(drift, found.drift, delta=2e-6)
            self.assertAlmostEqual(130, found.middle, delta=1)
            back = self.found(there, here)
            assert back is not None
            self.assertAlmostEqual(-drift, back.drift, delta=2e-6)
            self.assertAlmostEqual(170, back.middle, delta=1)

    def test_half_an_hour_apart(self) -> None:
        sound = spoken(8, 1900)
        found = self.found(in_noise(part(sound, 1795.5, 60), 9, 0), sound)
        assert found is not None
        self.assertAlmostEqual(1795.5, found.offset, delta=0.001)

    def test_unrelated_sounds_are_refused(self) -> None:
        makers = [spoken, hummed]
        sounds = [
            heard(in_noise(makers[seed % 2](seed, 20 + seed), seed, 20), RATE) for seed in range(21)
        ]
        pairs = [(a, b) for a in range(21) for b in range(a)]
        self.assertGreaterEqual(len(pairs), 200)
        found = [pair for pair in pairs if aligned(sounds[pair[0]], sounds[pair[1]])]
        self.assertEqual([], found)

    def test_nothing_to_hear_is_no_match(self) -> None:
        sound = heard(spoken(1, 10), RATE)
        silence = np.zeros(10 * HEARD_RATE, np.float32)
        for other in (silence, sound[:100], sound[:0]):
            self.assertIsNone(aligned(other, sound))
            self.assertIsNone(aligned(sound, other))
        self.assertIsNone(aligned(silence, silence))
