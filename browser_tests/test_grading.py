"""Grading two takes to match, with scopes and zones; then the file itself."""

from __future__ import annotations

from typing import Any

import av
import numpy as np
from django.contrib.auth.models import User
from selenium.webdriver.common.action_chains import ActionChains

from browser_tests.fingers import Fingers
from browser_tests.site import SiteTest
from demo.cameras import as_log, wrong_white
from kitecore.document import Canvas, Document, Grade, empty_document
from kitecore.document.paths import Contour
from kitecore.edits.tests.strategies import edit
from studio.projects import history
from studio.projects.models import Project
from studio.tests.site import clip_of, take_of

SIZE = (180, 320)
WHITE, SKIN, SKY = (0.75, 0.75, 0.75), (0.75, 0.56, 0.46), (0.45, 0.58, 0.72)
COLOURS = {"white": (60, 40), "skin": (160, 90), "sky": (270, 90)}
"""Row and column at which each colour of the test picture can be read."""


def picture() -> np.ndarray:
    """Sky below, skin in the middle, a white card at the top left; RGBA of 8 bits."""
    pixels = np.full((SIZE[1], SIZE[0], 4), 255, np.uint8)
    pixels[:110, :, :3] = np.rint(np.array(WHITE) * 255)
    pixels[110:220, :, :3] = np.rint(np.array(SKIN) * 255)
    pixels[220:, :, :3] = np.rint(np.array(SKY) * 255)
    return pixels


def flat_frame(number: int) -> av.VideoFrame:
    frame = av.VideoFrame.from_ndarray(as_log(picture()), format="rgb48le")
    return frame.reformat(format="yuv420p10le", dst_colorspace="ITU709", dst_color_range="MPEG")


def cold_frame(number: int) -> av.VideoFrame:
    frame = av.VideoFrame.from_ndarray(wrong_white(picture()), format="rgba")
    return frame.reformat(format="yuv420p", dst_colorspace="ITU709", dst_color_range="MPEG")


class GradingCase(SiteTest):
    def setUp(self) -> None:
        super().setUp()
        document = empty_document(Canvas(width=SIZE[0], height=SIZE[1]))
        self.project = history.start_project(User.objects.get(), "Two cameras", document)
        deep = {"codec": "libx265", "options": {"x265-params": "log-level=error:crf=8"}}
        flat = {"pixels": "yuv420p10le", "draw": flat_frame, **deep}
        for name, how in (("flat", flat), ("cold", {"draw": cold_frame})):
            take = take_of(self.project, f"{name}.mp4", size=SIZE, frames=30, **how)
            self.step(kind="place", clip=clip_of(take, 0.5) | {"name": name})
        self.browser.open(f"/projects/{self.project.id}/cut")
        self.take("flat")
        self.browser.press("stage-grade")

    def step(self, **fields: Any) -> None:
        self.project.refresh_from_db()
        history.apply_edit(self.project, self.project.head_id, edit(**fields))

    def take(self, name: str) -> None:
        clip = f'.clip[aria-label^="{name}"] .face'
        self.browser.find(clip)
        if self.touch:
            Fingers(self.browser).tap(Fingers(self.browser).middle(clip))
        else:
            self.browser.find(clip).click()

    def document(self) -> Document:
        project = Project.objects.select_related("head").get()
        return history.document_at(history.head_of(project))

    def grade(self, clip: int) -> Grade:
        found = self.document().main.clips[clip]
        return found.grade or Grade()  # type: ignore[attr-defined]

    def until(self, condition: Any, what: str) -> None:
        self.browser.wait(condition, what=what)

    def key(self, name: str, **more: bool) -> None:
        self.browser.run("document.activeElement.blur()")
        self.browser.run(
            "window.dispatchEvent(new KeyboardEvent('keydown', {key: arguments[0], ...arguments[1]}))",
            name,
            more,
        )

    def set(self, label: str, value: str) -> None:
        field = self.browser.find(f'[aria-label="{label}, exact"]')
        script = (
            "arguments[0].value = arguments[1]; arguments[0].dispatchEvent(new Event('change'))"
        )
        self.browser.run(script, field, value)


