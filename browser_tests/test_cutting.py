"""On a phone: a figure is cut out of a still or a moving take with a finger, taken off, and sent."""

from __future__ import annotations

from pathlib import Path

import av
import cv2
import numpy as np
from PIL import Image

from browser_tests.one_take import OneTakeTest
from kitecore.media.tests.material import decoded, make_video
from kitecore.render.tests.test_cutting import HIGH, WIDE, composite, figure, ground
from kitecore.render.tests.test_cutting_through import COUNT, swaying


class MarkingTest(OneTakeTest):
    shape = (WIDE, HIGH)

    def mark(self) -> None:
        """Keep the figure, drop the ground beside it."""
        page = self.browser
        page.find("[data-test=strip]").click()
        page.press("layer-part-cutout")
        page.press("cut-keep")
        page.test("stroke-surface")
        self.fingers.drag((self.at((180, 170)), self.at((180, 450))))
        page.wait(lambda: self.clip.cutout, what="nothing was marked")
        page.press("cut-drop")
        self.fingers.drag((self.at((30, 600)), self.at((30, 40))))


class CuttingTest(MarkingTest):
    def made(self, folder: Path) -> Path:
        path = folder / "figure.png"
        Image.fromarray(composite()).save(path)
        return path

    def test_a_figure_is_cut_out_taken_off_and_moved_away(self) -> None:
        page = self.browser
        self.mark()
        page.wait(lambda: len(self.clip.cutout.strokes) == 2, what="nothing was dropped")
        self.assertEqual([False, True], [one.drop for one in self.clip.cutout.strokes])

        page.press("cut-hair")
        self.fingers.drag((self.at((120, 90)), self.at((240, 90))))
        page.wait(lambda: len(self.clip.cutout.strokes) == 3, what="nothing was brushed")
        self.assertTrue(self.clip.cutout.strokes[2].hair)
        page.press("undo")
        page.wait(lambda: len(self.clip.cutout.strokes) == 2, what="undo brought nothing back")

        page.press("control-Pieces")
        page.press("take-off")
        page.confirm()
        page.wait(lambda: self.clip.taken_off, what="nothing was taken off")
        self.assertIsNone(self.clip.cutout)
        [piece] = self.others()
        self.assertEqual("Piece 1", piece.name)
        page.wait(lambda: "Piece 1" in page.test("in-hand").text, what="it is not in hand")

        # Out of the picture with it: what lay behind is seen.
        self.do(kind="adjust", clips=[piece.id], values={"place/position": [WIDE * 2, 0]})
        page.driver.refresh()
        page.test("in-hand")
        self.assert_clean_console()
        self.check(self.exported())

    def test_a_line_around_it_is_enough(self) -> None:
        page = self.browser
        page.find("[data-test=strip]").click()
        page.press("layer-part-cutout")
        page.press("cut-around")
        page.test("stroke-surface")
        self.fingers.drag((self.at((20, 20)), self.at((340, 630))))
        page.wait(lambda: self.clip.cutout, what="nothing was drawn around")
        corners = np.array(self.clip.cutout.around) * HIGH + (WIDE / 2, HIGH / 2)
        self.assertEqual((2, 2), corners.shape)
        self.assertLess(np.abs(corners - [(20, 20), (340, 630)]).max(), 4)

        # Drawn anew as a loop, it takes the place of the box.
        page.press("cut-around")
        page.test("stroke-surface")
        spots = (180, 60), (285, 140), (275, 400), (180, 515), (90, 400), (70, 140), (170, 62)
        self.fingers.trace(*(self.at(spot) for spot in spots))
        page.wait(lambda: len(self.clip.cutout.around) > 2, what="it is still a box")
        page.press("undo")
        page.wait(lambda: len(self.clip.cutout.around) == 2, what="the box did not come back")
        self.assert_clean_console()

    def check(self, film: Path) -> None:
        shots = decoded(film)
        self.assertEqual(30, len(shots))
        _, alpha = figure()
        shot = shots[10].astype(float)
        own = np.abs(shot - np.array([0.75, 0.5, 0.35]) * 255).max(axis=2) < 40
        self.assertLess(own[alpha > 0.98].mean(), 0.05)
        around = np.s_[40:600, 8:40]
        self.assertLess(np.abs(shot - ground() * 255)[around].mean(), 6)


class CuttingThroughTest(MarkingTest):
    """A figure that sways is cut out of each frame by two strokes on one."""

    frames = COUNT

    def made(self, folder: Path) -> Path:
        return make_video(
            folder / "sways.mp4",
            frames=COUNT,
            size=(WIDE, HIGH),
            options={"crf": "12"},
            draw=lambda number: av.VideoFrame.from_ndarray(swaying(number)[0], format="rgb24"),
        )

    def test_a_figure_is_cut_out_of_a_moving_take(self) -> None:
        page = self.browser
        self.mark()
        page.wait(lambda: len(self.clip.cutout.views[0].strokes) == 2, what="nothing was dropped")
        self.assertIsNone(self.clip.cutout.through)
        page.press("cut-drop")
        page.press("control-All frames")
        page.press("cut-through")
        page.wait(lambda: self.clip.cutout.through, what="it was not found", seconds=120)
        page.wait(lambda: "Found" in page.test("cut-told").text, what="it is not told")
        page.press("control-Mark")
        page.press("cut-keep")
        self.fingers.drag((self.at((180, 300)), self.at((190, 320))))
        page.wait(lambda: len(self.clip.cutout.views[0].strokes) == 3, what="nothing was added")
        page.press("control-All frames")
        page.wait(lambda: "anew" in page.test("cut-told").text, what="it is not told anew")
        page.press("undo")
        page.wait(lambda: "Found" in page.test("cut-told").text, what="undo brought nothing back")
        self.assert_clean_console()
        self.check(self.exported())

    def check(self, film: Path) -> None:
        shots = decoded(film)
        self.assertEqual(COUNT, len(shots))
        for number in (0, 11, COUNT - 1):
            taken, alpha = swaying(number)
            shot = shots[number].astype(float)
            whole = cv2.erode((alpha > 0.99).astype(np.uint8), np.ones((5, 5))) > 0
            self.assertLess(np.abs(shot - taken)[whole].mean(), 8)
            far = cv2.dilate((alpha > 0).astype(np.uint8), np.ones((41, 41))) == 0
            self.assertLess(shot[far].mean(), 6)
