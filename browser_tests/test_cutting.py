"""On a phone: a figure is cut out of a still with a finger, taken off as a layer, and sent."""

from __future__ import annotations

from pathlib import Path
from tempfile import TemporaryDirectory
from typing import Any

import av
import numpy as np
from django.contrib.auth.models import User
from PIL import Image

from browser_tests.fingers import Fingers, Point
from browser_tests.site import SiteTest
from kitecore.document import Canvas, Document, StillClip, empty_document
from kitecore.edits.tests.populated import edit
from kitecore.render.tests.test_cutting import HIGH, WIDE, composite, figure, ground
from studio.projects import history
from studio.projects.models import Project
from studio.tests.site import SECOND


class CuttingTest(SiteTest):
    size = (390, 844)
    touch = True

    def setUp(self) -> None:
        super().setUp()
        document = empty_document(Canvas(width=WIDE, height=HIGH))
        project = history.start_project(User.objects.get(), "Figure", document)
        folder = Path(self.enterContext(TemporaryDirectory()))
        path = folder / "figure.png"
        Image.fromarray(composite()).save(path)
        take = self.brought_in(project, path)
        clip = {"kind": "still", "media": take.id.hex, "name": "figure", "length": SECOND}
        history.apply_edit(
            project, project.head_id, edit(kind="place", clip=clip, mode="end", at=0)
        )
        self.browser.open(f"/projects/{project.id}/layer")
        self.fingers = Fingers(self.browser)

    def document(self) -> Document:
        project = Project.objects.select_related("head").get()
        return history.document_at(history.head_of(project))

    def still(self) -> Any:
        [clip] = self.document().main.clips
        assert isinstance(clip, StillClip)
        return clip

    def at(self, x: float, y: float) -> Point:
        """Where a pixel of the picture is on the screen."""
        left, top, wide = self.browser.run(
            "const box = document.querySelector('[data-test=stroke-surface]')"
            ".getBoundingClientRect(); return [box.x, box.y, box.width]"
        )
        return left + x * wide / WIDE, top + y * wide / WIDE

    def test_a_figure_is_cut_out_taken_off_and_moved_away(self) -> None:
        page = self.browser
        page.find("[data-test=strip]").click()
        page.press("layer-part-cutout")
        page.press("cut-keep")
        page.test("stroke-surface")
        self.fingers.drag((self.at(180, 170), self.at(180, 450)))
        page.wait(lambda: self.still().cutout, what="nothing was marked")
        page.press("cut-drop")
        self.fingers.drag((self.at(30, 600), self.at(30, 40)))
        page.wait(lambda: len(self.still().cutout.strokes) == 2, what="nothing was dropped")
        self.assertEqual([False, True], [one.drop for one in self.still().cutout.strokes])

        page.press("control-Pieces")
        page.press("take-off")
        page.confirm()
        page.wait(lambda: self.still().taken_off, what="nothing was taken off")
        self.assertIsNone(self.still().cutout)
        [piece] = [
            clip
            for track in self.document().tracks
            for clip in track.clips
            if clip.id != self.still().id
        ]
        self.assertEqual("Piece 1", piece.name)
        page.wait(lambda: "Piece 1" in page.test("in-hand").text, what="it is not in hand")

        # Out of the picture with it: what lay behind is seen.
        project = Project.objects.get()
        away = edit(kind="adjust", clips=[piece.id], values={"place/position": [WIDE * 2, 0]})
        history.apply_edit(project, project.head_id, away)
        page.driver.refresh()
        page.test("in-hand")
        self.assert_clean_console()
        self.check(self.exported())

    def check(self, film: Path) -> None:
        with av.open(str(film)) as container:
            shots = [one.to_ndarray(format="rgb24") for one in container.decode(video=0)]
        self.assertEqual(30, len(shots))
        _, alpha = figure()
        shot = shots[10].astype(float)
        own = np.abs(shot - np.array([0.75, 0.5, 0.35]) * 255).max(axis=2) < 40
        self.assertLess(own[alpha > 0.98].mean(), 0.05)
        around = np.s_[40:600, 8:40]
        self.assertLess(np.abs(shot - ground() * 255)[around].mean(), 6)
