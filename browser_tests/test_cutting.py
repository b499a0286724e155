"""Cutting by feel: joins, ramps, groups, markers, history, split screen, voice; then the file itself."""

from __future__ import annotations

import re
from typing import Any

from django.contrib.auth.models import User
from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys

from browser_tests.site import SiteTest
from kitecore.document import Canvas, SolidClip, empty_document
from kitecore.edits.tests.strategies import edit
from kitecore.media.tests.material import decoded_numbers
from studio.projects import history
from studio.projects.models import Project
from studio.tests.site import SECOND, clip_of, take_of

FRAME = SECOND // 30


class CuttingTest(SiteTest):
    def setUp(self) -> None:
        super().setUp()
        pip = User.objects.get()
        document = empty_document(Canvas(width=180, height=320))
        self.project = history.start_project(pip, "Numbers", document)
        for name in ("first", "second"):
            take = take_of(self.project, f"{name}.mp4", frames=90)
            clip = clip_of(take) | {"name": name, "source_in": SECOND}
            self.step(kind="place", clip=clip)
        self.browser.open(f"/projects/{self.project.id}/cut")
        self.clip("second")

    def step(self, **fields: Any) -> None:
        self.project.refresh_from_db()
        history.apply_edit(self.project, self.project.head_id, edit(**fields))

    def clip(self, name: str) -> Any:
        return self.browser.find(f'.clip[aria-label^="{name}"]')

    def take(self, name: str, several: bool = False) -> None:
        chain = ActionChains(self.browser.driver)
        if several:
            chain.key_down("\ue009")
        chain.click(self.clip(name)).key_up("\ue009").perform()

    def key(self, name: str, **more: bool) -> None:
        self.browser.run("document.activeElement.blur()")
        self.browser.run(
            "window.dispatchEvent(new KeyboardEvent('keydown', {key: arguments[0], ...arguments[1]}))",
            name,
            more,
        )

    def document(self) -> Any:
        project = Project.objects.select_related("head").get(pk=self.project.pk)
        return history.document_at(history.head_of(project))

    def until(self, condition: Any, what: str) -> None:
        self.browser.wait(lambda: condition(self.document()), what=what)

    def test_match_a_join_ramp_a_take_and_export(self) -> None:
        browser = self.browser
        browser.press("roll-10")
        browser.press("roll1")
        self.until(lambda d: d.main.clips[1].start == 21 * FRAME, "the join did not roll")
        browser.press("transition-dissolve")
        self.until(lambda d: d.main.clips[1].transition, "no transition")
        browser.press("transition-cut")
        self.until(lambda d: not d.main.clips[1].transition, "still a transition")
        self.take("second")
        browser.press("speed-2")
        self.until(lambda d: d.main.clips[1].speed.constant == 2, "not faster")
        browser.press("reverse")
        self.until(lambda d: d.main.clips[1].speed.constant == -2, "not reversed")
        self.assertEqual(
            [*range(30, 51), *self._reversed()], decoded_numbers(self.exported())[: 21 + 19]
        )
        self.assert_clean_console()

    def _reversed(self) -> list[int]:
        clip = self.document().main.clips[1]
        low, high = (tick / FRAME for tick in clip.used)
        self.assertEqual(clip.length, 20 * FRAME)
        self.assertAlmostEqual(39, high - low, delta=1.1)
        # The row of frames that the same clip shows forwards, from its end.
        return list(range(round(high) - 2, round(high) - 2 - 38, -2))

    def test_a_ramp_is_drawn_as_source_time_and_set_by_numbers(self) -> None:
        browser = self.browser
        self.take("first")
        browser.press("part-pace")
        browser.press("ramp-on")
        browser.press("keep-length")
        browser.press("ramp-hush")
        self.until(lambda d: d.main.clips[0].speed.constant is None, "no ramp")
        browser.press("ramp-view-source")
        before = self._source_at_points()
        knob = browser.test("ramp-point-1")
        ActionChains(browser.driver).drag_and_drop_by_offset(knob, 6, 8).perform()
        self.until(lambda d: any(p.bends for p in d.main.clips[0].speed.points), "nothing bent")
        after = self._source_at_points()
        self.assertNotEqual(before[1], after[1])
        for old, new in zip(before[2:], after[2:], strict=True):
            self.assertAlmostEqual(old, new, delta=SECOND / 1e5)
        box = browser.find('[data-test="ramp-speed"] input')
        box.send_keys(Keys.CONTROL, "a")
        box.send_keys("0.5", Keys.ENTER)
        point = lambda d: [p for p in d.main.clips[0].speed.points if not p.bends][1]  # noqa: E731
        self.until(lambda d: point(d).speed == 0.5, "the speed was not taken")
        typed = self._source_at_points()
        for old, new in zip(after, typed, strict=True):
            self.assertAlmostEqual(old, new, delta=SECOND / 1e5)
        browser.press("ramp-pace-straight")
        self.until(lambda d: point(d).soft is False, "its pace was not taken")
        self.assertIsNone(self.document().main.clips[0].speed.points[0].soft)
        browser.press("ramp-on")
        self.until(lambda d: d.main.clips[0].speed.constant, "still a ramp")
        self.assert_clean_console()

    def _source_at_points(self) -> list[int]:
        speed = self.document().main.clips[0].speed
        return [speed.offset(point.at) for point in speed.points if not point.bends]

    def test_too_little_footage_gets_a_plain_offer(self) -> None:
        self.step(kind="slip", clips=[self.document().main.clips[0].id], by=99 * SECOND)
        self.browser.driver.refresh()
        self.clip("second")
        self.browser.press("transition-wipe")
        self.browser.press("hold")
        self.until(
            lambda d: d.main.clips[1].transition and d.main.clips[1].transition.hold, "no hold"
        )
        self.assertEqual(60, self.document().frames)

    def test_groups_open_in_place_and_history_leads_back(self) -> None:
        self.take("first")
        self.take("second", several=True)
        self.key("g")
        self.clip("Group 1")
        self.take("Group 1")
        self.key("ArrowRight", shiftKey=True)
        self.browser.drawn(10)
        self.browser.press("verb-open-group")
        self.browser.drawn(10)
        self.take("second")
        self.browser.find('[data-test="leave-group"]')
        self.key("Delete")
        self.until(lambda d: d.length == SECOND, "the group did not become shorter")
        self.browser.press("leave-group")
        self.browser.drawn(10)
        self.assertEqual(1, len(self.browser.all(".clip")))
        self.browser.press("history")
        steps = self.browser.find(".offcanvas.show ol").find_elements(By.TAG_NAME, "button")
        next(step for step in steps if "second" in step.text).click()
        self.until(lambda d: len(d.main.clips) == 2, "history did not lead back")
        self.assert_clean_console()

    def test_marks_copies_and_split_screen(self) -> None:
        self.key("ArrowRight", shiftKey=True)
        self.key("k")
        self.until(lambda d: d.markers and d.markers[0].at == 10 * FRAME, "no marker")
        self.take("first")
        self.key("k")
        self.until(lambda d: d.main.clips[0].markers, "no marker on the clip")
        self.key("c", ctrlKey=True)
        self.key("End")
        self.key("v", ctrlKey=True)
        self.until(lambda d: len(d.main.clips) >= 3, "nothing pasted")
        self.take("first")
        self.take("second", several=True)
        self.browser.press("part-screen")
        self.browser.press("layout-2")
        cells = lambda d: [c for _, c in d.clips() if getattr(c, "cell", None)]  # noqa: E731
        self.until(lambda d: len(cells(d)) == 2, "no split screen")
        outlines = lambda: self.browser.all("[data-test=hand-outlines] .outline")  # noqa: E731
        self.browser.wait(lambda: len(outlines()) == 2, what="the cells have no outlines")
        self.browser.press("cell-1")
        self.until(
            lambda d: [c.cell.place for c in cells(d) if c.name == "first"] == [1], "no swap"
        )
        width = self.browser.find('[aria-label="Width, exact"]')
        width.send_keys(Keys.CONTROL + "a" + Keys.NULL + "30" + Keys.TAB)
        self.until(
            lambda d: {c.cell.cell_shares for c in cells(d)} == {((70, 30),)}, "not 30 percent"
        )
        self.assert_clean_console()

    def test_a_lasso_takes_what_it_touches_and_copies_go_elsewhere(self) -> None:
        first, second = (self.clip(name).rect for name in ("first", "second"))
        corner = (second["x"] + second["width"] + 60, second["y"] + second["height"] + 30)
        goal = (first["x"] + first["width"] - 20, second["y"] + 10)
        chain = ActionChains(self.browser.driver, duration=40)
        chain.w3c_actions.pointer_action.move_to_location(*map(int, corner))
        chain.w3c_actions.pointer_action.pointer_down()
        chain.w3c_actions.pointer_action.move_to_location(int(goal[0]) + 40, int(goal[1]) + 20)
        chain.w3c_actions.pointer_action.move_to_location(*map(int, goal))
        chain.w3c_actions.pointer_action.pointer_up()
        chain.perform()
        self.browser.wait(
            lambda: "2 clips" in self.browser.test("in-hand").text, what="the lasso took nothing"
        )
        self.key("c", ctrlKey=True)
        other = history.start_project(User.objects.get(), "Elsewhere", empty_document())
        self.browser.open(f"/projects/{other.id}/cut")
        self.browser.find(".hint")
        self.key("v", ctrlKey=True)
        self.clip("second")
        other.refresh_from_db()
        document = history.document_at(history.head_of(other))
        self.assertEqual(["first", "second"], [clip.name for clip in document.main.clips])

    def test_clips_too_narrow_to_be_told_apart_are_one_until_one_comes_closer(self) -> None:
        document = empty_document()
        clips = tuple(
            SolidClip(name=f"s{number}", start=number * SECOND, length=SECOND)
            for number in range(3000)
        )
        document = document.with_track(document.main.with_clips(clips))
        self.project = history.start_project(User.objects.get(), "Long", document)
        browser = self.browser
        browser.open(f"/projects/{self.project.id}/cut")
        crowd = browser.find(".crowd")
        self.assertIn("3000 clips", crowd.text)
        self.assertLess(len(browser.driver.find_elements(By.CSS_SELECTOR, ".clip")), 3)
        box = crowd.rect
        ActionChains(browser.driver).move_to_element_with_offset(
            crowd, round(box["width"] / 4), 0
        ).click().perform()
        told = browser.test("in-hand").text
        number = int(re.search(r"s(\d+)", told).group(1))  # type: ignore[union-attr]
        self.assertAlmostEqual(2250, number, delta=15)
        self.key("d")
        self.until(lambda d: len(d.main.clips) == 3001, "nothing was duplicated")
        for _ in range(18):
            browser.find('[aria-label="Zoom in"]').click()
        browser.wait(
            lambda: not browser.driver.find_elements(By.CSS_SELECTOR, ".crowd"),
            what="they stay one",
        )
        self.assertGreater(len(browser.driver.find_elements(By.CSS_SELECTOR, ".clip")), 1)

    def test_voice_lies_where_it_was_spoken(self) -> None:
        self.browser.press("stage-gather")
        self.browser.press("voice")
        self.browser.press("voice-record")
        self.browser.find('[data-test="voice-stop"]')
        self.browser.wait(lambda: self.browser.frame() > 30, what="the timeline does not play")
        self.browser.press("voice-stop")
        voice = lambda d: [c for _, c in d.clips() if c.name == "Voice"]  # noqa: E731
        self.until(voice, "no voice on the timeline")
        [clip] = voice(self.document())
        self.assertEqual(0, clip.start)
        self.assertGreater(clip.length, SECOND // 2)
        # What was recorded before the timeline began to move is left out.
        self.assertGreater(clip.source_in, 0)

    def test_start_and_length_are_typed_and_told_at_the_finger(self) -> None:
        browser = self.browser
        second = self.document().main.clips[1].id
        self.step(kind="raise", clip=second)
        browser.driver.refresh()
        self.take("second")
        browser.press("in-hand")
        browser.dialog()
        fields = {name: browser.find(f"#clip-{name}") for name in ("start", "length")}
        self.assertEqual("0:01.00", fields["start"].get_attribute("value"))
        for name, text in (("start", "soon"), ("length", "15 f")):
            fields[name].send_keys(Keys.CONTROL + "a" + Keys.NULL + text)
        refused = browser.find(".modal.show .btn-primary")
        browser.wait(lambda: not refused.is_enabled(), what="no time is taken for one")
        fields["start"].send_keys(Keys.CONTROL + "a" + Keys.NULL + "2.5" + Keys.ENTER)
        found = lambda d: next(c for _, c in d.clips() if c.name == "second")  # noqa: E731
        self.until(lambda d: found(d).start == 75 * FRAME, "it does not start there")
        self.assertEqual(15 * FRAME, found(self.document()).length)
        browser.wait(lambda: not browser.all(".modal.show"))
        chain = ActionChains(browser.driver, duration=30)
        chain.click_and_hold(self.clip("second")).move_by_offset(25, 0).perform()
        words = browser.test("drag-told").text.split()
        ActionChains(browser.driver).release().perform()
        self.until(lambda d: found(d).start > 75 * FRAME, "it was not moved")
        frame = found(self.document()).start // FRAME
        self.assertEqual(f"0:{frame // 30:02}.{frame % 30:02}", words[0])
        self.assertEqual("+", words[1][0])

    def test_a_step_of_the_history_is_compared_with_now_on_the_picture(self) -> None:
        browser = self.browser
        before = self.document_revision()
        self.step(kind="adjust", clips=[self.document().main.clips[0].id], values={"opacity": 0})
        browser.driver.refresh()
        browser.drawn(0)
        browser.press("history")
        browser.press(f"compare-{before}")
        image = browser.find("[data-test=compare] img")
        mean = (
            "const c = document.createElement('canvas'); c.width = c.height = 8;"
            "const x = c.getContext('2d'); x.drawImage(arguments[0], 0, 0, 8, 8);"
            "const d = x.getImageData(0, 0, 8, 8).data;"
            "return d.filter((_, i) => i % 4 < 3).reduce((a, b) => a + b, 0) / 192"
        )
        browser.wait(lambda: browser.run(mean, image) > 20, what="the step before is not shown")
        self.assertLess(browser.run(mean, browser.test("still")), 5)
        browser.press("compare-off")
        self.assertFalse(browser.all("[data-test=compare]"))
        self.assert_clean_console()

    def document_revision(self) -> int:
        self.project.refresh_from_db()
        return int(self.project.head_id)

    def test_gain_has_keys_in_cut_and_in_move(self) -> None:
        take = take_of(self.project, "tone.mp4", frames=60)
        sound = clip_of(take, 2) | {"kind": "sound", "name": "tone"}
        self.step(kind="place", clip=sound, mode="over", at=0)
        self.browser.driver.refresh()
        self.clip("tone")
        self.take("tone")
        self.browser.press("part-sound")
        self.browser.find('[aria-label="Gain: set a key here"]').click()
        gain = lambda d: next(c for _, c in d.clips() if c.name == "tone").gain  # noqa: E731
        self.until(lambda d: len(getattr(gain(d), "keys", ())) == 1, "no key")
        self.browser.press("stage-move")
        self.browser.find('[aria-label="Value over time"]')
        self.key("ArrowRight", shiftKey=True)
        self.browser.drawn(10)
        field = self.browser.find('[aria-label="Gain, exact"]')
        self.browser.run(
            "arguments[0].value = '-20'; arguments[0].dispatchEvent(new Event('change'))", field
        )
        self.until(lambda d: len(getattr(gain(d), "keys", ())) == 2, "the change set no key")
        keys = gain(self.document()).keys
        self.assertEqual([(0, 0), (10 * FRAME, -20)], [(key.at, key.value) for key in keys])
        self.assert_clean_console()

    def test_backwards_at_several_speeds(self) -> None:
        self.key("End")
        self.browser.wait(lambda: self.browser.frame() == 60)
        self.key("x")
        self.browser.wait(lambda: 0 < self.browser.frame() < 55, what="does not go back")
        self.key("x")
        self.browser.wait(lambda: self.browser.frame() == 0, what="does not arrive")
        self.assert_clean_console()