class GradingTest(GradingCase):
    def test_match_two_takes_give_a_look_and_export(self) -> None:
        browser = self.browser
        browser.press("grade-more")
        browser.find("[data-test=coding] option[value=acescct]").click()
        self.until(lambda: self.grade(0).input.transform == "acescct", "no camera coding")
        browser.press("grade-balance")
        self.set("Exposure", "0.6")
        self.until(lambda: self.grade(0).light.exposure == 0.6, "no exposure")
        self._neutral()
        browser.press("grade-looks")
        browser.press("look-two-papers")
        self.until(lambda: self.grade(1).lut.look == "two-papers", "no look")
        self._page_knows()
        self.key("c", ctrlKey=True)
        self.take("flat")
        self._give_settings()
        self.until(lambda: self.grade(0).lut.look == "two-papers", "settings were not given")
        self.assertEqual(self.grade(1), self.grade(0))
        self.key("z", ctrlKey=True)
        self.until(lambda: not self.grade(0).lut.look, "not undone")
        browser.press("stage-send")
        browser.find("[data-test=format] option[value=hevc10]").click()
        self._check(self.exported())
        self.assert_clean_console()

    def _neutral(self) -> None:
        """Tap the card of the cold take."""
        browser = self.browser
        self.take("cold")
        for _ in range(2):
            self.key("ArrowRight", shiftKey=True)
        browser.drawn(20)
        browser.press("neutral")
        field = browser.test("pick")
        up = -field.size["height"] * 0.3
        ActionChains(browser.driver).move_to_element_with_offset(
            field, 0, int(up)
        ).click().perform()
        self.until(lambda: self.grade(1).balance.warmth > 30, "no balance")
        self.until(lambda: "now 0." in browser.test("distance").text, "no distance is told")

    def _page_knows(self) -> None:
        """Wait until the page has heard of the newest step: it is kept a moment before."""
        number = history.head_of(Project.objects.select_related("head").get()).number
        told = lambda: self.browser.find(".saved").text  # noqa: E731
        self.until(lambda: told().endswith(f"step {number}"), "the page does not know")

    def _give_settings(self) -> None:
        browser = self.browser
        self.key("v", ctrlKey=True, shiftKey=True)
        chosen = browser.find(".modal.show input[value=grade]")
        self.until(chosen.is_selected, "grade is not chosen")
        browser.confirm()

    def _check(self, film: Any) -> None:
        """By another reader: all frames, 10 bits, and the card of each take neutral or warm."""
        with av.open(str(film)) as source:
            frames = list(source.decode(video=0))
        self.assertEqual(30, len(frames))
        self.assertEqual("yuv420p10le", frames[0].format.name)
        flat, cold = (
            frame.to_ndarray(format="rgb24").astype(int) for frame in (frames[5], frames[25])
        )
        row, column = COLOURS["white"]
        self.assertLess(np.ptp(flat[row, column]), 8)
        # The look's bright colour is warm; the sky went the other way.
        self.assertGreater(cold[row, column][0] - cold[row, column][2], 6)
        row, column = COLOURS["sky"]
        self.assertGreater(cold[row, column][2], cold[row, column][0])

    def test_a_zone_takes_its_hue_from_the_picture(self) -> None:
        browser = self.browser
        browser.press("grade-zones")
        browser.press("zone-hue")
        field = browser.test("pick")
        row, column = COLOURS["skin"]
        spot = (column / SIZE[0] - 0.5, row / SIZE[1] - 0.5)
        x, y = (
            round(side * field.size[name])
            for side, name in zip(spot, ("width", "height"), strict=True)
        )
        ActionChains(browser.driver).move_to_element_with_offset(field, x, y).click().perform()
        self.until(lambda: 90 < self.grade(0).zones[0].hues.middle < 160, "no hue of skin")
        self.assertFalse(browser.all("[data-test=pick]"))
        browser.press("zone-original")
        self.until(lambda: self.grade(0).zones[0].original, "not by the ungraded picture")
        self.assert_clean_console()

    def test_scopes_zones_and_comparing(self) -> None:
        browser = self.browser
        for name in ("luma", "vectors"):
            browser.find(f'[data-test="scope-{name}"] canvas[data-drawn=yes]')
        self.until(lambda: browser.test("clipped").text.startswith("0.0"), "no shares")
        self.set("Exposure", "4")
        self.until(lambda: browser.test("clipped").text.startswith("100"), "shares do not follow")
        browser.press("marks")
        browser.press("box")
        browser.find("[data-test=scope-box]")
        browser.press("box")
        browser.press("grade-zones")
        browser.press("zone-ellipse")
        self.until(lambda: len(self.grade(0).zones) == 1, "no zone")
        before = self.grade(0).zones[0].masks[0]
        body = browser.test("mask-body")
        ActionChains(browser.driver).click_and_hold(body).move_by_offset(
            30, -60
        ).release().perform()
        self.until(lambda: self.grade(0).zones[0].masks[0] != before, "the mask did not move")
        self.assertLess(self.grade(0).zones[0].masks[0].centre[1], -0.05)
        browser.press("matte")
        self.until(lambda: self._grey() > 0.8, "no matte")
        browser.press("grade-zone")
        self.set("Exposure", "-3")
        self.until(
            lambda: self.grade(0).zones[0].adjust.light.exposure == -3, "the zone is not graded"
        )
        browser.press("whole-picture")
        browser.press("wipe")
        browser.find(".before")
        browser.press("wipe")
        browser.press("grade-on")
        self.until(lambda: not self.grade(0).on, "not switched off")
        self.assert_clean_console()

    def _grey(self) -> float:
        """Share of the shown picture that is black or white."""
        return float(
            self.browser.run(
                "const c = document.querySelector('[data-test=still]');"
                "const d = c.getContext('2d').getImageData(0, 0, c.width, c.height).data;"
                "let n = 0; for (let i = 0; i < d.length; i += 4)"
                " n += (d[i] < 12 || d[i] > 243) && Math.abs(d[i] - d[i + 2]) < 6;"
                "return n / (d.length / 4)"
            )
        )


