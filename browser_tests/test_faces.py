"""On a phone: faces are found by themselves and covered by two taps; the film shows nothing of them."""

from __future__ import annotations

from pathlib import Path
from tempfile import TemporaryDirectory

import av
import cv2
import numpy as np
from django.contrib.auth.models import User
from numpy.typing import NDArray

from browser_tests.site import SiteTest
from kitecore.analysis.tests.test_faces import COUNT, FACE, SIZE, at, frame
from kitecore.document import AdjustmentClip, Canvas, Document, VideoClip, empty_document
from kitecore.edits.tests.populated import edit
from kitecore.media.tests.material import make_video
from studio.projects import history
from studio.projects.models import Project
from studio.tests.site import SECOND


class FacesTest(SiteTest):
    size = (390, 844)
    touch = True

    def setUp(self) -> None:
        super().setUp()
        document = empty_document(Canvas(width=SIZE[0], height=SIZE[1]))
        project = history.start_project(User.objects.get(), "Walk", document)
        folder = Path(self.enterContext(TemporaryDirectory()))
        path = make_video(
            folder / "walk.mp4",
            frames=COUNT,
            size=SIZE,
            options={"preset": "ultrafast", "crf": "16"},
            draw=lambda number: frame(number, walks=True),
        )
        take = self.brought_in(project, path)
        length = COUNT * SECOND // 30
        clip = {"kind": "video", "media": take.id.hex, "name": "walk", "source_length": length}
        placed = edit(kind="place", clip={**clip, "length": length}, mode="end", at=0)
        history.apply_edit(project, project.head_id, placed)
        self.browser.open(f"/projects/{project.id}/layer")

    def document(self) -> Document:
        project = Project.objects.select_related("head").get()
        return history.document_at(history.head_of(project))

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

        def covers() -> list[AdjustmentClip]:
            return [c for _, c in self.document().clips() if isinstance(c, AdjustmentClip)]

        page.wait(covers, seconds=40, what="nothing was covered")
        [clip] = self.document().main.clips
        assert isinstance(clip, VideoClip)
        [tracker] = clip.trackers
        follow = covers()[0].moves.follow
        assert follow is not None
        self.assertEqual(("Face 1", tracker.id), (tracker.name, follow.tracker))
        page.press("control-Followed")
        self.assertIn("Found in every frame", page.test("track-told").text)
        self.assert_clean_console()
        self.check(self.exported())

    def check(self, film: Path) -> None:
        with av.open(str(film)) as container:
            shots = [one.to_ndarray(format="rgb24") for one in container.decode(video=0)]
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
