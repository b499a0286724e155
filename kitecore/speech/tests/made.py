"""Speech made by a machine in voices that taught nothing here, with its known sounds."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cache

import numpy as np
from numpy.typing import NDArray

from kitecore.document.poses import POSES
from kitecore.speech.features import Floats
from kitecore.speech.mouthing import Posed
from kitecore.speech.phonemes import lips_meet, posed_within
from kitecore.speech.reading import Reading, read

FPS = 30
LINES = (
    "Four folds, one string, and a little weather. That is all a kite needs.",
    "My name is Pip. I live above the post box, and I speak when the wind speaks.",
)
NAMES = list(POSES)


@dataclass(frozen=True)
class Heard:
    """A line as it is recorded: after some silence, in noise, more quietly."""

    line: str
    reading: Reading
    sound: Floats
    late: float

    @property
    def frames(self) -> int:
        return int(len(self.sound) / self.reading.rate * FPS)

    def truth(self) -> NDArray[np.int64]:
        """The pose that most of each frame has."""
        fine = np.zeros(self.frames * 100, np.int64)
        for said in self.reading.said:
            for pose, begin, end in posed_within(said.sign, said.begin, said.end):
                first, last = (round((at + self.late) * FPS * 100) for at in (begin, end))
                fine[first:last] = NAMES.index(pose)
        return np.array([np.bincount(one).argmax() for one in fine.reshape(-1, 100)])

    def touches(self) -> list[tuple[int, int]]:
        """First and last frames around each m, b and p."""
        return [
            (int((one.begin + self.late) * FPS), int((one.end + self.late) * FPS) + 2)
            for one in self.reading.said
            if lips_meet(one.sign)
        ]


@cache
def read_aloud(line: str) -> Reading:
    """By another voice than any of the recordings."""
    return read(line, "en+m1")


@cache
def heard(line: str, voice: str, late: float = 0.4, noise: float = 0.003) -> Heard:
    reading = read(line, voice)
    silence = np.zeros(round(late * reading.rate), np.float32)
    sound = 0.4 * np.concatenate([silence, reading.sound, silence])
    sound += np.random.default_rng(3).normal(0, noise, len(sound)).astype(np.float32)
    return Heard(line, reading, sound.astype(np.float32), late)


def row(posed: list[Posed]) -> NDArray[np.int64]:
    """The pose of each frame."""
    return np.concatenate([np.full(one.end - one.begin, NAMES.index(one.pose)) for one in posed])
