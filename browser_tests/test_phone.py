"""The page on a phone: what keeps its place, what can be reached, and the strip of time."""

from __future__ import annotations

import json
from typing import Any

from django.contrib.auth.models import User
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys

from browser_tests.boxes import share_of_picture, small, unreachable
from browser_tests.fingers import Fingers
from browser_tests.site import SiteTest
from kitecore.document import Canvas, empty_document
from studio.projects import history
from studio.projects.models import Project
from studio.tests.site import clip_of, take_of

SIZES = ((360, 640), (390, 844), (430, 932))
STAGES = ("cut", "grade", "layer", "move", "send")


class PhoneCase(SiteTest):
    size = (390, 844)
    touch = True
    canvas = Canvas()

    def setUp(self) -> None:
        super().setUp()
        owner = User.objects.get(username="pip")
        start = empty_document().model_copy(update={"canvas": self.canvas})
        self.project = history.start_project(owner, "A rather long name of a small film", start)
        take = take_of(self.project, frames=90)
        for _ in range(2):
            self.edit(kind="place", mode="end", clip=clip_of(take, 2.0))
        self.edit(kind="add_layer", layer="text", at=0)
        self.edit(kind="add_layer", layer="star", at=0)
        self.browser.open(f"/projects/{self.project.id}/cut")
        self.browser.drawn(0)
        self.fingers = Fingers(self.browser)

    def edit(self, **edit: Any) -> None:
        from pydantic import TypeAdapter

        from kitecore.edits import Edit

        self.project.refresh_from_db()
        parsed = TypeAdapter(Edit).validate_json(json.dumps(edit))
        history.apply_edit(self.project, self.project.head_id or 0, parsed)

    def clips(self, track: int) -> Any:
        project = Project.objects.select_related("head").get(pk=self.project.pk)
        return history.document_at(history.head_of(project)).tracks[track].clips

    def take_on_timeline(self, track: int, index: int = 0) -> None:
        browser = self.browser
        browser.press("open-timeline")
        self.fingers.tap(self.fingers.middle(f'[data-clip="{self.clips(track)[index].id}"]'))
        browser.wait(lambda: browser.test("in-hand").is_enabled(), what="nothing in hand")
        browser.press("close-timeline")


class LayoutTest(PhoneCase):
    def test_the_picture_keeps_half_and_all_can_be_reached(self) -> None:
        for track, kind in ((0, "video"), (1, "text"), (2, "shape")):
            self.browser.resize((390, 844), touch=True)
            self.browser.press("stage-cut")
            self.take_on_timeline(track)
            for size in SIZES if track == 0 else SIZES[:1]:
                self.browser.resize(size, touch=True)
                for stage in STAGES:
                    with self.subTest(kind=kind, size=size, stage=stage):
                        self.browser.press(f"stage-{stage}")
                        self._every_part()
        self.assert_clean_console()

    def _every_part(self) -> None:
        browser = self.browser
        rows = ".parts .chip"
        browser.find(rows)
        for part in range(len(browser.all(rows))):
            browser.run("arguments[0].click()", browser.all(rows)[part])
            name = browser.all(rows)[part].text
            controls = max(1, len(browser.all(".chips:not(.parts) .chip")))
            for control in range(controls):
                chips = browser.all(".chips:not(.parts) .chip")
                if control < len(chips):
                    browser.run("arguments[0].click()", chips[control])
                self.assertEqual([], unreachable(browser), (name, control))
                self.assertEqual([], small(browser), (name, control))
                self.assertGreaterEqual(share_of_picture(browser), 0.5, (name, control))

    def test_in_the_timeline_fingers_hit_what_they_mean(self) -> None:
        self.browser.press("open-timeline")
        self.browser.find("[data-test=ruler]")
        self.assertEqual([], small(self.browser))

    def test_sides_can_be_swapped_and_menus_stay_inside(self) -> None:
        browser = self.browser
        left = browser.test("play").rect["x"]
        self.assertGreater(left, 195)
        browser.find("[data-test=project-menu] button").click()
        browser.press("flip")
        browser.wait(lambda: browser.test("play").rect["x"] < 195)
        browser.wait(lambda: not browser.all(".dropdown-menu.show"))
        browser.find(".verb-more").click()
        menu = browser.find(".dropdown-menu.show").rect
        self.assertEqual((0, 390), (menu["x"], menu["width"]))
        self.assertLessEqual(menu["y"] + menu["height"], 845)
        self.assertEqual([], unreachable(browser, ".dropdown-menu.show"))


class WideProjectTest(PhoneCase):
    canvas = Canvas(width=1920, height=1080)

    def test_the_room_below_goes_to_the_tools(self) -> None:
        browser = self.browser
        self.take_on_timeline(0)
        for stage in STAGES:
            with self.subTest(stage=stage):
                browser.press(f"stage-{stage}")
                browser.find(".parts .chip")
                self.assertEqual([], unreachable(browser))
                self.assertGreater(browser.test("still").rect["width"], 387)

    def test_lying_on_its_side_all_can_be_reached(self) -> None:
        browser = self.browser
        self.take_on_timeline(0)
        browser.resize((844, 390), touch=True)
        for stage in STAGES:
            with self.subTest(stage=stage):
                browser.press(f"stage-{stage}")
                browser.find(".parts .chip")
                self.assertEqual([], unreachable(browser))


