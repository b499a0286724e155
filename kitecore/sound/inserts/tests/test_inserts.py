"""Inserts: what each does, and that a piece made alone is the same as a part of the whole."""

from __future__ import annotations

from itertools import pairwise
from typing import Any
from unittest import TestCase

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st
from numpy.typing import NDArray
from pydantic import TypeAdapter
from scipy.signal import butter, freqz, sosfreqz

from kitecore.document.inserts import Insert, InsertBase, insert_kinds
from kitecore.sound import biquad
from kitecore.sound.inserts import chain_reach, chained, insert_sounds
from kitecore.sound.inserts._base import Over
from kitecore.sound.inserts.denoise import learnt
from kitecore.sound.inserts.equaliser import curve_of, sections_of
from kitecore.sound.ramps import RATE, SAMPLE_TICKS, Samples

_inserts: TypeAdapter[Any] = TypeAdapter(Insert)
SECOND = RATE * SAMPLE_TICKS


def insert(kind: str, **values: Any) -> Any:
    return _inserts.validate_python({"kind": kind, **values})


def tone(frequency: float, level: float = 0.5, seconds: float = 2.0) -> Samples:
    time = np.arange(round(seconds * RATE)) / RATE
    wave = level * np.sin(2 * np.pi * frequency * time)
    return np.repeat(wave[:, None], 2, axis=1).astype(np.float32)


def noise(seconds: float, level: float = 0.1, seed: int = 1) -> Samples:
    made = np.random.default_rng(seed).normal(0, level, (round(seconds * RATE), 2))
    return made.astype(np.float32)


def voice(seconds: float = 3.0) -> Samples:
    """Syllables of harmonics under two formants, with pauses between."""
    time = np.arange(round(seconds * RATE)) / RATE
    wave = np.zeros(len(time))
    for harmonic in range(1, 30):
        at = 130.0 * harmonic
        formant = np.exp(-(((at - 600) / 250) ** 2)) + 0.5 * np.exp(-(((at - 1700) / 400) ** 2))
        wave += (formant + 0.02) * np.sin(2 * np.pi * at * time)
    syllables = np.clip(np.sin(2 * np.pi * 2 * time) * 3, 0, 1)
    return np.repeat((0.12 * wave * syllables)[:, None], 2, axis=1).astype(np.float32)


def reader(sound: Samples, off: int = 0) -> Any:
    """Reads a sound that begins at sample ``off``; silence around it."""

    def read(first: int, count: int) -> Samples:
        out = np.zeros((count, 2), np.float32)
        a, b = max(first, off), min(first + count, off + len(sound))
        if b > a:
            out[a - first : b - first] = sound[a - off : b - off]
        return out

    return read


def run(one: InsertBase, sound: Samples) -> Samples:
    return chained((one,), reader(sound), 0, len(sound))


def db(sound: NDArray[Any]) -> float:
    return float(10 * np.log10(np.square(sound.astype(float)).mean() + 1e-20))


def set_out(kind: str) -> Any:
    """An insert that does something clearly, and more or less of it over time."""

    def moving(first: float, last: float) -> dict[str, Any]:
        return {"keys": [{"at": 0, "value": first}, {"at": 3 * SECOND, "value": last}]}

    values: dict[str, dict[str, Any]] = {
        "equaliser": {
            "low_cut": {"on": True, "frequency": 60},
            "bell": {"frequency": 400, "gain": moving(-6, 9), "q": 2},
            "high_shelf": {"gain": 5},
        },
        "compressor": {"threshold": moving(-40, -20), "ratio": 4, "makeup": moving(0, 6)},
        "gate": {"threshold": -20, "depth": moving(10, 30)},
        "de_esser": {"threshold": moving(-50, -30)},
        "room": {"seconds": 0.5, "mix": moving(0, 60)},
        "delay": {"seconds": 0.1, "again": 40, "across": True, "mix": moving(80, 10)},
        "denoise": {"noise": learnt(noise(1.0, 0.02, seed=9)), "amount": moving(20, 2)},
    }
    return insert(kind, **values[kind])


