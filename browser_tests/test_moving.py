"""Motion as a person makes it: on the picture, in the graph, by pins and paths; then the file."""

from __future__ import annotations

import math
from itertools import pairwise
from typing import Any

import numpy as np
from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.keys import Keys as Keyboard

from browser_tests.fingers import Fingers
from browser_tests.one_project import OneProjectTest
from kitecore.document.properties import Axes, Keys
from kitecore.media.tests.material import decoded
from kitecore.motion import value_at
from studio.tests.site import SECOND

SIZE = (180, 320)
FRAME = SECOND // 30
WHITE = {"kind": "plain", "colour": "#ffffff"}


class MovingCase(OneProjectTest):
    def setUp(self) -> None:
        super().setUp()
        self.begin("Paper in the wind", SIZE)
        ground = {"kind": "solid", "fill": {"kind": "plain", "colour": "#203050"}}
        self.step(kind="place", clip={**ground, "name": "sky", "length": 2 * SECOND})
        form = {"kind": "rectangle", "size": [40, 40]}
        sheet = {"kind": "shape", "form": form, "fill": WHITE, "length": 2 * SECOND}
        self.step(kind="place", clip={**sheet, "name": "sheet"}, mode="above")
        self.step(kind="place", clip={**sheet, "name": "other", "opacity": 0}, mode="above")
        self.browser.open(f"/projects/{self.project.id}/move")
        self.browser.find(".clip")
        self.browser.drawn(0)

    def menu(self, name: str, entry: str) -> None:
        self.browser.find(f'[data-test="{name}"] button').click()
        self.browser.press(entry)

    def keys(self, name: str, *path: str) -> list[tuple[int, Any]]:
        prop = self.found(name)
        for part in path or ("place", "position"):
            prop = getattr(prop, part)
        if not isinstance(prop, Keys):
            return []
        return [(round(key.at / FRAME), key.value) for key in prop.keys]


