"""On a phone: faces are found by themselves and covered by two taps; the film shows nothing of them."""

from __future__ import annotations

from pathlib import Path

import cv2
import numpy as np
from numpy.typing import NDArray

from browser_tests.one_take import OneTakeTest
from kitecore.analysis.tests.test_faces import COUNT, FACE, SIZE, at, frame
from kitecore.document import AdjustmentClip
from kitecore.media.tests.material import decoded, make_video


class FacesTest(OneTakeTest):
    shape = SIZE
    frames = COUNT

    def made(self, folder: Path) -> Path:
        return make_video(
            folder / "walk.mp4",
            frames=COUNT,
            size=SIZE,
            options={"preset": "ultrafast", "crf": "16"},
            draw=lambda number: frame(number, walks=True),
        )

    def test_a_face_is_found_covered_and_told_of(self) -> None:
        page = self.browser
        page.find("[data-test=strip]").click()
        page.press("layer-part-follow")
        page.press("control-Faces")
        page.press("find-faces")
        page.test("face")
        self.assertEqual(1, len(page.all("[data-test=face]")))
        self.assertIn("Face 1", page.test("face").text)
        page.press("cover-faces")

        page.wait(self.others, what="nothing was covered")
        [tracker] = self.clip.trackers
        [cover] = self.others()
        assert isinstance(cover, AdjustmentClip) and cover.moves.follow is not None
        self.assertEqual(("Face 1", tracker.id), (tracker.name, cover.moves.follow.tracker))
        page.press("control-Followed")
        self.assertIn("Found in every frame", page.test("track-told").text)
        page.press("control-Faces")
        page.press("check-faces")
        radius = (
            "return document.querySelector('[data-test=faces-check] circle')?.getAttribute('r')"
        )
        self.assertGreater(float(page.wait(lambda: page.run(radius))), 10)
        page.press("check-faces")
        self.assert_clean_console()
        self.check(self.exported())

    def check(self, film: Path) -> None:
        shots = decoded(film)
        self.assertEqual(COUNT, len(shots))
        for number in range(0, COUNT, 4):
            plain = frame(number, walks=True).to_ndarray(format="rgb24")
            left, was = (self.face(picture, number) for picture in (shots[number], plain))
            self.assertLess(np.corrcoef(left.ravel(), was.ravel())[0, 1], 0.35, number)

    def face(self, picture: NDArray[np.uint8], number: int) -> NDArray[np.float64]:
        """What is finer than a square of the mosaic in the middle of the face."""
        grey = picture.astype(np.float64).mean(axis=2)
        fine = grey - cv2.GaussianBlur(grey, (0, 0), 4)
        x, y = np.rint(at(number) + FACE.mean(axis=0) - (80, 0)).astype(int)
        return np.asarray(fine[y - 45 : y + 46, x - 32 : x + 33])
