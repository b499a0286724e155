"""The same by fingers on a phone: taps, drags, pinches; and two people's tabs at once."""

from __future__ import annotations

import json
from typing import Any

from django.contrib.auth.models import User

from browser_tests.browser import Browser
from browser_tests.fingers import Fingers
from browser_tests.site import SiteTest
from kitecore.document import empty_document
from studio.projects import history
from studio.projects.models import Project
from studio.tests.site import SECOND, clip_of, take_of


class TouchTest(SiteTest):
    size = (390, 844)
    touch = True

    def setUp(self) -> None:
        super().setUp()
        owner = User.objects.get(username="pip")
        self.project = history.start_project(owner, "Small", empty_document())
        take = take_of(self.project, frames=90)
        for mode, at in (("end", 0), ("end", 0), ("above", 0)):
            self._edit({"kind": "place", "mode": mode, "at": at, "clip": clip_of(take, 2.0)})
        self.browser.open(f"/projects/{self.project.id}/cut")
        self.browser.press("open-timeline")
        self.browser.wait(lambda: len(self.browser.all("[data-clip]")) == 3)
        self.fingers = Fingers(self.browser)

    def _edit(self, edit: dict[str, Any]) -> None:
        from pydantic import TypeAdapter

        from kitecore.edits import Edit

        self.project.refresh_from_db()
        parsed = TypeAdapter(Edit).validate_json(json.dumps(edit))
        history.apply_edit(self.project, self.project.head_id or 0, parsed)

    def _clip(self, track: int, index: int = 0) -> Any:
        project = Project.objects.select_related("head").get(pk=self.project.pk)
        return history.document_at(history.head_of(project)).tracks[track].clips[index]

    def _selector(self, track: int, index: int = 0) -> str:
        return f'[data-clip="{self._clip(track, index).id}"]'

    def test_fingers_do_all_of_it(self) -> None:
        above = self._selector(1)
        self.fingers.tap(self.fingers.middle(above))
        self.browser.find(f"{above}.in-hand")
        self._move_and_pinch()
        self._trim(above)
        self._carry()
        self.assert_clean_console()

    def _move_and_pinch(self) -> None:
        x, y = self.fingers.middle("[data-test=handles]")
        self.fingers.drag(((x, y), (x + 37, y - 60)))
        self.browser.wait(lambda: self._clip(1).place.position[1] < -100)
        moved = self._clip(1).place
        self.assertGreater(moved.position[0], 100)
        self.fingers.drag(
            ((x - 20, y - 60), (x - 10, y - 60)), ((x + 60, y - 60), (x + 30, y - 60))
        )
        self.browser.wait(lambda: self._clip(1).place.size[0] < 0.7)
        self.browser.test("undo").click()
        self.browser.wait(lambda: self._clip(1).place.size == (1.0, 1.0))
        self.assertEqual(moved.position, self._clip(1).place.position)

    def _trim(self, clip: str) -> None:
        x, y = self.fingers.middle(f'{clip} [data-edge="end"]')
        self.fingers.drag(((x, y), (x - 60, y)))
        self.browser.wait(lambda: self._clip(1).length < 1.8 * SECOND)
        self.assertEqual(0, self._clip(1).length % (SECOND // 30))

    def _carry(self) -> None:
        first, second = self._clip(0, 0).id, self._clip(0, 1).id
        x, y = self.fingers.middle(self._selector(0, 1))
        self.fingers.drag(((x, y), (x - 160, y)), hold=True)
        self.browser.wait(lambda: self._clip(0, 0).id == second)
        self.assertEqual(first, self._clip(0, 1).id)

    def test_one_finger_goes_through_a_take_and_two_come_closer(self) -> None:
        browser, strip = self.browser, '[data-test="mark-strip"]'
        browser.open(f"/projects/{self.project.id}/gather")
        browser.find("[data-take]").click()
        now = lambda: int(browser.find(strip).get_attribute("aria-valuenow"))  # noqa: E731
        browser.wait(lambda: now() == 0)
        x, y = self.fingers.middle(strip)
        self.fingers.drag(((x, y), (x + 100, y)))
        browser.wait(lambda: now() == 3, what="a finger does not go through the take")
        self.fingers.drag(((x - 15, y), (x - 60, y)), ((x + 15, y), (x + 60, y)))
        browser.find(f"{strip}.closer")
        self.fingers.drag(((x - 90, y), (x - 15, y)), ((x + 90, y), (x + 15, y)))
        browser.wait(lambda: not browser.all(f"{strip}.closer"), what="it does not go back")
        self.assert_clean_console()

    def test_two_tabs_do_not_hurt_each_other(self) -> None:
        other = Browser(self.live_server_url)
        self.addCleanup(other.close)
        other.sign_in("pip", "a-long-one-7")
        other.open(f"/projects/{self.project.id}/cut")
        other.wait(lambda: len(other.all("[data-clip]")) == 3)
        self.fingers.tap(self.fingers.middle(self._selector(0)))
        self.browser.find(".verb-more").click()
        self.browser.press("verb-duplicate")
        self.browser.wait(lambda: len(self.browser.all("[data-clip]")) == 4)
        other.find(f"{self._selector(1)} .face").click()
        other.press("verb-delete")
        other.wait(lambda: "changed elsewhere" in other.find(".note").text)
        other.wait(lambda: len(other.all("[data-clip]")) == 3)
        self.assertEqual(3, len(self._clips(0)))
        self.assertEqual(0, len(self._clips(1)))

    def _clips(self, track: int) -> tuple[Any, ...]:
        project = Project.objects.select_related("head").get(pk=self.project.pk)
        return history.document_at(history.head_of(project)).tracks[track].clips
