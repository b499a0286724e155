"""Who speaks, told from two spoken voices before three cameras, as files and by the real model."""

from __future__ import annotations

import subprocess
from pathlib import Path
from tempfile import TemporaryDirectory
from typing import Final
from unittest import TestCase

import numpy as np
from scipy.io import wavfile
from scipy.signal import resample_poly

from kitecore.document import MulticamClip
from kitecore.edits.tests.populated import SECOND
from kitecore.render.sources import Sources
from kitecore.render.tests.scene import Scene
from kitecore.render.whose_turn import turns

RATE: Final = 48_000
SAID: Final = (
    (0, "The wind comes from the west today, and it brings a little rain."),
    (1, "And what will the kites do then, when their paper is wet?"),
    (0, "They stay at home, and wait for the sun."),
    (1, "Then I shall fold another one until the evening, and paint it blue."),
)
VOICES: Final = (("en-gb+f3", "60"), ("en-gb+m2", "30"))
HEARD: Final = {"left": (1.0, 0.25), "right": (0.1, 0.5), "wide": (0.3, 0.3)}
"""What the cameras hear of each person."""


def _spoken(folder: Path, person: int, line: str) -> np.ndarray[tuple[int], np.dtype[np.float64]]:
    voice, pitch = VOICES[person]
    path = folder / "line.wav"
    command = ["espeak-ng", "-v", voice, "-p", pitch, "-s", "160", "-w", str(path), line]
    subprocess.run(command, check=True, capture_output=True)
    rate, samples = wavfile.read(path)
    loud = np.flatnonzero(np.abs(samples) > 300)
    return np.asarray(resample_poly(samples[loud[0] : loud[-1]] / 32768, RATE, rate))


class SpokenTurnsTest(TestCase):
    def test_each_person_is_shown_by_the_nearest_camera(self) -> None:
        root = Path(self.enterContext(TemporaryDirectory()))
        begins, lines, at = [], [], 0.5
        for person, text in SAID:
            lines.append(_spoken(root, person, text))
            begins.append(at)
            at += len(lines[-1]) / RATE + 0.5
        luck = np.random.default_rng(4)
        scene = Scene(root)
        for name, gains in HEARD.items():
            heard = luck.normal(0, 0.002, round((at + 0.5) * RATE))
            for (person, _), begin, line in zip(SAID, begins, lines, strict=True):
                start = round(begin * RATE)
                heard[start : start + len(line)] += gains[person] * line
            sound = heard.astype(np.float32)
            scene.video(name, frames=round((at + 0.5) * 30), sound=sound, options={"crf": "40"})
        takes = []
        for name in HEARD:
            info = scene.find(name).info
            takes.append({"media": name, "name": name, "kind": info.kind, "length": info.length})
        scene.do(kind="gather_angles", takes=takes)
        [clip] = [c for _, c in scene.document.clips() if isinstance(c, MulticamClip)]
        found = turns(scene.document, clip.id, Sources(scene.find))
        self.assertEqual([person for person, _ in SAID], [one["angle"] for one in found])
        ends = [begin + len(line) / RATE for begin, line in zip(begins, lines, strict=True)]
        for one, before, begin in zip(found[1:], ends, begins[1:], strict=False):
            self.assertTrue(before - 0.1 <= one["at"] / SECOND <= begin + 0.2)
