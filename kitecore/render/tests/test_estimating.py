"""What files weigh, foretold from trials, against the files themselves."""

from __future__ import annotations

import tempfile
from dataclasses import replace
from pathlib import Path
from unittest import TestCase

import av
import numpy as np

from kitecore.edits.tests.populated import SECOND
from kitecore.errors import Superseded
from kitecore.render.estimating import STRETCH, STRETCHES, estimate, fitting_crf
from kitecore.render.export import ExportSettings, make
from kitecore.render.sources import Sources
from kitecore.render.tests.scene import Scene

SIZE = (96, 160)
FRAMES = STRETCH * STRETCHES + 150


def noise(number: int) -> av.VideoFrame:
    pixels = np.random.default_rng(number).integers(0, 256, (SIZE[1], SIZE[0], 3))
    return av.VideoFrame.from_ndarray(pixels.astype(np.uint8), format="rgb24")


def waves(number: int) -> av.VideoFrame:
    """Still for three seconds, then moving for three, and so on."""
    moved = number if (number // 90) % 2 else 0
    y, x = np.mgrid[0 : SIZE[1], 0 : SIZE[0]]
    light = 128 + 60 * np.sin((x + moved * 3) / 7) + 50 * np.cos((y - moved * 2) / 9 + x / 20)
    pixels = np.dstack([light, np.roll(light, moved, 0), 255 - light]).clip(0, 255)
    return av.VideoFrame.from_ndarray(pixels.astype(np.uint8), format="rgb24")


def hiss() -> np.ndarray:
    seconds = FRAMES / 30
    sound = np.random.default_rng(5).normal(0, 0.1, (2, round(seconds * 48_000)))
    return sound.astype(np.float32)


class EstimateTest(TestCase):
    @classmethod
    def setUpClass(cls) -> None:
        cls.root = Path(cls.enterClassContext(tempfile.TemporaryDirectory()))
        cls.scenes = {}
        for name, draw in (("noise", noise), ("waves", waves)):
            scene = Scene(cls.root / name)
            scene.root.mkdir()
            scene.video(name, frames=FRAMES, size=SIZE, draw=draw, sound=hiss()[0])
            scene.place(name, FRAMES / 30)
            cls.scenes[name] = scene

    def sources(self, scene: Scene) -> Sources:
        sources = Sources(scene.find)
        self.addCleanup(sources.close)
        return sources

    def test_files_weigh_what_was_foretold(self) -> None:
        tried = {"noise": ("mp4", "mp3"), "waves": ("mp4", "webm", "gif")}
        for name, scene in self.scenes.items():
            for format in tried[name]:
                settings = ExportSettings(format=format, long_side=160)
                work, sources = settings.work(scene.document), self.sources(scene)
                shares: list[float] = []
                foretold = estimate(work, settings.recipe, sources, shares.append)
                path = self.root / f"film.{settings.recipe.suffix}"
                make(scene.document, settings, path, sources)
                ratio = foretold.bytes / path.stat().st_size
                self.assertTrue(0.85 < ratio < 1.15, f"{name} as {format}: {ratio:.2f}")
                self.assertGreater(foretold.seconds, 0)
                self.assertEqual(sorted(shares), shares)

    def test_a_short_film_and_a_still_are_weighed_whole(self) -> None:
        scene = self.scenes["waves"]
        sources = self.sources(scene)
        for settings in (ExportSettings(last=SECOND), ExportSettings(format="png")):
            work = settings.work(scene.document)
            foretold = estimate(work, settings.recipe, sources, lambda _: None)
            path = self.root / "short"
            make(scene.document, settings, path, sources)
            self.assertAlmostEqual(1, foretold.bytes / path.stat().st_size, delta=0.1)

    def test_a_film_is_as_coarse_as_it_has_to_be(self) -> None:
        scene = self.scenes["noise"]
        sources, settings = self.sources(scene), ExportSettings(long_side=160)
        work = settings.work(scene.document)
        whole = estimate(work, settings.recipe, sources, lambda _: None).bytes
        crf = fitting_crf(work, settings.recipe, whole // 2, sources, lambda _: None)
        assert crf is not None
        self.assertGreater(crf, 21)
        made = estimate(replace(work, crf=crf), settings.recipe, sources, lambda _: None).bytes
        self.assertTrue(0.75 < made / (whole // 2) < 1.1, made / (whole // 2))
        prores = ExportSettings(format="prores")
        self.assertIsNone(fitting_crf(work, prores.recipe, 1000, sources, lambda _: None))

    def test_it_can_be_given_up(self) -> None:
        scene = self.scenes["waves"]

        def enough(_: float) -> None:
            raise Superseded("enough")

        with self.assertRaises(Superseded):
            settings = ExportSettings()
            estimate(settings.work(scene.document), settings.recipe, self.sources(scene), enough)
