"""Common jobs from start to end, counted: no more taps, drags and typed values than told here."""

from __future__ import annotations

from pathlib import Path
from tempfile import TemporaryDirectory
from typing import Any

from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.keys import Keys as Keyboard

from browser_tests.hands import counted
from browser_tests.one_project import OneProjectTest
from kitecore.edits.tests.populated import SECOND
from kitecore.media.tests.material import make_video, make_wav, tone


class FewHandsTest(OneProjectTest):
    def setUp(self) -> None:
        super().setUp()
        self.begin("Paper in the wind", (540, 960))
        ground = {"kind": "solid", "fill": {"kind": "plain", "colour": "#203050"}}
        self.step(kind="place", clip={**ground, "name": "sky", "length": 4 * SECOND})

    def open(self, stage: str) -> None:
        self.browser.open(f"/projects/{self.project.id}/{stage}")
        self.browser.find(".clip")
        self.browser.drawn(0)
        counted(self.browser)

    def number(self, label: str, value: str) -> None:
        """Tap into the number of a control and type another."""
        field = self.browser.find(f'input[aria-label="{label}, exact"]')
        field.click()
        field.send_keys(Keyboard.CONTROL + "a" + Keyboard.NULL, value, Keyboard.ENTER)

    def key(self, label: str) -> None:
        self.browser.find(f'button.key[aria-label^="{label}:"]').click()

    def go(self, seconds: float) -> None:
        """Tap the ruler there."""
        page = self.browser
        ends = page.run(
            "return [...document.querySelectorAll('.clip .face')].map((one) =>"
            " one.getBoundingClientRect()).map((box) => [box.left, box.width])"
        )
        left, width = ends[-1]
        ruler = page.test("ruler")
        box = page.run("return arguments[0].getBoundingClientRect().toJSON()", ruler)
        x = left + width * seconds / 4 - box["x"] - box["width"] / 2
        chain = ActionChains(page.driver, duration=0)
        chain.move_to_element_with_offset(ruler, round(x), 0).click().perform()
        self.until(
            lambda: abs(page.frame() - seconds * 30) <= 2,
            f"the playhead is not at {seconds} s but {page.frame()}",
        )

    def assert_few(self, before: int) -> None:
        """At most two thirds of what it took once."""
        done = counted(self.browser)
        self.assertLessEqual(done.all, before * 2 / 3)

    def test_a_pendant_swings_from_its_pivot(self) -> None:
        form = {"kind": "rectangle", "size": [60, 260]}
        pendant = {"kind": "shape", "name": "pendant", "form": form, "length": 4 * SECOND}
        self.step(kind="place", clip=pendant, mode="above")
        self.open("move")
        page = self.browser
        self.take("pendant")
        page.press("place-pivot")
        self.drag("handle-pivot", (0, -60), (2, -31))
        self.until(lambda: abs(self.found("pendant").place.pivot[1] + 130) < 1.5, "not at the top")
        page.press("place-picture")
        self.number("Turn", "-25")
        self.key("Turn")
        self.go(1)
        self.number("Turn", "25")
        self.until(lambda: len(self.turn().keys) == 2, "no second key")
        page.press("ease-soft")
        page.find('[data-test="keys-more"] button').click()
        page.press("repeat-keys-back")
        self.until(lambda: len(self.turn().keys) > 3, "it swings once")
        self.assert_few(20)
        self.assertEqual(0, self.found("pendant").place.pivot[0])

    def turn(self) -> Any:
        return self.found("pendant").place.turn

    def test_a_light_is_switched_on(self) -> None:
        sheet = {"kind": "solid", "name": "wall", "length": 4 * SECOND}
        fill = {"kind": "plain", "colour": "#606060"}
        self.step(kind="place", clip={**sheet, "fill": fill}, mode="above")
        self.open("layer")
        page = self.browser
        self.take("wall")
        page.press("layer-part-effects")
        page.press("find-effect")
        page.press("effect-point_light")
        page.find('[data-test="effect-row"]')
        self.drag("effect-spot", (-40, -60))
        self.go(1)
        self.key("Strength")
        page.press("step-back")
        self.number("Strength", "0")
        strength = lambda: self.found("wall").effects[0].strength  # noqa: E731
        self.until(lambda: len(getattr(strength(), "keys", ())) == 2, "no two keys")
        self.assert_few(35)
        dark, light = (round(key.at * 30 / SECOND) for key in strength().keys)
        self.assertEqual(1, light - dark)
        self.assertEqual(0, strength().keys[0].value)
        self.assertGreater(strength().keys[1].value, 0.2)

    def test_a_lower_third(self) -> None:
        self.open("layer")
        page = self.browser
        page.press("add-layer")
        page.press("add-text")
        self.until(lambda: len([*self.document().clips()]) == 2, "no text")
        page.type('[data-test="words"]', "Paper Weather\nNorth wind, 4 to 5")
        page.press("plate")
        self.number("Size", "40")
        self.drag("handle-body", (0, 100), (-40, 140))
        page.press("stage-move")
        page.press("move-part-ready")
        page.press("comes-slide")
        page.press("goes-slide")
        self.until(lambda: self.found("Text").moves.goes is not None, "it does not go out")
        page.press("stage-layer")
        self.assert_few(72)

    def test_eight_poses_there_and_back(self) -> None:
        sheet = {"kind": "shape", "name": "sheet", "length": 4 * SECOND}
        form = {"kind": "rectangle", "size": [300, 400]}
        self.step(kind="place", clip={**sheet, "form": form}, mode="above")
        self.open("move")
        page = self.browser
        self.take("sheet")
        page.press("move-part-warp")
        page.press("warp-grid")
        page.press("key-grid")
        for number in range(8):
            if number:
                self.go(number * 0.25)
            poses = self.poses()
            self.drag("grid-5", (10 * (-1) ** number, 4))
            self.until(lambda poses=poses: self.poses() != poses, "no pose")
        page.press("move-part-keys")
        page.press("ease-soft")
        page.find('[data-test="keys-more"] button').click()
        page.press("mirror-keys")
        self.until(lambda: len(self.poses()) == 15, "not there and back")
        self.assert_few(70)

    def poses(self) -> Any:
        points = self.found("sheet").warp.points
        return points.keys if hasattr(points, "keys") else points

    def test_a_ramp_around_a_moment(self) -> None:
        with TemporaryDirectory() as folder:
            path = make_video(Path(folder) / "kite.mp4", frames=240, size=(180, 320))
            take = self.brought_in(self.project, path)
        length = 4 * SECOND
        clip = {"kind": "video", "name": "kite", "media": take.id.hex, "length": length}
        self.step(kind="place", clip={**clip, "source_length": 8 * SECOND}, mode="above")
        self.open("cut")
        page = self.browser
        self.take("kite")
        page.press("part-pace")
        page.find('[data-test="ramp-on"] + label, [data-test="ramp-on"]').click()
        page.press("ramp-hush")
        self.until(lambda: len(self.found("kite").speed.points) == 4, "no ramp")
        # Around its moment, at 2.4 s: slower, from a little before to a little after.
        for index, at in ((1, "2.2"), (2, "2.6")):
            page.find(f'[data-test="ramp-point-{index}"]').click()
            self.typed("ramp-moment", at)
            self.typed("ramp-speed", "0.25")
        middle = lambda: self.found("kite").speed.points[1:3]  # noqa: E731
        self.until(lambda: {round(one.speed, 3) for one in middle()} == {0.25}, "not as slow")
        self.assert_few(80)

    def typed(self, name: str, value: str) -> None:
        field = self.browser.find(f'[data-test="{name}"] input, input[data-test="{name}"]')
        field.click()
        field.send_keys(Keyboard.CONTROL + "a" + Keyboard.NULL, value, Keyboard.ENTER)

    def test_a_mouth_by_six_markers(self) -> None:
        self.open("layer")
        page = self.browser
        page.press("add-layer")
        page.press("add-mouth")
        self.until(lambda: len([*self.document().clips()]) == 2, "no mouth")
        page.press("stage-move")
        page.press("move-part-mouth")
        page.find("[data-test=pose-open] .picture")
        for number, pose in enumerate(("open", "closed", "wide", "closed", "round", "closed")):
            self.go(0.3 + number * 0.3)
            page.press(f"pose-{pose}")
        self.until(lambda: len(self.found("Mouth").turns) == 6, "not six changes")
        self.assert_few(139)

    def test_a_title(self) -> None:
        self.open("layer")
        page = self.browser
        page.press("add-layer")
        page.press("add-text")
        self.until(lambda: len([*self.document().clips()]) == 2, "no text")
        page.type('[data-test="words"]', "PAPER\nWEATHER")
        self.number("Size", "90")
        page.find('[role=group][aria-label^="Outline"] button:nth-of-type(2)').click()
        self.until(lambda: self.text().outline is not None, "no outline")
        self.number("Outline width", "10")
        page.press("layer-part-effects")
        page.press("find-effect")
        for kind in ("glow", "flicker", "shadow"):
            page.press(f"effect-{kind}")
            self.until(lambda kind=kind: kind in self.effects(), f"no {kind}")
            if kind != "shadow":
                page.press("find-effect")
        self.number("Down", "120")
        page.press("stage-move")
        page.press("move-part-ready")
        page.press("comes-rise")
        page.press("comes-by-letter")
        self.key("Size")
        page.press("move-part-keys")
        self.go(2.8)
        self.number("Size", "115")
        self.until(lambda: len(getattr(self.text().place.size, "keys", ())) == 2, "no push-in")
        self.assert_few(102)

    def text(self) -> Any:
        return next(clip for _, clip in self.document().clips() if clip.kind == "text")

    def effects(self) -> list[str]:
        return [one.kind for one in self.text().effects]

    def test_a_first_cut_of_five_files(self) -> None:
        self.begin("North wind", (180, 320))
        page = self.browser
        page.open(f"/projects/{self.project.id}/gather")
        counted(page)
        with TemporaryDirectory() as folder:
            files = [
                make_video(
                    Path(folder) / f"kite-{n}.mp4", frames=90, size=(180, 320), sound=tone(3)
                )
                for n in range(3)
            ]
            music, voice = (Path(folder) / f"{name}.wav" for name in ("music", "voice"))
            make_wav(music, tone(8))
            make_wav(voice, tone(2))
            field = page.wait(lambda: page.all("[data-test=files]"))[0]
            field.send_keys("\n".join(map(str, (*files, music, voice))))
            for path in (*files, music, voice):
                page.find(f'[data-take="{path.name}"][data-state=ready]')
        page.press("several-takes")
        for number in range(3):
            page.find(f'[data-take="kite-{number}.mp4"]').click()
        page.press("place-row")
        self.until(lambda: len(self.document().main.clips) == 3, "not three in a row")
        for name in ("music", "voice"):
            page.find(f'[data-take="{name}.wav"]').click()
            page.press("place-above")
            self.until(lambda name=name: self.heard(name), f"no {name}")
        page.press("stage-cut")
        # The first second of each goes, from the last to the first.
        for number in (2, 1, 0):
            self.at(number * 3 + 1)
            page.find(f'.clip[aria-label^="kite-{number}"] .face').click()
            page.press("verb-away-left")
            self.until(lambda number=number: self.length() == 6 + number, "it is as long as it was")
        page.find('.clip[aria-label^="music"] .face').click()
        page.press("part-sound")
        self.number("Gain", "-14")
        self.until(lambda: self.heard("music").gain == -14, "it is as loud")
        self.number("Fade out", "1")
        page.press("stage-mix")
        page.find(f'[data-test="strip-{self.track("music").id}"] [data-test=strip-name]').click()
        page.press("mix-part-under")
        page.press("under-Sound 2")
        self.until(lambda: self.track("music").strip.under, "the music does not step back")
        self.assert_few(105)
        self.assertEqual(6, self.length())
        self.assert_clean_console()

    def track(self, name: str) -> Any:
        tracks = self.document().tracks
        return next(one for one in tracks if any(clip.name.startswith(name) for clip in one.clips))

    def heard(self, name: str) -> Any:
        clips = (clip for _, clip in self.document().clips())
        return next((one for one in clips if one.name.startswith(name)), None)

    def length(self) -> int:
        return round(self.document().main.end / SECOND)

    def at(self, seconds: float) -> None:
        """Tap the ruler: a second is as long as the first clip tells."""
        page = self.browser
        clip = page.find('.clip[aria-label^="kite-0"]')
        box = page.run("return arguments[0].getBoundingClientRect().toJSON()", clip)
        ruler = page.test("ruler")
        own = page.run("return arguments[0].getBoundingClientRect().toJSON()", ruler)
        x = box["x"] + box["width"] / 3 * seconds - own["x"] - own["width"] / 2
        chain = ActionChains(page.driver, duration=0)
        chain.move_to_element_with_offset(ruler, round(x), 0).click().perform()
        self.until(lambda: abs(page.frame() - seconds * 30) <= 3, f"not at {seconds} s")