class CutTest(TestCase):
    def test_every_insert_has_its_processing(self) -> None:
        self.assertEqual(set(insert_kinds), set(insert_sounds))

    def test_pieces_join_without_a_trace(self) -> None:
        sound = voice(4.0) + noise(4.0, 0.02)
        for kind in insert_kinds:
            with self.subTest(kind):
                one = set_out(kind)
                read = reader(sound)
                whole = chained((one,), read, 0, len(sound))
                self.assertGreater(db(whole - sound), -60)
                borders = [0, 7, 48_000, 100_001, 150_480, len(sound)]
                parts = [chained((one,), read, a, b - a) for a, b in pairwise(borders)]
                self.assertLess(np.abs(np.concatenate(parts) - whole).max(), 10 ** (-90 / 20))

    @settings(max_examples=8, deadline=None)
    @given(
        st.lists(st.sampled_from(sorted(insert_kinds)), min_size=1, max_size=4),
        st.integers(0, 120_000),
        st.integers(1, 48_000),
    )
    def test_so_do_those_of_whole_chains(self, kinds: list[str], first: int, count: int) -> None:
        chain = tuple(set_out(kind) for kind in kinds)
        read = reader(voice(4.0) + noise(4.0, 0.02))
        whole = chained(chain, read, 0, 4 * RATE)
        part = chained(chain, read, first, count)
        self.assertLess(np.abs(whole[first : first + count] - part).max(), 10 ** (-90 / 20))

    def test_what_is_off_or_idle_passes_to_the_bit(self) -> None:
        sound = noise(1.0)
        idle = [insert("equaliser"), insert("denoise"), insert("room", mix=0)]
        for one in [*idle, insert("compressor", on=False)]:
            self.assertEqual((0, 0), chain_reach((one,)))
            np.testing.assert_array_equal(sound, run(one, sound))


class EqualiserTest(TestCase):
    def test_its_cuts_are_those_of_an_independent_library(self) -> None:
        at = np.geomspace(30, 18_000, 60)
        for kind, made in (("high", biquad.high_pass), ("low", biquad.low_pass)):
            rows = made(np.array([900.0]))
            _, wanted = sosfreqz(butter(2, 900, f"{kind}pass", fs=RATE, output="sos"), at, fs=RATE)
            got = biquad.response([rows], at)
            np.testing.assert_allclose(got, 20 * np.log10(np.abs(wanted)), atol=0.05)

    def test_a_tone_comes_out_as_its_curve_says(self) -> None:
        one = insert(
            "equaliser",
            low_shelf={"gain": 6, "frequency": 150},
            bell={"gain": -9, "frequency": 1000, "q": 3},
            high_cut={"on": True, "frequency": 9000},
        )
        frequencies = np.array([50.0, 150, 700, 1000, 4000, 12_000])
        for frequency, told in zip(frequencies, curve_of(one, 0, frequencies), strict=True):
            sound = tone(frequency)
            got = db(run(one, sound)[RATE:]) - db(sound[RATE:])
            self.assertAlmostEqual(told, got, delta=0.05)

    def test_shelves_and_bells_reach_their_gain_where_they_should(self) -> None:
        one = insert("equaliser", low_shelf={"gain": 8}, high_shelf={"gain": -5})
        low, high = curve_of(one, 0, np.array([12.0, 21_000.0]))
        self.assertAlmostEqual(8, low, delta=0.1)
        self.assertAlmostEqual(-5, high, delta=0.1)
        b, a = np.split(np.insert(sections_of(one, Over(0, 1))[0][0], 3, 1.0), 2)
        _, response = freqz(b, a, [120.0], fs=RATE)
        self.assertAlmostEqual(4, 20 * np.log10(np.abs(response[0])), delta=0.05)

    def test_keys_move_it(self) -> None:
        keys = {"keys": [{"at": 0, "value": 0.0}, {"at": 2 * SECOND, "value": -20.0}]}
        one = insert("equaliser", bell={"frequency": 1000, "gain": keys})
        sound = tone(1000)
        done = run(one, sound)
        self.assertAlmostEqual(-1.0, db(done[4000:5600]) - db(sound[4000:5600]), delta=0.2)
        self.assertAlmostEqual(-19.0, db(done[90_400:92_000]) - db(sound[:1600]), delta=0.3)


