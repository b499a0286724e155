"""Sounds from nothing: a music loop, wind, paper, and a spoken line."""

from __future__ import annotations

import subprocess
import wave
from collections.abc import Callable, Iterator
from fractions import Fraction
from pathlib import Path

import av
import numpy as np
from numpy.typing import NDArray
from scipy.signal import butter, sosfilt

SOUND_RATE = 48_000
Samples = NDArray[np.float64]
LINE = "Four folds, one string, and a little weather. That is all a kite needs."
_TEMPO = 96
_CHORDS = ((57, 60, 64, 69), (53, 57, 60, 65), (48, 55, 60, 64), (55, 59, 62, 67))


def make_sounds(folder: Path) -> list[Path]:
    paths = [
        folder / name for name in ("paper-weather-loop.wav", "spoken-line.wav", "paper-rustle.flac")
    ]
    _write_wav(paths[0], music())
    speak(paths[1])
    write_flac(paths[2], rustle(5.0))
    return paths


def plucked(note: int, seconds: float) -> Samples:
    """A plucked string (Karplus and Strong, 1983), warmed by a low-pass."""
    rng = np.random.default_rng(note)
    period = round(SOUND_RATE / (440 * 2 ** ((note - 69) / 12)))
    ring = rng.uniform(-1, 1, period)
    out = np.empty(round(seconds * SOUND_RATE))
    for at in range(0, len(out), period):
        part = out[at : at + period]
        part[:] = ring[: len(part)]
        ring = 0.497 * (ring + np.roll(ring, 1))
    soft: Samples = sosfilt(butter(2, 3200, fs=SOUND_RATE, output="sos"), out)
    return soft


def music(bars: int = 8) -> Samples:
    """Plucked chords, a soft bass and a brushed beat; its end leads to its beginning."""
    beat = 60 / _TEMPO
    total = round(bars * 4 * beat * SOUND_RATE)
    out = np.zeros(total)

    def add(sound: Samples, at: float, gain: float) -> None:
        start = round(at * SOUND_RATE)
        index = (start + np.arange(len(sound))) % total
        np.add.at(out, index, sound * gain)

    rng = np.random.default_rng(4)
    for bar in range(bars):
        chord = _CHORDS[bar % 4]
        start = bar * 4 * beat
        add(plucked(chord[0] - 12, 2.2), start, 0.5)
        for step, which in enumerate((0, 2, 1, 3, 2, 1, 3, 2)):
            add(
                plucked(chord[which] + (12 if bar % 2 and step > 5 else 0), 1.4),
                start + step * beat / 2,
                0.3,
            )
        for step, brush in enumerate(_brushes(8, rng)):
            add(brush, start + step * beat / 2, 0.05 if step % 2 else 0.03)
    return 0.55 * out / np.abs(out).max()


def _brushes(count: int, rng: np.random.Generator) -> Iterator[Samples]:
    """Strokes of a brush, every fourth longer."""
    for step in range(count):
        fall = 500 if step % 4 == 2 else 220
        yield rng.normal(0, 1, 3000) * np.exp(-np.arange(3000) / fall)


def brushes(count: int) -> list[Samples]:
    return list(_brushes(count, np.random.default_rng(8)))


def wind(seconds: float) -> Samples:
    rng = np.random.default_rng(11)
    count = round(seconds * SOUND_RATE)
    noise = sosfilt(
        butter(2, (120, 900), "band", fs=SOUND_RATE, output="sos"), rng.normal(0, 1, count)
    )
    time = np.arange(count) / SOUND_RATE
    return 0.1 * noise * (1 + 0.6 * np.sin(time * 1.7) + 0.3 * np.sin(time * 4.1 + 1))


def rustle(seconds: float) -> Samples:
    """Paper being handled: short bursts of crackle."""
    rng = np.random.default_rng(12)
    count = round(seconds * SOUND_RATE)
    out = np.zeros(count)
    for _ in range(round(seconds * 26)):
        length = int(rng.integers(300, 2600))
        at = int(rng.integers(0, count - length))
        out[at : at + length] += (
            rng.normal(0, 1, length) * np.exp(-np.arange(length) / (length / 5)) * rng.random()
        )
    crisp: Samples = sosfilt(butter(2, 1800, "high", fs=SOUND_RATE, output="sos"), out)
    return 0.3 * crisp / np.abs(crisp).max()


Heard = Callable[[float], Samples]
"""So many seconds of what is heard."""

_AMBIENCE: dict[str, Heard] = {"wind": wind, "paper": rustle}


def ambience(kind: str | Heard, seconds: float) -> Iterator[av.AudioFrame]:
    """The sound that a camera hears, in frames for an encoder; a little longer than the picture."""
    hear = _AMBIENCE[kind] if isinstance(kind, str) else kind
    samples = hear(seconds).astype(np.float32)
    for at in range(0, len(samples), 1024):
        part = np.tile(samples[at : at + 1024], (2, 1))
        frame = av.AudioFrame.from_ndarray(
            np.ascontiguousarray(part), format="fltp", layout="stereo"
        )
        frame.sample_rate, frame.pts, frame.time_base = SOUND_RATE, at, Fraction(1, SOUND_RATE)
        yield frame


def _coded(samples: Samples) -> NDArray[np.int16]:
    return np.rint(np.clip(samples, -1, 1) * 32767).astype(np.int16)


def _write_wav(path: Path, samples: Samples) -> None:
    with wave.open(str(path), "wb") as file:
        file.setparams((2, 2, SOUND_RATE, 0, "NONE", ""))
        file.writeframes(np.stack([_coded(samples)] * 2, axis=1).tobytes())


def write_flac(path: Path, samples: Samples) -> None:
    with av.open(str(path), "w") as out:
        stream = out.add_stream("flac", rate=SOUND_RATE, layout="mono", format="s16")
        frame = av.AudioFrame.from_ndarray(_coded(samples)[None], format="s16", layout="mono")
        frame.sample_rate = SOUND_RATE
        out.mux(stream.encode(frame))
        out.mux(stream.encode(None))


def speak(path: Path) -> None:
    """The spoken line, by Debian's espeak-ng."""
    command = ["espeak-ng", "-v", "en-gb+f3", "-s", "140", "-p", "42", "-w", str(path), LINE]
    subprocess.run(command, check=True, capture_output=True)