class MovingTest(MovingCase):
    def test_keys_on_the_picture_and_in_the_graph_then_the_file(self) -> None:
        browser = self.browser
        self.take("sheet")
        browser.press("first-key")
        self.until(lambda: len(self.keys("sheet")) == 1, "no first key")
        self.go(40)
        self.drag("handle-body", (30, 0), (30, -45))
        self.until(lambda: len(self.keys("sheet")) == 2, "moving it set no key")
        frame, (x, y) = self.keys("sheet")[1]
        self.assertEqual(40, frame)
        self.assertGreater(x, 10)
        self.assertLess(y, -5)
        self._eased()
        self._arranged()
        self._parted()
        path = self.exported()
        frames = decoded(path)
        self.assertEqual(60, len(frames))
        position = self.found("sheet").place.position
        for number in (0, 12, 25, 37, 59):
            light = frames[number][..., 0].astype(float)
            light[light < 140] = 0
            rows, columns = np.indices(light.shape)
            middle = [(light * at).sum() / light.sum() + 0.5 for at in (columns, rows)]
            wanted = value_at(position, number * FRAME)
            self.assertAlmostEqual(SIZE[0] / 2 + wanted[0], middle[0], delta=0.6)
            self.assertAlmostEqual(SIZE[1] / 2 + wanted[1], middle[1], delta=0.6)
        self.assert_clean_console()

    def _stretched(self) -> None:
        """Keys in hand are drawn together by the bracket's end, and out again by keys."""
        browser = self.browser
        self.drag("key-bracket-end", (-40, 0), (-20, 0))
        self.until(lambda: 2 < self.keys("sheet")[1][0] < 38, "they were not drawn together")
        self.assertEqual(1, self.keys("sheet")[0][0])
        while (last := self.keys("sheet")[1][0]) != 41:
            browser.test("key-bracket-end").send_keys(Keyboard.ARROW_RIGHT)
            self.until(lambda last=last: self.keys("sheet")[1][0] > last, "the end does not move")
        self.assertEqual(1, self.keys("sheet")[0][0])

    def _parted(self) -> None:
        """What goes down waits; what goes across does not."""
        browser = self.browser
        self.menu("keys-more", "part-axes")
        position = lambda: self.found("sheet").place.position  # noqa: E731
        self.until(lambda: isinstance(position(), Axes), "across and down stay together")
        browser.find("[data-test=graph-property] option[value='place/position/down']").click()
        browser.press("take-all-keys")
        browser.press("ease-hold")
        self.until(lambda: position().down.keys[0].ease.kind == "hold", "down does not wait")
        self.assertNotEqual("hold", position().across.keys[0].ease.kind)

    def _eased(self) -> None:
        browser = self.browser
        browser.press("take-all-keys")
        browser.press("ease-soft")

        def ease() -> Any:
            return self.found("sheet").place.position.keys[0].ease

        self.until(lambda: ease().kind == "bezier", "the pace did not change")
        self.drag("handle-0-after", (12, -20))
        self.until(lambda: ease().y1 > 0.05, "the handle did not bend the curve")
        browser.press("graph-speed")
        before = ease()
        self.drag("handle-0-after", (0, -12))
        self.until(lambda: ease() != before, "the speed did not change")
        browser.press("graph-value")
        shown = lambda: len(browser.all("[data-test^=graph-key-]"))  # noqa: E731
        self.assertEqual(2, shown())
        for _ in range(3):
            browser.press("time-closer")
        self.until(lambda: shown() == 1, "both keys are seen however close one looks")
        for _ in range(3):
            browser.press("time-farther")
        self.until(lambda: shown() == 2, "not all is seen again")
        browser.press("ease-spring")
        self.until(lambda: ease().kind == "spring", "no spring")

    def _arranged(self) -> None:
        browser = self.browser
        browser.press("key-lanes")
        browser.find("[data-test=key-lanes-shown]")
        self.until(lambda: len(browser.all("[data-test=lane-key]")) == 2, "no lane with two keys")
        browser.press("take-all-keys")
        last = self.keys("sheet")[-1][1]
        self.menu("keys-more", "reverse-keys")
        self.until(lambda: self.keys("sheet")[0][1] == last, "the keys were not reversed")
        browser.press("take-all-keys")
        browser.press("copy-keys")
        browser.press("keys-later")
        self.until(lambda: [at for at, _ in self.keys("sheet")] == [1, 41], "they did not shift")
        self._stretched()
        self.take("other")
        self.go(5)
        self.menu("keys-more", "paste-keys")
        self.until(lambda: [at for at, _ in self.keys("other")] == [5, 45], "nothing was pasted")
        self.take("sheet")
        chosen = browser.all("[data-test=lane-key]")[1]
        zoom = browser.run("return arguments[0].getBoundingClientRect().left", chosen)
        first = browser.all("[data-test=lane-key]")[0]
        begin = browser.run("return arguments[0].getBoundingClientRect().left", first)
        per_frame = (zoom - begin) / 40
        chain = ActionChains(browser.driver, duration=30)
        chain.move_to_element(chosen).click_and_hold()
        chain.move_by_offset(round(-5 * per_frame), 0).move_by_offset(round(-5 * per_frame), 0)
        chain.release().perform()
        self.until(lambda: 28 <= self.keys("sheet")[1][0] <= 34, "the lane's key did not move")

    def test_a_drawn_path_pins_a_grid_and_ready_made_motions(self) -> None:
        self.take("sheet")
        self._drawn_path()
        self._warps()
        self._ready()
        self.assert_clean_console()

    def _drawn_path(self) -> None:
        browser = self.browser
        browser.press("move-part-path")
        browser.press("draw-path")
        surface = browser.test("stroke-surface")
        chain = ActionChains(browser.driver, duration=20)
        spots = [(80 * math.cos(t / 6), 70 * math.sin(t / 6)) for t in range(20)]
        chain.move_to_element_with_offset(surface, *map(round, spots[0])).click_and_hold()
        for (x, y), (u, v) in pairwise(spots):
            chain.move_by_offset(round(u) - round(x), round(v) - round(y))
        chain.release().perform()
        self.until(lambda: len(self.keys("sheet")) > 1, "no path was drawn")
        position = self.found("sheet").place.position
        way = [value_at(position, frame * FRAME) for frame in range(0, 59, 6)]
        steps = [math.dist(a, b) for a, b in pairwise(way)]
        self.assertLess(max(steps) / min(steps), 1.35)
        browser.find("[data-test=motion-path]")
        browser.press("along")
        self.until(lambda: self.found("sheet").moves.along, "it does not turn along")
        browser.run(
            "const field = arguments[0];"
            "field.value = [...field.options].find((one) => one.text.startsWith('other')).value;"
            "field.dispatchEvent(new Event('change'))",
            browser.test("follow"),
        )
        self.until(lambda: self.found("sheet").moves.follow is not None, "it follows nothing")
        browser.press("let-go")
        self.until(lambda: self.found("sheet").moves.follow is None, "it still follows")

    def _warps(self) -> None:
        browser = self.browser
        self.take("other")
        browser.press("move-part-warp")
        browser.press("warp-pins")
        ground = browser.test("warp-ground")
        for y in (-14, 14):
            chain = ActionChains(browser.driver, duration=20)
            chain.move_to_element_with_offset(ground, 0, y).click().perform()
            wanted = 1 if y < 0 else 2
            self.until(
                lambda wanted=wanted: len(self.found("other").warp.pins) == wanted, "no pin was set"
            )
        browser.find("[data-test=warp-mesh]")
        browser.press("key-pins")
        self.until(
            lambda: all(isinstance(pin.at, Keys) for pin in self.found("other").warp.pins),
            "the pins have no keys",
        )
        self.go(20)
        self.drag("pin-1", (12, 0), (12, 4))
        self.until(lambda: len(self.found("other").warp.pins[1].at.keys) == 2, "the pin set no key")
        browser.press("chain-pins")
        self.until(lambda: len(self.found("other").warp.chain) == 2, "no chain")
        ActionChains(browser.driver).move_to_element_with_offset(ground, -27, 0).click().perform()
        browser.press("chain-2")
        chain = lambda: self.found("other").warp.chain  # noqa: E731
        root = self.found("other").warp.pins[0].id
        self.until(lambda: len(chain()) == 3, "the third pin did not join the chain")
        browser.press("chain-0")
        self.until(lambda: len(chain()) == 2 and root not in chain(), "the root was not left out")
        browser.press("warp-grid")
        browser.press("key-grid")
        self.until(lambda: isinstance(self.found("other").warp.points, Keys), "no key of the grid")
        self.go(30)
        told = lambda: browser.test("grid-5").get_attribute("aria-label")  # noqa: E731
        at_rest = told()
        self.drag("grid-5", (14, 6))
        self.until(lambda: len(self.found("other").warp.points.keys) == 2, "the grid set no key")
        browser.press("undo")
        self.until(lambda: len(self.found("other").warp.points.keys) == 1, "it was not undone")
        self.until(lambda: told() == at_rest, "the point is not shown where it was")
        self.press_with_shift("grid-5", Keyboard.ARROW_RIGHT)
        self.until(
            lambda: len(self.found("other").warp.points.keys) == 2, "an arrow key set no key"
        )
        (_, was), (_, now) = (
            (key.at, key.value[5]) for key in self.found("other").warp.points.keys
        )
        self.assertGreater(now[0], was[0])
        self.assertEqual(now[1], was[1])
        self._several_points()

    def _several_points(self) -> None:
        browser = self.browser
        poses = lambda: self.found("other").warp.points.keys[1].value  # noqa: E731
        before = poses()
        browser.run("arguments[0].click()", browser.find("[data-test=several-points]"))
        browser.test("grid-5").click()
        browser.test("grid-6").click()
        self.drag("grid-6", (-8, 10))
        self.until(lambda: poses() != before, "they were not moved")
        by = [(n[0] - o[0], n[1] - o[1]) for n, o in zip(poses(), before, strict=True)]
        self.assertEqual([5, 6], [index for index, one in enumerate(by) if any(one)])
        for a, b in zip(by[5], by[6], strict=True):
            self.assertAlmostEqual(a, b, places=6)
        warp = lambda: self.found("other").warp  # noqa: E731
        browser.press("grid-over-seen")
        self.until(lambda: warp().area, "it lies over all of the picture")
        np.testing.assert_allclose(warp().area, (-0.51, -0.51, 0.51, 0.51), atol=0.03)
        browser.press("grid-over-all")
        self.until(lambda: warp().area is None, "it does not lie over all of it again")

    def press_with_shift(self, name: str, key: str) -> None:
        handle = self.browser.test(name)
        self.assertIn("arrows move it", handle.get_attribute("aria-label") or "")
        self.browser.run("arguments[0].focus()", handle)
        keys = ActionChains(self.browser.driver, duration=0).key_down(Keyboard.SHIFT)
        keys.send_keys(key).key_up(Keyboard.SHIFT).perform()

    def _ready(self) -> None:
        browser = self.browser
        browser.press("move-part-ready")
        browser.press("comes-pop")
        self.until(lambda: self.found("other").moves.comes is not None, "it does not come in")
        browser.press("meanwhile-sway")
        self.until(lambda: len(self.found("other").moves.meanwhile) == 1, "it does not sway")
        self.menu("motions", "keep-motion")
        browser.type(".modal.show [data-test=new-name]", "Hop in")
        browser.confirm()
        self.until(lambda: not browser.all(".modal.show"), "the dialog stays open")
        browser.press("comes-to-keys")
        self.until(lambda: len(self.keys("other", "place", "size")) == 2, "no keys of its size")
        self.take("sky")
        self.menu("motions", "motion-Hop in")
        self.until(lambda: self.found("sky").moves.comes is not None, "the motion was not given")
        self.assertEqual("sway", self.found("sky").moves.meanwhile[0].kind)


