"""On a phone: a spot is healed with a finger, somebody who walks by is taken out, and the film is sent."""

from __future__ import annotations

from pathlib import Path
from typing import Any

import av
import numpy as np
from selenium.webdriver.common.keys import Keys
from selenium.webdriver.support.select import Select

from browser_tests.one_take import OneTakeTest
from kitecore.media.tests.material import decoded, make_video
from kitecore.render.tests import test_behind as passing
from kitecore.render.tests.scene import SIZE
from kitecore.render.tests.test_retouching import COUNT, frame, spot


class RetouchingTest(OneTakeTest):
    shape = SIZE
    frames = COUNT

    def made(self, folder: Path) -> Path:
        return make_video(
            folder / "table.mp4",
            frames=COUNT,
            size=SIZE,
            options={"preset": "ultrafast", "crf": "10"},
            draw=lambda number: av.VideoFrame.from_ndarray(
                frame(number, spoilt=True, passes=False), format="rgb24"
            ),
        )

    def stroke(self) -> Any:
        return self.clip.strokes[0]

    def test_a_spot_is_healed_through_a_moving_take(self) -> None:
        page = self.browser
        page.find("[data-test=strip]").click()
        page.press("layer-part-retouch")
        page.press("retouch-heal")
        page.test("stroke-surface")
        wide = self.stroke_width(0.075)
        here, by = spot(0), np.array([2.0, 1.0])
        self.fingers.drag((self.at(here - by), self.at(here + by)))
        page.wait(lambda: self.clip.strokes, what="nothing was painted")
        self.assertAlmostEqual(wide, self.stroke().width, delta=0.002)
        self.assertNotEqual((0.1, 0.0), self.stroke().source)

        # It is the stroke in hand; its surroundings are followed by one tap.
        page.press("control-Strokes")
        page.find("[data-test=stroke-row] .title").click()
        page.press("control-Goes along")
        page.press("stroke-surroundings")
        page.wait(lambda: self.stroke().tracker, what="it stays where it is")
        self.assertEqual(1, len(self.clip.trackers))

        # All are put out of sight, and shown again.
        page.press("control-Strokes")
        page.find("[data-test=retouched] + label").click()
        page.wait(lambda: not self.clip.retouched, what="strokes are still shown")
        page.find("[data-test=retouched] + label").click()
        page.wait(lambda: self.clip.retouched, what="strokes are not shown again")
        self.assert_clean_console()
        self.check(self.exported())

    def stroke_width(self, width: float) -> float:
        """The brush of that size, typed."""
        page = self.browser
        page.press("control-Width")
        field = page.find(".field.alone:not(.away) .exact input")
        field.send_keys(Keys.CONTROL, "a", Keys.NULL, str(width * 100), Keys.ENTER)
        return width

    def check(self, film: Path) -> None:
        shots = decoded(film)
        self.assertEqual(COUNT, len(shots))
        for number in (0, 13, 26, COUNT - 1):
            x, y = np.rint(spot(number)).astype(int)
            part = np.s_[y - 9 : y + 10, x - 9 : x + 10]
            clean, spoilt = (
                frame(number, spoilt=one, passes=False)[part].astype(float) for one in (False, True)
            )
            left = np.abs(shots[number][part] - clean).mean()
            self.assertLess(left, 0.3 * np.abs(spoilt - clean).mean(), number)


class PasserByTest(OneTakeTest):
    """Somebody who is followed, and who is painted over once."""

    shape = SIZE
    frames = passing.COUNT

    def made(self, folder: Path) -> Path:
        return make_video(
            folder / "passes.mp4",
            frames=passing.COUNT,
            size=SIZE,
            options={"preset": "ultrafast", "crf": "10"},
            draw=lambda number: av.VideoFrame.from_ndarray(
                passing.walks(number, held=True), format="rgb24"
            ),
        )

    def setUp(self) -> None:
        super().setUp()
        views = [
            passing.box(at, passing.walker(at, held=True), 26, 62)
            for at in range(0, passing.COUNT, 6)
        ]
        item = {"name": "Walker", "change": "moves", "views": views, "first": 0}
        item["last"] = (passing.COUNT - 1) * passing.FRAME
        self.do(kind="add_item", clips=[self.clip.id], list="trackers", item=item)
        self.browser.driver.refresh()

    def test_who_walks_by_is_taken_out_by_what_other_moments_show(self) -> None:
        page = self.browser
        page.find("[data-test=strip]").click()
        page.press("layer-part-retouch")
        page.press("retouch-fill")
        page.test("stroke-surface")
        page.press("control-Width")
        field = page.find(".field.alone:not(.away) .exact input")
        field.send_keys(Keys.CONTROL, "a", Keys.NULL, "14", Keys.ENTER)
        here, up = passing.walker(0, held=True), np.array([0.0, 24.0])
        self.fingers.drag((self.at(here - up), self.at(here + up)))
        page.wait(lambda: self.clip.strokes, what="nothing was painted")

        page.press("control-Strokes")
        page.find("[data-test=stroke-row] .title").click()
        page.press("control-Goes along")
        self.choose("stroke-along", "Walker")
        page.wait(lambda: self.clip.strokes[0].tracker, what="it stays where it is")
        page.press("control-Filled from")
        page.find(
            "button[title='What other frames show there, once nothing lies before it']"
        ).click()
        page.wait(
            lambda: self.clip.strokes[0].taken_from == "moments", what="it is filled from around"
        )
        page.test("stroke-behind")
        self.assert_clean_console()
        self.check(self.exported())

    def choose(self, name: str, text: str) -> None:
        Select(self.browser.test(name)).select_by_visible_text(text)

    def check(self, film: Path) -> None:
        """Nothing of them is left, while they are in the picture with both arms."""
        shots = decoded(film)
        self.assertEqual(passing.COUNT, len(shots))
        for number in (8, 20, 30, 40):
            x, y = np.rint(passing.walker(number, held=True)).astype(int)
            part = np.s_[y - 31 : y + 31, x - 11 : x + 11]
            clean = passing.clean(number, held=True)[part].astype(float)
            self.assertLess(np.abs(shots[number][part] - clean).mean(), 6, number)
