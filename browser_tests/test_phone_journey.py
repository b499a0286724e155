"""A whole small film by fingers on a phone: gathered, cut, graded, layered, moved, sent."""

from __future__ import annotations

import tempfile
from pathlib import Path
from typing import Any

from django.contrib.auth.models import User
from selenium.webdriver.common.keys import Keys

from browser_tests.fingers import Fingers
from browser_tests.site import SiteTest
from kitecore.document import Canvas, Document, empty_document
from kitecore.media.tests.material import decoded, make_video, tone
from studio.projects import history
from studio.projects.models import Project


class PhoneJourneyTest(SiteTest):
    size = (390, 844)
    touch = True

    def setUp(self) -> None:
        super().setUp()
        owner = User.objects.get(username="pip")
        document = empty_document(Canvas(width=180, height=320))
        self.project = history.start_project(owner, "In one hand", document)
        self.browser.open(f"/projects/{self.project.id}/gather")
        self.fingers = Fingers(self.browser)

    def tap(self, name: str) -> None:
        self.browser.wait(lambda: self.browser.test(name).is_enabled())
        self.fingers.tap(self.fingers.middle(f'[data-test="{name}"]'))

    def test_from_the_take_to_the_film(self) -> None:
        browser = self.browser
        self._gather()
        self.tap("stage-cut")
        browser.find("[data-test=strip]")
        self.fingers.tap(self._in_strip(30))
        browser.wait(lambda: browser.test("in-hand").is_enabled(), what="nothing in hand")
        self._grade()
        self._layer()
        self._move()
        film = self._send()
        frames = decoded(film)
        self.assertEqual(90, len(frames))
        # The star lies in the middle, in its own red; beside it the take, made darker.
        middle, corner = frames[10][160, 90], frames[10][12, 12]
        self.assertGreater(int(middle[0]), int(middle[2]) + 60)
        self.assertLess(int(corner.max()), 120)
        self.assert_clean_console()

    def _gather(self) -> None:
        browser = self.browser
        folder = Path(tempfile.mkdtemp(dir=browser.folder))
        path = make_video(folder / "kite.mp4", frames=30, size=(180, 320), sound=tone(1.0))
        browser.wait(lambda: browser.all("[data-test=files]"))[0].send_keys(str(path))
        browser.find('[data-take="kite.mp4"] img', seconds=60)
        self.fingers.tap(self.fingers.middle('[data-take="kite.mp4"]'))
        browser.find("[data-test=take-still]")
        self.assertGreaterEqual(browser.test("take-still").rect["height"], 0.5 * 844)
        self.tap("place-end")
        browser.wait(lambda: len(self._document().tracks[0].clips) == 1, what="it was not placed")

    def _grade(self) -> None:
        self.tap("stage-grade")
        self.browser.find(".alone .exact input").send_keys(
            Keys.CONTROL + "a" + Keys.NULL, "-2", Keys.ENTER
        )
        self.browser.wait(
            lambda: self._document().tracks[0].clips[0].grade is not None, what="no grade"
        )

    def _layer(self) -> None:
        browser = self.browser
        self.tap("stage-layer")
        self.fingers.tap(self.fingers.middle("[data-test=add-layer] button"))
        self.tap("add-star")
        browser.wait(lambda: len(self._document().tracks) > 1, what="no star")
        browser.wait(lambda: browser.test("in-hand").text == "Star", what="it is not in hand")

    def _move(self) -> None:
        self.tap("stage-move")
        rest = self._star().place.position
        x, y = self.fingers.middle("[data-test=handle-body]")
        self.fingers.drag(((x, y), (x + 30, y + 40)))
        self.browser.wait(lambda: self._star().place.position != rest, what="the star stayed")
        self.assertGreater(self._star().place.position[1], rest[1] + 10)
        self.tap("undo")
        self.browser.wait(lambda: self._star().place.position == rest, what="it was not undone")

    def _star(self) -> Any:
        clips = [clip for track in self._document().tracks for clip in track.clips]
        return next(clip for clip in clips if clip.kind == "shape")

    def _send(self) -> Path:
        self.tap("stage-send")
        self.tap("export")
        link = self.browser.find(".film a[download]", seconds=120).get_attribute("href")
        path = Path(tempfile.mkdtemp(dir=self.browser.folder)) / "film.mp4"
        path.write_bytes(self.browser.fetched(link or ""))
        return path

    def _in_strip(self, px: float) -> tuple[float, float]:
        x, y = self.fingers.middle("[data-test=strip]")
        return x + px, y

    def _document(self) -> Document:
        project = Project.objects.select_related("head").get(pk=self.project.pk)
        return history.document_at(history.head_of(project))
