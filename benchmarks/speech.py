"""A mouth's poses from a voice: how many are right, and how long a minute takes."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Final

import numpy as np

from benchmarks.rows import Row, seconds
from kitecore.speech.features import energies_of
from kitecore.speech.mouthing import Posed, by_sound, by_words
from kitecore.speech.reading import read
from kitecore.speech.tests.made import FPS, LINES, Heard, heard, row

VOICES: Final = ("en+f3", "en+m3", "en-gb-scotland", "en-us+Andrea", "en+croak", "en+m8")


def speech() -> list[Row]:
    lines = [heard(line, voice) for voice in VOICES for line in LINES]
    long = heard(" ".join(LINES * 7), "en+f3")
    minutes = len(long.sound) / long.reading.rate / 60
    return [
        _right("sound", [_by_sound(one) for one in lines], lines, 0.60),
        _right("words", [_by_words(one) for one in lines], lines, 0.75),
        _pace("sound", seconds(lambda: _by_sound(long)) / minutes),
        _pace("words", seconds(lambda: _by_words(long)) / minutes),
    ]


def _by_sound(line: Heard) -> list[Posed]:
    return by_sound(energies_of(line.sound, line.reading.rate), line.frames, FPS)


def _by_words(line: Heard) -> list[Posed]:
    energies = energies_of(line.sound, line.reading.rate)
    return by_words(energies, read(line.line, "en+m1"), line.frames, FPS)


def _right(by: str, found: Sequence[list[Posed]], lines: Sequence[Heard], aim: float) -> Row:
    pairs = zip(found, lines, strict=True)
    share = float(np.mean([(row(posed) == line.truth()).mean() for posed, line in pairs]))
    what = f"{len(VOICES)} made voices that taught nothing, in noise"
    return Row(
        f"poses of a mouth by its {by}", f"{share:.0%} right", f"≥ {aim:.0%}", what, share >= aim
    )


def _pace(by: str, reached: float) -> Row:
    return Row(f"a minute of voice by its {by}", f"{reached:.1f} s", "", "one thread", True)
