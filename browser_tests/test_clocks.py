"""A recorder whose clock runs faster than the camera's: told, and taken out."""

from __future__ import annotations

from fractions import Fraction
from pathlib import Path
from tempfile import TemporaryDirectory
from typing import Any

import numpy as np

from browser_tests.one_project import OneProjectTest
from kitecore.document import MulticamClip
from kitecore.edits._files import files_of
from kitecore.media.tests.material import make_video, make_wav
from kitecore.sound.tests.test_alignment import RATE, by_another_clock, part, spoken
from studio.tests.site import SECOND

DRIFT = 2e-4
BEGINS = 4.0
"""Seconds of the camera's at which the recorder begins."""


class ClocksTest(OneProjectTest):
    def setUp(self) -> None:
        super().setUp()
        self.begin("Report", (180, 320))
        scene = spoken(7, 110)
        folder = Path(self.enterContext(TemporaryDirectory()))
        camera = make_video(
            folder / "camera.mp4",
            frames=500,
            rate=Fraction(5),
            sound=np.repeat(part(scene, 0, 100), 48_000 // RATE),
        )
        recorder = folder / "recorder.wav"
        make_wav(recorder, by_another_clock(part(scene, BEGINS, 92), DRIFT), RATE)
        parts: list[dict[str, Any]] = []
        for path in (camera, recorder):
            take = self.brought_in(self.project, path)
            part_of = {"media": take.id.hex, "name": take.name}
            facts = take.facts or {}
            parts.append(part_of | {"kind": facts["kind"], "length": facts["length"]})
        self.step(kind="gather_angles", takes=parts)
        self.browser.open(f"/projects/{self.project.id}/cut")

    def multicam(self) -> MulticamClip:
        [clip] = (one for _, one in self.document().clips() if isinstance(one, MulticamClip))
        return clip

    def recorded(self, seconds: float) -> float:
        """What second of the recorder is heard with a second of the camera."""
        camera, recorder = (files_of(self.multicam().angle(index))[0] for index in (0, 1))
        at = camera.at + round(seconds * SECOND)
        return recorder.clip.source_at(at - recorder.clip.start) / SECOND

    def off(self) -> float:
        """Seconds by which the recorder is heard beside the camera at worst."""
        times = np.linspace(BEGINS + 1, 95, 20)
        heard = np.array([self.recorded(at) for at in times])
        return float(np.abs(heard - (times - BEGINS) * (1 + DRIFT)).max())

    def test_drift_is_told_and_taken_out(self) -> None:
        page = self.browser
        self.take("Cameras")
        page.press("part-line-up")
        page.press("line-up")
        self.until(lambda: "gains 12 ms a minute" in page.test("clocks").text, "no drift is told")
        self.assertGreater(self.off(), 0.005)
        page.press("drift-out")
        self.until(lambda: self.off() < 0.001, "the drift is still there")
        self.until(lambda: "taken out" in page.test("clocks").text, "it is not told")
        page.press("drift-in")
        self.until(lambda: self.off() > 0.005, "it does not run as it was recorded")

    def test_markers_are_laid_on_each_other(self) -> None:
        for index, seconds in enumerate((10, 5)):
            angle = self.multicam().angle(index)
            [file] = files_of(angle)
            self.step(
                kind="add_marker", within=angle.id, clip=file.clip.id, at=seconds * SECOND, name=""
            )
        page = self.browser
        page.open(f"/projects/{self.project.id}/cut")
        self.take("Cameras")
        page.press("part-line-up")
        page.press("line-up-by-marker")
        page.press("line-up")
        self.until(lambda: abs(self.recorded(30) - 25) < 0.001, "the markers do not lie together")
        self.assertIn("Marker", page.test("sure-1").text)