class CompressorTest(TestCase):
    def test_a_steady_tone_is_as_much_quieter_as_the_ratio_says(self) -> None:
        one = insert("compressor", threshold=-24, ratio=4, knee=0, attack=1, release=500)
        for level in (-30.0, -20.0, -12.0, 0.0):
            sound = tone(1000, 10 ** (level / 20))
            wanted = 0.0 if level < -24 else (level + 24) * 3 / 4
            got = db(sound[RATE:]) - db(run(one, sound)[RATE:])
            self.assertAlmostEqual(wanted, got, delta=0.35)

    def test_it_takes_hold_and_lets_go_in_its_time(self) -> None:
        one = insert("compressor", threshold=-40, ratio=100, knee=0, attack=50, release=200)
        sound = np.concatenate([tone(997, 0.01, 1.0), tone(997, 1.0, 1.0), tone(997, 0.01, 1.0)])
        done = run(one, sound)

        def less(at: float) -> float:
            part = slice(round(at * RATE), round((at + 0.01) * RATE))
            return db(sound[part]) - db(done[part])

        most = less(1.9)
        self.assertAlmostEqual(39.6, most, delta=0.5)
        self.assertAlmostEqual(0.9 * most, less(1.045), delta=3)
        self.assertAlmostEqual(0.1 * most, less(2.195), delta=3)

    def test_both_sides_get_one_gain(self) -> None:
        sound = tone(500) * np.array([1.0, 0.1], np.float32)
        done = run(insert("compressor", threshold=-40), sound)
        np.testing.assert_allclose(done[:, 1], 0.1 * done[:, 0], atol=1e-6)


class VoiceTest(TestCase):
    def test_a_gate_closes_in_pauses_and_is_open_before_a_word(self) -> None:
        sound = np.concatenate([noise(1.0, 0.001), tone(300, 0.3, 0.5), noise(1.5, 0.001)])
        done = run(insert("gate", threshold=-40, depth=20, hold=100, release=100), sound)
        self.assertAlmostEqual(-20, db(done[:24_000]) - db(sound[:24_000]), delta=0.1)
        word = slice(RATE, RATE + 24_000)
        self.assertAlmostEqual(0, db(done[word]) - db(sound[word]), delta=0.05)
        first = slice(RATE, RATE + 100)
        self.assertAlmostEqual(0, db(done[first]) - db(sound[first]), delta=2.1)
        after = slice(RATE + 24_000 + 24_000, RATE + 24_000 + 40_000)
        self.assertAlmostEqual(-20, db(done[after]) - db(sound[after]), delta=0.5)

    def test_a_de_esser_softens_what_is_sharp_and_nothing_else(self) -> None:
        one = insert("de_esser", threshold=-40, most=9)
        for frequency, wanted in ((400, 0.0), (2500, 0.0), (8000, -9.0)):
            sound = tone(frequency, 0.4)
            got = db(run(one, sound)[RATE:-4800]) - db(sound[RATE:-4800])
            self.assertAlmostEqual(wanted, got, delta=0.15)

    def test_noise_goes_and_the_voice_stays(self) -> None:
        clean, hum = voice(), noise(3.0, 0.012)
        one = insert("denoise", noise=learnt(noise(1.0, 0.012, seed=5)), amount=14)
        done = run(one, clean + hum)
        level = np.abs(clean[:, 0])
        speaking = np.convolve(level, np.ones(2400) / 2400, "same") > 0.02
        pauses = np.convolve(level, np.ones(9600) / 9600, "same") < 1e-4
        self.assertLess(db(done[pauses]) - db(hum[pauses]), -6)
        self.assertGreater(db(done[speaking]) - db(clean[speaking]), -1)
        self.assertLess(abs(db(done[speaking]) - db(clean[speaking])), 1)
        # What is left of the noise beside the voice, held against the clean voice.
        self.assertLess(db((done - clean)[speaking]), db(hum[speaking]))


class WallsTest(TestCase):
    def test_a_room_dies_away_in_its_time(self) -> None:
        click = np.zeros((2 * RATE, 2), np.float32)
        click[0] = 1
        done = run(insert("room", seconds=0.6, ahead=20, dull=0, mix=100), click)
        self.assertLess(np.abs(done[1:900]).max(), 1e-6)
        energy = np.cumsum(np.square(done[::-1, 0].astype(float)))[::-1]
        fall = 10 * np.log10(energy / energy[0] + 1e-12)
        ten, forty = np.argmax(fall < -10), np.argmax(fall < -40)
        self.assertAlmostEqual(0.6, (forty - ten) * 2 / RATE, delta=0.05)

    def test_a_delay_comes_again_quieter_and_from_the_other_side(self) -> None:
        click = np.zeros((RATE, 2), np.float32)
        click[0, 0] = 1
        one = insert("delay", seconds=0.1, again=50, mix=100, across=True)
        done = run(one, click)
        self.assertEqual([(0, 0), (4800, 1), (9600, 0)], [tuple(p) for p in np.argwhere(done)[:3]])
        self.assertAlmostEqual(0.5, float(done[9600, 0]), places=6)