class StripTest(PhoneCase):
    def test_dragged_pinched_tapped_and_pulled_up(self) -> None:
        browser = self.browser
        x, y = self.fingers.middle("[data-test=strip]")
        self.fingers.drag(((x, y), (x - 60, y)))
        browser.wait(lambda: browser.frame() == 30, what="60 pixels are not a second")
        self.fingers.drag(((x - 20, y), (x - 40, y)), ((x + 20, y), (x + 40, y)))
        browser.wait(lambda: browser.run("return localStorage['velvet-kite.strip-zoom']") == "120")
        self.fingers.tap((x + 30, y))
        browser.wait(lambda: browser.test("in-hand").text == self.clips(0)[0].name)
        self.fingers.drag(((x, y), (x, y - 70)))
        browser.find("[data-test=ruler]")
        browser.press("close-timeline")
        browser.test("strip").send_keys(Keys.ARROW_RIGHT)
        browser.wait(lambda: browser.frame() == 31)

    def test_one_control_large_with_its_number_and_key(self) -> None:
        browser = self.browser
        self.take_on_timeline(0)
        browser.press("stage-grade")
        browser.press("control-Exposure")
        slider = browser.find(".alone .slider")
        self.assertGreaterEqual(slider.rect["width"], 350)
        self.assertGreaterEqual(slider.rect["height"], 44)
        browser.press("more")
        browser.wait(lambda: self._exposure() == 0.05, what="plus did nothing")
        exact = browser.find(".alone .exact input")
        exact.send_keys(Keys.CONTROL + "a" + Keys.NULL, "0,6", Keys.ENTER)
        browser.wait(lambda: self._exposure() == 0.6, what="the typed number did nothing")
        x, y = self.fingers.middle(".alone .slider")
        for _ in range(2):
            self.fingers.tap((x, y))
        browser.wait(lambda: self._exposure() == 0.0, what="two taps did not set it back")
        browser.press("more")
        browser.wait(lambda: self._exposure() == 0.05, what="plus did nothing")
        browser.find(".alone [data-test=field-name]").click()
        browser.wait(lambda: self._exposure() == 0.0, what="Reset did not set it back")
        browser.find(".alone .key").click()
        browser.wait(lambda: hasattr(self._exposure(), "keys"), what="no key was set")
        chip = browser.test("control-Exposure").find_element(By.TAG_NAME, "svg")
        self.assertEqual("has keys", chip.get_attribute("aria-label"))

    def _exposure(self) -> object:
        grade = self.clips(0)[0].grade
        return grade.light.exposure if grade and grade.light else 0.0


class SmallLayerTest(PhoneCase):
    def test_a_finger_moves_it_two_turn_it_and_a_loupe_shows_what_is_hidden(self) -> None:
        browser, fingers = self.browser, self.fingers
        star = self.clips(2)[0].id
        self.edit(kind="adjust", clips=[star], values={"place/size": [0.05, 0.05]})
        browser.driver.refresh()
        browser.drawn(0)
        self.take_on_timeline(2)
        browser.press("stage-move")
        x, y = fingers.middle("[data-test=handle-move]")
        fingers.drag(((x, y), (x + 60, y + 90)))
        browser.wait(lambda: self._place().position[1] > 350, what="it did not move")
        self.assertEqual((0.05, 0.05), self._place().size)
        self.assertEqual(0, self._place().turn)
        x, y = fingers.middle("[data-test=still]")
        far = y - 150
        fingers.drag(((x - 30, far), (x - 60, far)), ((x + 30, far), (x + 60, far + 30)))
        browser.wait(lambda: self._place().size[0] > 0.09, what="two fingers did not size it")
        self.assertGreater(self._place().turn, 5)
        browser.press("part-left")
        browser.press("control-Nudge")
        before = self._place().position
        browser.press("nudge-left")
        browser.wait(lambda: round(before[0] - self._place().position[0], 2) == 1)
        browser.press("control-Of the picture")
        browser.press("place-pivot")
        x, y = fingers.middle("[data-test=handle-pivot]")
        fingers._send("touchStart", [(x, y)])
        fingers._send("touchMove", [(x + 12, y)])
        browser.find("[data-test=loupe]")
        fingers._send("touchEnd", [])
        browser.wait(lambda: not browser.all("[data-test=loupe]"))
        browser.wait(lambda: self._place().pivot[0] != 0, what="the pivot stayed")
        # It is still handled, and lies where the finger left it, however the layer is turned.
        browser.wait(
            lambda: abs(fingers.middle("[data-test=handle-pivot]")[0] - x - 12) < 6,
            what="the pivot went elsewhere",
        )
        self.assert_clean_console()

    def _place(self) -> Any:
        return self.clips(2)[0].place
