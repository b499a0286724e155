"""Layers as a person lays them: a key, words, shapes, masks, by mouse and by finger; then the file."""

from __future__ import annotations

from typing import Any

import av
import numpy as np
from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.keys import Keys

from browser_tests.fingers import Fingers
from browser_tests.one_project import OneProjectTest
from kitecore.document.properties import has_keys
from kitecore.media.tests.material import decoded
from studio.tests.site import SECOND, clip_of, take_of

SIZE = (180, 320)
GREEN, CREAM = (47, 160, 76), (240, 210, 180)
BLUE = "#2040c0"


def before_green(number: int) -> av.VideoFrame:
    """A cream disc before a green sheet that is lit from the left."""
    x, y = np.meshgrid(np.arange(SIZE[0]), np.arange(SIZE[1]))
    light = (1.15 - 0.3 * x / SIZE[0])[..., None]
    disc = (np.hypot(x - 90, y - 160) < 50)[..., None]
    rgb = np.where(disc, CREAM, np.array(GREEN) * light).clip(0, 255).astype(np.uint8)
    frame = av.VideoFrame.from_ndarray(np.ascontiguousarray(rgb), format="rgb24")
    return frame.reformat(format="yuv420p", dst_colorspace="ITU709", dst_color_range="MPEG")


class LayeringCase(OneProjectTest):
    def setUp(self) -> None:
        super().setUp()
        self.begin("Paper layers", SIZE)
        fill = {"kind": "plain", "colour": BLUE}
        self.step(kind="place", clip=self.clip("solid", "ground", fill=fill))
        take = take_of(self.project, "pip.mp4", size=SIZE, frames=30, draw=before_green)
        pip = clip_of(take, 1) | {"name": "pip"}
        self.step(kind="place", clip=pip, mode="above")
        self.browser.open(f"/projects/{self.project.id}/layer")
        self.browser.test("layers")
        self.browser.drawn(0)

    def clip(self, kind: str, name: str, **more: Any) -> dict[str, Any]:
        return {"kind": kind, "name": name, "length": SECOND, **more}

    def rows(self) -> list[str]:
        """Names in the list of layers, from the front."""
        names: list[str] = self.browser.run(
            "return [...document.querySelectorAll('[data-test=layer-row] .name')]"
            ".map((one) => one.textContent.trim())"
        )
        return names

    def open_menu(self, name: str) -> None:
        self.browser.find(f'[data-test="{name}"] button').click()

    def pixel(self, x: float, y: float) -> list[int]:
        """Of the picture on the page, at shares of its width and height."""
        found: list[int] = self.browser.run(
            "const sheet = document.querySelector('[data-test=still]');"
            "const [x, y] = [arguments[0] * sheet.width, arguments[1] * sheet.height];"
            "return [...sheet.getContext('2d').getImageData(x, y, 1, 1).data]",
            x,
            y,
        )
        return found

    def near(self, x: float, y: float, wanted: tuple[int, int, int], off: int = 14) -> bool:
        return max(abs(a - b) for a, b in zip(self.pixel(x, y), wanted, strict=False)) <= off


