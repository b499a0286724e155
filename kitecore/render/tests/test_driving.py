"""Values that are led by a sound, as keys."""

from __future__ import annotations

import tempfile
from pathlib import Path
from typing import Any
from unittest import TestCase

import numpy as np

from kitecore.document.properties import NumberKeys
from kitecore.errors import EditRefused
from kitecore.media.tests.material import ingested, make_wav
from kitecore.motion import value_at
from kitecore.render.driving import driven
from kitecore.render.sources import Sources
from kitecore.render.tests.scene import SECOND, Scene
from kitecore.sound.ramps import RATE


class DrivingTest(TestCase):
    """A tone that sounds in the second of three seconds, under a layer."""

    def setUp(self) -> None:
        folder = Path(self.enterContext(tempfile.TemporaryDirectory()))
        self.scene = Scene(folder)
        self.scene.do(
            kind="place",
            clip={"kind": "solid", "name": "ground", "length": 3 * SECOND},
            mode="end",
            seed="ground",
        )
        self.ground = self.scene.document.main.clips[0].id

    def hear(self, samples: np.ndarray) -> None:
        ingested(self.scene.root, "tone", make_wav(self.scene.root / "x", samples))
        self.scene.place("tone", 3, mode="above")

    def tone(self) -> np.ndarray:
        at = np.arange(3 * RATE) / RATE
        return 0.5 * np.sin(2 * np.pi * 300 * at) * ((at >= 1) & (at < 2))

    def value(self, tick: int, **driving: Any) -> float:
        found = driven(self.scene.document, self.ground, driving, Sources(self.scene.find))
        keys = NumberKeys.model_validate({"keys": found})
        self.assertLess(len(keys.keys), 30)
        return value_at(keys, tick)

    def test_it_goes_with_the_sound_between_its_ends(self) -> None:
        self.hear(self.tone())
        wanted = {"by": "level", "attack": 0.02, "release": 0.1, "low": 10.0, "high": 30.0}
        for tick, value in ((SECOND // 2, 10), (SECOND * 3 // 2, 30), (SECOND * 5 // 2, 10)):
            self.assertAlmostEqual(value, self.value(tick, **wanted), delta=0.8)

    def test_another_band_hears_nothing_of_it(self) -> None:
        self.hear(self.tone() + 1e-3 * np.sin(2 * np.pi * 6000 * np.arange(3 * RATE) / RATE))
        self.assertGreater(self.value(SECOND * 3 // 2, by="middle"), 0.9)
        self.assertGreater(self.value(SECOND // 2, by="high"), 0.75)

    def test_silence_is_refused_and_a_wave_needs_no_sound(self) -> None:
        with self.assertRaises(EditRefused):
            self.value(0, by="level")
        self.assertLessEqual(0, self.value(SECOND, by="wave", rate=0.5))