class GradingByTouchTest(GradingCase):
    size = (390, 844)
    touch = True

    def test_a_thumb_pushes_a_wheel_and_keys_are_set(self) -> None:
        browser, fingers = self.browser, Fingers(self.browser)
        browser.press("grade-wheels")
        browser.find(".disc")
        x, y = fingers.middle(".disc")
        fingers.drag(((x, y), (x - 40, y - 20)))
        self.until(lambda: self.grade(0).wheels.lift.push[0] < -0.2, "the wheel did not move")
        push = self.grade(0).wheels.lift.push
        self.assertGreater(push[1], 0.05)
        browser.find('[aria-label="Lift: set a key here"]').click()
        self.until(lambda: hasattr(self.grade(0).wheels.lift.push, "keys"), "no key was set")
        self.assertEqual(push, self.grade(0).wheels.lift.push.keys[0].value)
        self.assert_clean_console()

    def test_a_zone_is_painted_and_another_is_drawn_by_pen(self) -> None:
        browser, fingers = self.browser, Fingers(self.browser)
        browser.press("grade-zones")
        browser.press("zone-brush")
        browser.test("stroke-surface")
        x, y = fingers.middle('[data-test="stroke-surface"]')
        fingers.drag(((x - 60, y), (x + 60, y)))
        self.until(
            lambda: self.grade(0).zones and self.grade(0).zones[0].masks[0].strokes,
            "no stroke was kept",
        )
        browser.test("brush-tint")
        browser.press("control-This zone")
        browser.press("matte")
        self.until(lambda: self._dark(0.5, 0.2), "the matte is not black beside the stroke")
        self.until(lambda: not self._dark(0.5, 0.5), "the stroke is not in the matte")
        browser.press("whole-picture")
        browser.find("[data-test=more-zones] button").click()
        browser.press("zone-path")
        browser.find("[aria-label^='Path of the mask']")
        x, y = fingers.middle('[data-test="still"]')
        for dx, dy in ((-40, -90), (40, -90), (40, 60), (-40, 60)):
            fingers.tap((x + dx, y + dy))
        self.until(lambda: len(self.path().nodes) == 4, "no points were set")
        self.assertFalse(self.path().closed)
        fingers.tap((x - 40, y - 90))
        self.until(lambda: self.path().closed, "the path was not closed")
        self.assert_clean_console()

    def path(self) -> Contour:
        return self.grade(0).zones[1].masks[0].contours[0]

    def _dark(self, across: float, down: float) -> bool:
        return bool(
            self.browser.run(
                "const c = document.querySelector('[data-test=still]');"
                "const [x, y] = arguments;"
                "const d = c.getContext('2d').getImageData(x * c.width, y * c.height, 1, 1).data;"
                "return d[0] + d[1] + d[2] < 30",
                across,
                down,
            )
        )