class LayeringTest(LayeringCase):
    def test_key_somebody_set_a_title_and_export(self) -> None:
        browser = self.browser
        browser.press("layer-pip")
        browser.press("layer-part-key")
        browser.find('[aria-label="Kind of key"] button:nth-child(2)').click()
        self.until(lambda: self.found("pip").key is not None, "no key was set")
        self.until(lambda: self.near(0.1, 0.1, (0x20, 0x40, 0xC0)), "the screen is still there")
        browser.press("layer-matte")
        self.until(lambda: self.near(0.1, 0.1, (0, 0, 0)), "no matte is shown")
        self.until(lambda: self.near(0.5, 0.5, (255, 255, 255)), "the matte has a hole")
        browser.press("layer-matte")
        self.until(lambda: self.near(0.5, 0.5, CREAM), "the picture did not come back")
        self._title()
        self._order()
        self._kit()
        path = self.exported()
        frames = decoded(path)
        # The title lasts 3 s.
        self.assertEqual(90, len(frames))
        for spot, wanted in (((10, 10), (0x20, 0x40, 0xC0)), ((125, 90), CREAM)):
            self.assertLess(np.abs(frames[10][spot].astype(int) - wanted).max(), 20)
        self.assert_clean_console()

    def _title(self) -> None:
        browser = self.browser
        self.open_menu("add-layer")
        browser.press("add-text")
        words = browser.test("words")
        words.send_keys(Keys.CONTROL, "a")
        words.send_keys("Wind", Keys.TAB)
        self.until(lambda: self.found("Text").text == "Wind", "no words")
        self._other_words_later()
        browser.press("text-shadow")
        self.until(lambda: len(self.found("Text").effects) == 1, "no shadow")
        browser.press("plate")
        self.until(lambda: self.found("Text").plate is not None, "no plate")
        browser.press("layer-part-effects")
        browser.press("find-effect")
        browser.dialog()
        browser.test("search-effect").send_keys("gra", Keys.ENTER)
        kinds = ["shadow", "grain"]
        self.until(lambda: [e.kind for e in self.found("Text").effects] == kinds, "no grain")

    def _other_words_later(self) -> None:
        browser = self.browser
        browser.press("key-words")
        self.until(lambda: has_keys(self.found("Text").text), "no key")
        browser.press("step-forward")
        words = browser.test("words")
        words.send_keys(Keys.CONTROL, "a")
        words.send_keys("Rain", Keys.TAB)
        self.until(lambda: len(self.found("Text").text.keys) == 2, "no second key")
        browser.press("step-back")
        browser.wait(lambda: browser.test("words").get_attribute("value") == "Wind")
        told = [one.words for one in self.found("Text").sayings]
        self.assertEqual(["Wind", "Rain"], told)

    def _order(self) -> None:
        browser = self.browser
        self.until(lambda: self.rows() == ["Text", "pip", "ground"], "the list is not in order")
        grip = browser.find('[data-test="layer-row"] .grip')
        grip.send_keys(Keys.ARROW_DOWN)
        self.until(lambda: self.rows() == ["pip", "Text", "ground"], "not put behind")
        rows = browser.all('[data-test="layer-row"] .grip')
        ActionChains(browser.driver).drag_and_drop(rows[1], rows[0]).perform()
        self.until(lambda: self.rows() == ["Text", "pip", "ground"], "not dragged in front")

    def _kit(self) -> None:
        browser = self.browser
        browser.find(
            '[data-test="layer-row"] .dropdown-toggle, [data-test="layer-row"] .btn-group button'
        ).click()
        browser.press("keep-element")
        browser.type(".modal.show [data-test=new-name]", "Wind title")
        browser.confirm()
        self.open_menu("add-layer")
        browser.press("element-Wind title")
        self.until(lambda: self.rows().count("Text") == 2, "the element did not come back")

    def test_shapes_are_drawn_point_by_point_by_hand_and_from_a_file(self) -> None:
        browser = self.browser
        self.open_menu("add-layer")
        browser.press("add-path")
        ground = browser.test("pen-ground")
        for number, (dx, dy) in enumerate(((-60, -90), (60, -90), (0, 40)), 1):
            ActionChains(browser.driver).move_to_element_with_offset(
                ground, dx, dy
            ).click().perform()
            self.until(
                lambda count=number: len(browser.all('[data-test="path-node"]')) == count,
                "no point was set",
            )
        first = browser.all('[data-test="path-node"]')[0]
        ActionChains(browser.driver).move_to_element(first).click().perform()
        self.until(lambda: self.found("Path").form.contours[0].closed, "the path is not closed")
        node = browser.all('[data-test="path-node"]')[2]
        ActionChains(browser.driver).drag_and_drop_by_offset(node, 0, 30).perform()
        before = self.found("Path").form.contours[0].nodes[2].at
        self.until(
            lambda: self.found("Path").form.contours[0].nodes[2].at != before or before[1] > 0,
            "the point did not move",
        )
        self.open_menu("add-layer")
        browser.press("add-freehand")
        sheet = browser.test("stroke-surface")
        pen = ActionChains(browser.driver).move_to_element_with_offset(sheet, -80, 60)
        pen.click_and_hold()
        for step in range(12):
            pen.move_by_offset(12, (-6, 6)[step % 2])
        pen.release().perform()
        self.until(
            lambda: len(self.found("Path").form.contours) == 2 or self.found("Drawing"),
            "nothing was drawn",
        )
        self.assert_clean_console()

    def test_a_tap_takes_the_front_layer_and_then_the_one_behind(self) -> None:
        browser = self.browser
        picture = browser.test("picture-ground")
        for name in ("pip", "ground", "pip"):
            ActionChains(browser.driver).move_to_element(picture).click().perform()
            self.until(
                lambda one=name: browser.test("in-hand").text == one, f"{name} is not in hand"
            )

    def test_escape_closes_an_open_menu_and_puts_nothing_down(self) -> None:
        """With the focus on what opened it, and on nothing, as fingers leave it."""
        browser = self.browser
        browser.press("layer-pip")
        for focus in ("arguments[0].focus()", "document.activeElement.blur()"):
            toggle = browser.find(".verb-more")
            toggle.click()
            menu = browser.find(".dropdown-menu.show")
            self.until(lambda menu=menu: menu.rect["y"] >= 0, "its first verbs are off the page")
            browser.run(focus, toggle)
            ActionChains(browser.driver).send_keys(Keys.ESCAPE).perform()
            self.until(lambda: not browser.all(".dropdown-menu.show"), "the menu stays")
            self.assertEqual("pip", browser.test("in-hand").text)
        browser.run("document.activeElement.blur()")
        ActionChains(browser.driver).send_keys(Keys.ESCAPE).perform()
        self.until(lambda: browser.test("in-hand").text != "pip", "it was not put down")

    def test_masks_are_added_and_dragged_on_the_picture(self) -> None:
        browser = self.browser
        browser.press("layer-pip")
        browser.press("layer-part-masks")
        self.open_menu("add-mask")
        browser.press("mask-ellipse")
        self.until(lambda: len(self.found("pip").masks) == 1, "no mask")
        self.until(lambda: self.near(0.1, 0.1, (0x20, 0x40, 0xC0)), "the mask hides nothing")
        body = browser.test("mask-body")
        ActionChains(browser.driver).drag_and_drop_by_offset(body, 60, 0).perform()
        self.until(lambda: self.found("pip").masks[0].centre[0] > 0.05, "the mask did not move")
        for name, way, side in (("inner", (25, 0), "inwards"), ("soft", (0, 20), "outwards")):
            soft = getattr(self.found("pip").masks[0], side)
            grip = browser.test(f"mask-{name}")
            ActionChains(browser.driver).drag_and_drop_by_offset(grip, *way).perform()
            self.until(
                lambda side=side, soft=soft: (
                    getattr(self.found("pip").masks[0], side) > soft + 0.01
                ),
                f"not softer {side}",
            )
        before = self.found("pip").masks[0]
        for name, key, changed in (
            ("mask-body", Keys.ARROW_UP, lambda now: now.centre[1] < before.centre[1]),
            ("mask-width", Keys.ARROW_RIGHT, lambda now: now.size[0] > before.size[0]),
            ("mask-turn", Keys.ARROW_RIGHT, lambda now: now.turn > before.turn),
            ("mask-inner", Keys.ARROW_RIGHT, lambda now: now.inwards > before.inwards),
        ):
            browser.run("arguments[0].focus()", browser.test(name))
            ActionChains(browser.driver, duration=0).send_keys(key).perform()
            self.until(lambda now=changed: now(self.found("pip").masks[0]), f"{name} by keys")
        browser.find('[data-test="mask-invert"]').click()
        self.until(lambda: self.found("pip").masks[0].invert, "not inverted")
        browser.find('[data-test="mask-invert"]').click()
        self.until(lambda: not self.found("pip").masks[0].invert, "a switch does not go off")
        browser.press("remove-mask")
        self.until(lambda: not self.found("pip").masks, "not deleted")
        self.take_an_edge_beside_its_line()
        self.assert_clean_console()

    def take_an_edge_beside_its_line(self) -> None:
        browser = self.browser
        self.open_menu("add-mask")
        browser.press("mask-edge")
        self.until(lambda: len(self.found("pip").masks) == 1, "no edge")
        ends = [browser.test(f"mask-{name}").rect for name in ("soft", "inner")]
        # The line goes through the middle between its two grips.
        x = sum(end["x"] + end["width"] / 2 for end in ends) / 2
        y = sum(end["y"] + end["height"] / 2 for end in ends) / 2
        Fingers(browser).drag(((x, y + 14), (x, y + 64)))
        self.until(lambda: self.found("pip").masks[0].centre[1] > 0.02, "the edge did not move")

    def test_a_lamp_is_hung_up_on_the_picture(self) -> None:
        """On a layer that is smaller, turned and aside: the light is where its handle is."""
        browser = self.browser
        place = {"size": [0.7, 0.8], "turn": 25, "position": [12, -30], "mirrored": True}
        lamp = {"kind": "point_light", "centre": [0, 0], "reach": 40, "around": 0.2}
        grey = {"kind": "plain", "colour": "#606060"}
        sheet = self.clip("solid", "sheet", fill=grey, place=place, effects=[lamp])
        self.step(kind="place", clip=sheet, mode="above")
        browser.driver.refresh()
        browser.press("layer-sheet")
        browser.press("layer-part-effects")
        browser.find('[data-test="effect-row"] .title').click()
        knob = browser.test("effect-spot")
        ActionChains(browser.driver).drag_and_drop_by_offset(knob, -20, 50).perform()
        light = lambda: self.found("sheet").effects[0]  # noqa: E731
        self.until(lambda: light().centre[1] > 10, "the lamp was not moved")
        self.until(self._shines_at_its_handle, "the light is elsewhere")
        before = light().reach
        rim, knob = (
            browser.run("return arguments[0].getBoundingClientRect().toJSON()", browser.test(name))
            for name in ("effect-reach", "effect-spot")
        )
        out = [round((rim[way] - knob[way]) / 2) for way in ("x", "y")]
        ends = browser.test("effect-reach")
        ActionChains(browser.driver).drag_and_drop_by_offset(ends, *out).perform()
        self.until(lambda: light().reach > before + 10, "it reaches no farther")
        browser.run("arguments[0].focus()", browser.test("effect-spot"))
        at = light().centre
        ActionChains(browser.driver, duration=0).send_keys(Keys.ARROW_LEFT).perform()
        # Its layer is mirrored.
        self.until(lambda: light().centre[0] > at[0], "arrows do not move it")
        self.assert_clean_console()

    def _shines_at_its_handle(self) -> bool:
        """The middle of what is nearly as light as the lightest pixel, against the handle."""
        off: list[float] = self.browser.run(
            "const sheet = document.querySelector('[data-test=still]');"
            "const box = sheet.getBoundingClientRect();"
            "const data = sheet.getContext('2d').getImageData(0, 0, sheet.width, sheet.height).data;"
            "let most = 0; for (let i = 0; i < data.length; i += 4) most = Math.max(most, data[i]);"
            "let [n, x, y] = [0, 0, 0];"
            "for (let i = 0; i < data.length; i += 4) if (data[i] > most - 4) {"
            "  n++; x += (i / 4) % sheet.width + 0.5; y += Math.floor(i / 4 / sheet.width) + 0.5 }"
            "const knob = document.querySelector('[data-test=effect-spot]').getBoundingClientRect();"
            "return [x / n / sheet.width - (knob.x + knob.width / 2 - box.x) / box.width,"
            "  y / n / sheet.height - (knob.y + knob.height / 2 - box.y) / box.height]"
        )
        return max(abs(one) for one in off) < 0.02

    def test_a_mask_is_painted_by_keys(self) -> None:
        browser = self.browser
        browser.press("layer-pip")
        browser.press("layer-part-masks")
        self.open_menu("add-mask")
        browser.press("mask-brush")
        browser.test("stroke-surface").send_keys(Keys.SPACE, *[Keys.ARROW_RIGHT] * 9, Keys.ESCAPE)
        browser.test("stroke-surface").send_keys(Keys.SPACE, *[Keys.ARROW_DOWN] * 9, Keys.SPACE)
        self.until(lambda: self.found("pip").masks[0].strokes, "no stroke was kept")
        (stroke,) = self.found("pip").masks[0].strokes
        (left, top), (right, bottom) = stroke.points[0], stroke.points[-1]
        self.assertAlmostEqual(left, right, places=3)
        self.assertGreater(bottom, top)
        self.assert_clean_console()