class FingerTest(MovingCase):
    def test_two_fingers_set_keys_of_size_and_turn(self) -> None:
        browser = self.browser
        browser.resize((390, 844), touch=True)
        self.step(
            kind="adjust",
            clips=[self.found("sheet").id],
            values={
                "place/size": {"keys": [{"at": 0, "value": [1.5, 1.5]}]},
                "place/turn": {"keys": [{"at": 0, "value": 0}]},
            },
        )
        browser.driver.refresh()
        browser.drawn(0)
        canvas = browser.test("still")
        box = browser.run(
            "const b = arguments[0].getBoundingClientRect();"
            "return [b.left + b.width / 2, b.top + b.height / 2]",
            canvas,
        )
        fingers = Fingers(browser)
        self.go(15)
        fingers.tap((box[0], box[1]))
        self.until(
            lambda: browser.test("in-hand").text.strip() in ("sheet", "other"), "nothing in hand"
        )
        if browser.test("in-hand").text.strip() == "other":
            fingers.tap((box[0], box[1]))
            self.until(lambda: browser.test("in-hand").text.strip() == "sheet", "not the sheet")
        x, y = box
        fingers.drag(((x - 12, y), (x - 16, y - 16)), ((x + 12, y), (x + 16, y + 16)))
        self.until(
            lambda: (
                len(self.keys("sheet", "place", "size")) == 2
                and len(self.keys("sheet", "place", "turn")) == 2
            ),
            "two fingers set no keys",
        )
        self.assertEqual(15, self.keys("sheet", "place", "turn")[1][0])
        self.assertAlmostEqual(45, self.keys("sheet", "place", "turn")[1][1], delta=6)
        self.assert_clean_console()
