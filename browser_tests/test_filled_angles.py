"""A clip of several cameras begun empty and filled on a phone; the film beside it; silence cut out."""

from __future__ import annotations

from pathlib import Path
from tempfile import TemporaryDirectory

import numpy as np

from browser_tests.one_project import OneProjectTest
from kitecore.document import MulticamClip
from kitecore.media.tests.material import make_video
from kitecore.speech.reading import read
from studio.tests.site import SECOND

SIZE = (180, 320)
PAUSE = 2.5


class FilledAnglesTest(OneProjectTest):
    def setUp(self) -> None:
        super().setUp()
        self.begin("Wind report", SIZE)
        folder = Path(self.enterContext(TemporaryDirectory()))
        spoken = read("The paper wind comes from the west today.", "en")
        pause = np.zeros(round(PAUSE * spoken.rate), np.float32)
        line = 0.5 * np.concatenate([spoken.sound, pause, spoken.sound])
        places = np.arange(round(len(line) / spoken.rate * 48_000)) / 48_000 * spoken.rate
        sound = np.interp(places, np.arange(len(line)), line).astype(np.float32)
        self.seconds = len(sound) / 48_000
        for name in ("near", "wide"):
            path = folder / f"{name}.mp4"
            make_video(path, frames=round(self.seconds * 30), size=SIZE, sound=sound)
            self.brought_in(self.project, path)
        self.browser.open(f"/projects/{self.project.id}/cut")

    def parts(self) -> list[MulticamClip]:
        return [clip for _, clip in self.document().clips() if isinstance(clip, MulticamClip)]

    def test_begun_filled_seen_beside_the_film_and_tightened(self) -> None:
        page = self.browser
        page.resize((390, 844), touch=True)
        page.press("verb-cameras")
        page.press("part-line-up")
        page.press("choose-takes")
        # One by Several, one by itself.
        page.press("several-takes")
        page.find(".grid [data-take^='near']").click()
        page.press("add-angles")
        self.until(lambda: len(self.parts()[0].tracks) == 1, "no angle was added")
        page.find(".grid [data-take^='wide']").click()
        page.test("take-still")
        page.press("add-angles")
        self.until(lambda: len(self.parts()[0].tracks) == 2, "no second angle was added")
        [clip] = self.parts()
        self.assertEqual(["near.mp4", "wide.mp4"], [f"{one.name}.mp4" for one in clip.tracks])
        self.assertAlmostEqual(self.seconds, clip.length / SECOND, delta=0.1)

        page.resize((1280, 800))
        page.press("stage-cut")
        page.press("part-switch")
        page.find("[data-test=wall-1]").click()
        self.until(lambda: self.parts()[0].angle_at(0) == 1, "the wall did not switch")
        page.press("view-both")
        film = page.test("wall-film").rect
        first = page.test("wall-0").rect
        self.assertLess(film["x"], first["x"])

        page.press("stage-mix")
        page.press("mix-part-pauses")
        page.press("find-pauses")
        page.press("cut-pauses")
        self.until(lambda: len(self.parts()) == 2, "the pause was not cut out")
        left = sum(part.length for part in self.parts()) / SECOND
        self.assertAlmostEqual(self.seconds - PAUSE, left, delta=0.6)
        self.assertEqual(1, len({part.scene for part in self.parts()}))
        self.assert_clean_console()