class FingerTest(LayeringCase):
    size = (390, 844)
    touch = True

    def test_a_mask_is_painted_with_a_finger(self) -> None:
        browser = self.browser
        fingers = Fingers(browser)
        browser.press("layer-pip")
        browser.press("layer-part-masks")
        self.open_menu("add-mask")
        browser.press("mask-brush")
        surface = browser.test("stroke-surface")
        x, y = fingers.middle('[data-test="stroke-surface"]')
        half = surface.size["width"] / 4 if "width" in surface.size else 20
        fingers.drag(((x - half, y), (x + half, y)))
        self.until(
            lambda: self.found("pip").masks and self.found("pip").masks[0].strokes,
            "no stroke was kept",
        )
        self.until(lambda: self.near(0.1, 0.1, (0x20, 0x40, 0xC0)), "the mask hides nothing")
        self.until(lambda: not self.near(0.5, 0.5, (0x20, 0x40, 0xC0)), "nothing is shown")
        self.assertEqual((), self.found("pip").masks[0].strokes[0].pressures)
        for step, kind in enumerate(("mousePressed", *["mouseMoved"] * 8, "mouseReleased")):
            pen = {"type": kind, "x": x - half + step * half / 5, "y": y + 40, "button": "left"}
            pen |= {"buttons": 1, "clickCount": 1, "pointerType": "pen", "force": 0.1 + step / 12}
            browser.driver.execute_cdp_cmd("Input.dispatchMouseEvent", pen)
        self.until(lambda: len(self.found("pip").masks[0].strokes) == 2, "the pen drew nothing")
        pressures = self.found("pip").masks[0].strokes[1].pressures
        self.assertAlmostEqual(0.1, pressures[0], places=2)
        self.assertEqual(sorted(pressures), list(pressures))
        self.assertGreater(pressures[-1], 0.6)
        self.assert_clean_console()
