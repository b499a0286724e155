"""On a phone: a thing is followed, a layer goes along with it, it is covered, and the film is sent."""

from __future__ import annotations

from pathlib import Path
from tempfile import TemporaryDirectory
from typing import Any, Final

import av
import cv2
import numpy as np
from django.contrib.auth.models import User
from numpy.typing import NDArray
from selenium.webdriver.common.action_chains import ActionChains

from browser_tests.site import SiteTest
from kitecore.document import Canvas, Document, Pictured, VideoClip, empty_document
from kitecore.edits.tests.populated import edit
from kitecore.media.tests.material import make_video
from kitecore.render.tests.test_tracked import made_video
from kitecore.tracking.tests import scenes
from studio.projects import history
from studio.projects.models import Project
from studio.tests.site import SECOND

COUNT: Final = 45
WIDE, HIGH = scenes.SIZE
MARK: Final = 40
"""Pixels of the red square that goes along."""


class FollowingTest(SiteTest):
    size = (390, 844)
    touch = True

    def setUp(self) -> None:
        super().setUp()
        self.made = scenes.Scene("turns")
        document = empty_document(Canvas(width=WIDE, height=HIGH))
        self.project = history.start_project(User.objects.get(), "Street", document)
        folder = Path(self.enterContext(TemporaryDirectory()))
        path = make_video(
            folder / "sign.mp4",
            frames=COUNT,
            size=scenes.SIZE,
            options={"preset": "ultrafast", "crf": "18"},
            draw=lambda number: made_video(self.made, number),
        )
        take = self.brought_in(self.project, path)
        length = COUNT * SECOND // 30
        clip = {"kind": "video", "media": take.id.hex, "name": "sign", "source_length": length}
        square = {"kind": "rectangle", "size": [MARK, MARK]}
        x, y = self.made.quad(0).mean(axis=0) - (WIDE / 2, HIGH / 2)
        mark = {
            "kind": "shape",
            "name": "mark",
            "form": square,
            "fill": {"kind": "plain", "colour": "#ff0000"},
            "place": {"position": [x, y]},
        }
        for one, mode in ((clip, "end"), (mark, "above")):
            self.do(kind="place", clip={**one, "length": length}, mode=mode, at=0)
        self.browser.open(f"/projects/{self.project.id}/layer")

    def do(self, **fields: Any) -> None:
        self.project.refresh_from_db()
        history.apply_edit(self.project, self.project.head_id, edit(**fields))

    def document(self) -> Document:
        project = Project.objects.select_related("head").get()
        return history.document_at(history.head_of(project))

    def video(self) -> VideoClip:
        [clip] = self.document().main.clips
        assert isinstance(clip, VideoClip)
        return clip

    def onto(self, name: str, spot: NDArray[np.float64]) -> None:
        """Drag a handle to a spot of the picture, in its pixels."""
        box = self.browser.run(
            "const box = document.querySelector('svg.tracks').getBoundingClientRect();"
            "return [box.x, box.y, box.width]"
        )
        to = np.array(box[:2]) + spot * box[2] / WIDE
        handle = self.browser.test(name)
        at = handle.rect
        middle = (at["x"] + at["width"] / 2, at["y"] + at["height"] / 2)
        by = [round(float(b - a)) for a, b in zip(middle, to, strict=True)]
        ActionChains(self.browser.driver).drag_and_drop_by_offset(handle, *by).perform()

    def test_a_thing_is_followed_marked_and_covered(self) -> None:
        page = self.browser
        page.find("[data-test=strip]").click()
        page.press("layer-part-follow")
        page.press("track-turns")
        quad = self.made.quad(0)
        self.onto("track-thing", quad.mean(axis=0))
        self.onto("track-corner-2", quad[2])
        page.press("follow-it")
        page.wait(lambda: len(self.video().trackers) == 1, seconds=60, what="nothing was followed")
        self.assertIn("Found in every frame", page.test("track-told").text)

        # The square goes along by one tap, a cover lies over the thing.
        page.press("control-Go along")
        page.press("goes-along")
        page.wait(lambda: self.follower("mark") is not None, what="nothing goes along")
        page.press("control-Cover")
        page.press("cover-it")
        page.wait(lambda: self.follower("Cover") is not None, what="nothing was covered")
        self.assert_clean_console()
        self.check(self.exported())

        # A mask goes along as well.
        page.press("stage-layer")
        page.press("layer-part-masks")
        page.press("add-mask")
        page.press("mask-ellipse")
        page.wait(lambda: self.video().masks, what="no mask was added")
        page.press("control-Goes along")
        choice = page.test("mask-along")
        choice.find_elements("css selector", "option")[1].click()
        tracker = self.video().trackers[0].id
        page.wait(lambda: self.video().masks[0].tracker == tracker, what="the mask stays")
        self.assert_clean_console()

        # The clip is held by the thing: it stays where it is.
        page.press("layer-part-follow")
        page.press("control-Steady")
        page.find("[data-test=steady] + label").click()
        page.wait(lambda: self.video().steady, what="nothing holds the clip")
        page.find("[data-test=steady-closer] + label").click()
        page.wait(lambda: not self.video().steady.closer, what="it is still closer")
        self.assert_clean_console()

    def follower(self, name: str) -> str | None:
        """The tracker that a clip follows."""
        for _, clip in self.document().clips():
            if isinstance(clip, Pictured) and clip.name == name and clip.moves.follow:
                return clip.moves.follow.tracker
        return None

    def check(self, film: Path) -> None:
        with av.open(str(film)) as container:
            frames = [
                one.to_ndarray(format="rgb24").astype(int) for one in container.decode(video=0)
            ]
        self.assertEqual(COUNT, len(frames))
        for number in (0, 15, 30, COUNT - 1):
            frame, quad = frames[number], self.made.quad(number)
            rows, columns = np.nonzero((frame[..., 0] > 150) & (frame[..., 1] < 90))
            middle = np.array([columns.mean(), rows.mean()]) + 0.5
            self.assertLess(np.hypot(*(middle - quad.mean(axis=0))), 3, number)
            inside = np.zeros((HIGH, WIDE), np.uint8)
            cv2.fillConvexPoly(inside, np.rint(quad).astype(np.int32), 1)
            cv2.circle(inside, tuple(np.rint(middle).astype(int).tolist()), MARK, 0, -1)
            self.assertLess(
                _fine(frame)[inside > 0].std(), 0.6 * _fine(self.picture(number))[inside > 0].std()
            )

    def picture(self, number: int) -> NDArray[np.int_]:
        return np.repeat(self.made.frame(number)[..., None], 3, axis=2).astype(int)


def _fine(picture: NDArray[np.int_]) -> NDArray[np.float64]:
    """What is finer than a square of the cover."""
    grey = picture.mean(axis=2)
    return np.asarray(grey - cv2.GaussianBlur(grey, (0, 0), 3))
