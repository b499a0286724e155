"""The shelf of sounds: twelve to lay under pictures and three loops, all from nothing."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path
from typing import Final

import numpy as np
from scipy.signal import butter, sosfilt

from demo.sounds import SOUND_RATE, Samples, brushes, plucked, rustle, wind, write_flac

_BEAT: Final = 60 / 96
_NOTES: Final = (57, 64, 69, 72, 76, 72, 69, 64)


def make_shelf_sounds(folder: Path) -> list[Path]:
    paths = []
    for name, make in SOUNDS.items():
        samples = make()
        write_flac(folder / name, 0.8 * samples / np.abs(samples).max())
        paths.append(folder / name)
    return paths


def _time(seconds: float) -> Samples:
    return np.arange(round(seconds * SOUND_RATE)) / SOUND_RATE


def _noise(seconds: float, seed: int) -> Samples:
    return np.random.default_rng(seed).normal(0, 1, round(seconds * SOUND_RATE))


def _band(samples: Samples, low: float, high: float) -> Samples:
    sos = butter(2, (low, high), "band", fs=SOUND_RATE, output="sos")
    return np.asarray(sosfilt(sos, samples))


def _low(samples: Samples, below: float) -> Samples:
    return np.asarray(sosfilt(butter(2, below, fs=SOUND_RATE, output="sos"), samples))


def _faded(samples: Samples, seconds: float = 0.05) -> Samples:
    """Without a click at either end."""
    count = round(seconds * SOUND_RATE)
    ramp = np.sin(np.linspace(0, np.pi / 2, count)) ** 2
    out = samples.copy()
    out[:count] *= ramp
    out[-count:] *= ramp[::-1]
    return out


def _gust() -> Samples:
    time = _time(4.5)
    swell = np.exp(-(((time - 1.8) / 1.1) ** 2))
    whistle = _band(_noise(4.5, 3), 900, 1300) * swell**3
    return _faded(wind(4.5) * (0.3 + 2 * swell) + 0.12 * whistle, 0.4)


def _steps() -> Samples:
    out = np.zeros(round(2.6 * SOUND_RATE))
    for number in range(4):
        time = _time(0.25)
        thump = np.sin(2 * np.pi * 70 * time) * np.exp(-time * 40)
        crunch = _band(_noise(0.25, 20 + number), 900, 5000) * np.exp(
            -((time - 0.03) ** 2) / 0.0012
        )
        at = round((0.1 + number * 0.58 + 0.02 * (number % 2)) * SOUND_RATE)
        out[at : at + len(time)] += thump + 0.35 * crunch
    return out


def _bell() -> Samples:
    """Partials of a bell (hum, prime, tierce, quint, nominal and above), each with its own fall."""
    time = _time(5.0)
    partials = ((0.5, 0.7), (1, 1), (1.2, 0.9), (1.5, 0.6), (2, 0.9), (2.67, 0.4), (4.1, 0.25))
    struck = sum(
        level * np.sin(2 * np.pi * 523 * ratio * time) * np.exp(-time * (0.6 + ratio * 0.7))
        for ratio, level in partials
    )
    return _faded(np.asarray(struck), 0.002)


def _bang_near() -> Samples:
    time = _time(3.0)
    crack = _noise(3.0, 31) * np.exp(-time * 60)
    body = _low(_noise(3.0, 32), 240) * np.exp(-time * 4) * 6
    boom = np.sin(2 * np.pi * (38 * time + 6 * (1 - np.exp(-time * 9)))) * np.exp(-time * 3.2)
    return np.asarray(np.tanh(1.6 * (crack + body + 1.4 * boom)))


def _bang_far() -> Samples:
    """The same from a valley away: dull, late to rise, coming back from the slopes."""
    near = np.concatenate([_bang_near(), np.zeros(4 * SOUND_RATE)])
    dull = _low(_low(near, 220), 400)
    out = np.zeros(len(dull))
    for late, level in ((0.0, 1.0), (0.21, 0.5), (0.57, 0.36), (1.1, 0.2), (1.9, 0.1)):
        at = round(late * SOUND_RATE)
        out[at:] += level * dull[: len(dull) - at]
    return _faded(out, 0.3)


def _alarm() -> Samples:
    time = _time(4.8)
    pitch = np.where((time / 0.4).astype(int) % 2 == 0, 740.0, 932.0)
    turn = 2 * np.pi * np.cumsum(pitch) / SOUND_RATE
    horn = sum(np.sin(turn * odd) / odd for odd in (1, 3, 5, 7))
    return _faded(_low(np.asarray(horn), 4200), 0.02)


def _water() -> Samples:
    rng = np.random.default_rng(40)
    out = 0.12 * _band(_noise(6.0, 41), 400, 3800)
    for _ in range(220):
        time = _time(float(rng.uniform(0.02, 0.09)))
        rise = rng.uniform(500, 1700)
        drop = np.sin(2 * np.pi * (rise * time + rise * 3 * time**2)) * np.exp(-time * 60)
        at = int(rng.integers(0, len(out) - len(time)))
        out[at : at + len(time)] += rng.uniform(0.05, 0.3) * drop
    return _faded(out, 0.3)


def _crowd() -> Samples:
    """Many voices that say nothing: buzzing throats under wandering formants, in syllables."""
    rng = np.random.default_rng(50)
    time = _time(7.0)
    out = np.zeros(len(time))
    for _ in range(18):
        pitch = rng.uniform(95, 240) * (1 + 0.04 * np.sin(2 * np.pi * rng.uniform(0.3, 0.9) * time))
        buzz = 2 * ((np.cumsum(pitch) / SOUND_RATE) % 1) - 1
        first, second = rng.uniform(350, 800), rng.uniform(1000, 2200)
        said = _band(buzz, first * 0.8, first * 1.25) + 0.5 * _band(
            buzz, second * 0.9, second * 1.1
        )
        beat = np.sin(2 * np.pi * rng.uniform(2.4, 4.2) * time + rng.uniform(0, 6))
        phrase = np.sin(2 * np.pi * rng.uniform(0.1, 0.35) * time + rng.uniform(0, 6))
        out += said * np.clip(beat, 0, 1) * np.clip(phrase + 0.4, 0, 1)
    return _faded(_low(out, 2600), 0.5)


def _whoosh(seconds: float) -> Samples:
    """Air that something passes through: noise whose middle rises and falls."""
    time = _time(seconds)
    share = time / seconds
    out = np.zeros(len(time))
    for number, middle in enumerate(np.geomspace(180, 6000, 12)):
        peak = 0.5 - abs(number / 11 - 0.75) * 0.35
        swell = np.exp(-(((share - peak) / 0.16) ** 2))
        out += _band(_noise(seconds, 60 + number), middle * 0.8, middle * 1.25) * swell
    return _faded(out, seconds * 0.08)


def _around(count: int, parts: list[tuple[float, Samples]]) -> Samples:
    """Sounds laid round a circle, so that the end leads to the beginning."""
    out = np.zeros(count)
    for at, sound in parts:
        np.add.at(out, (round(at * SOUND_RATE) + np.arange(len(sound))) % count, sound)
    return out


def _bars(number: int) -> int:
    return round(number * 4 * _BEAT * SOUND_RATE)


def _air_loop() -> Samples:
    """Slow chords that breathe; all tones turn whole times, so there is no seam."""
    count = _bars(4)
    time, seconds = np.arange(count) / SOUND_RATE, count / SOUND_RATE
    out = np.zeros(count)
    for number, note in enumerate((45, 52, 57, 60, 64)):
        turns = round(440 * 2 ** ((note - 69) / 12) * seconds)
        breath = 0.6 + 0.4 * np.sin(2 * np.pi * (1 + number % 3) * time / seconds + number)
        for over, level in ((1, 1.0), (2, 0.3), (3, 0.12)):
            out += level * breath * np.sin(2 * np.pi * turns * over * time / seconds)
    return out


def _brush_loop() -> Samples:
    parts = [
        (step * _BEAT / 2, brush * (1.0 if step % 4 == 2 else 0.45))
        for step, brush in enumerate(brushes(32))
    ]
    return _around(_bars(4), parts)


def _pluck_loop() -> Samples:
    parts = [
        (step * _BEAT / 2, plucked(_NOTES[step % 8] - (2 if 8 <= step < 16 else 0), 1.2))
        for step in range(32)
    ]
    return _around(_bars(4), parts)


SOUNDS: Final[dict[str, Callable[[], Samples]]] = {
    "wind-gust.flac": _gust,
    "paper-fold.flac": lambda: _faded(rustle(1.4), 0.08),
    "steps.flac": _steps,
    "bell.flac": _bell,
    "bang-near.flac": _bang_near,
    "bang-far.flac": _bang_far,
    "alarm.flac": _alarm,
    "water.flac": _water,
    "crowd-murmur.flac": _crowd,
    "whoosh-short.flac": lambda: _whoosh(0.45),
    "whoosh-middle.flac": lambda: _whoosh(1.0),
    "whoosh-long.flac": lambda: _whoosh(2.4),
    "loop-slow-air.flac": _air_loop,
    "loop-brushes.flac": _brush_loop,
    "loop-plucked.flac": _pluck_loop,
}
"""By file name."""
