"""Every page and stage for those who do not see, or do not use a pointer."""

from __future__ import annotations

import tempfile
from pathlib import Path

from django.contrib.auth.models import User
from pymediainfo import MediaInfo
from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.keys import Keys

from browser_tests.axe import faults
from browser_tests.site import SiteTest
from browser_tests.test_phone import PhoneCase
from kitecore.document import empty_document
from kitecore.edits import apply, edit_kinds
from kitecore.media.tests.material import make_video
from kitecore.ticks.rate import TICKS_PER_SECOND
from studio.projects import history
from studio.tests.site import clip_of, take_of

SIZES = (((1280, 800), False), ((390, 844), True))
STAGES = ("gather", "cut", "grade", "layer", "move", "send")


class AxeTest(PhoneCase):
    def test_nothing_serious_is_found(self) -> None:
        browser = self.browser
        self.take_on_timeline(2)
        for size, touch in SIZES:
            browser.resize(size, touch=touch)
            for stage in STAGES:
                with self.subTest(size=size, stage=stage):
                    browser.press(f"stage-{stage}")
                    browser.find(".bench :is(button, input)")
                    self.assertEqual([], faults(browser))
                    first, stage_of = browser.all("h1, h2")[:2]
                    told = stage_of.get_attribute("textContent").lower()
                    self.assertEqual(("h1", stage), (first.tag_name, told))
        browser.resize((390, 844), touch=True)
        browser.press("stage-cut")
        browser.press("open-timeline")
        self.assertEqual([], faults(browser))

    def test_nothing_serious_before_a_project_is_open(self) -> None:
        browser = self.browser
        for size, touch in SIZES:
            browser.resize(size, touch=touch)
            with self.subTest(size=size):
                browser.open("/")
                browser.find(".cards")
                self.assertEqual([], faults(browser))
        browser.press("sign-out")
        browser.find("#name")
        self.assertEqual([], faults(browser))


class KeyboardTest(SiteTest):
    """A first film by keys alone, from signing in to the file."""

    def test_from_signing_in_to_a_film(self) -> None:
        browser = self.browser
        browser.press("sign-out")
        browser.find("#name")
        self.tab_to("#name")
        self.keys("pip", Keys.TAB, "a-long-one-7", Keys.ENTER)
        browser.find(".content")
        self.tab_to("main .btn-primary", Keys.ENTER)
        browser.find(".modal.show #project-name")
        self.tab_to("#project-name")
        self.keys("By keys", Keys.ENTER)
        folder = Path(tempfile.mkdtemp(dir=browser.folder))
        self.tab_to("[data-test=bring-in]")
        make_video(folder / "numbers.mp4", frames=60)
        browser.wait(lambda: browser.all("[data-test=files]"))[0].send_keys(
            str(folder / "numbers.mp4")
        )
        browser.find('[data-take="numbers.mp4"] img', seconds=60)
        self.tab_to('[data-take="numbers.mp4"]', Keys.ENTER)
        self.tab_to("[data-test=mark-out]")
        for _ in range(2):
            browser.wait(lambda: browser.test("place-end").is_enabled())
            self.tab_to("[data-test=place-end]", Keys.ENTER)
        browser.wait(lambda: len(browser.all("[data-clip]")) == 2)
        self._along_the_timeline()
        self.tab_to("[data-test=stage-send]", Keys.ENTER)
        self.assertEqual("By keys · Send · Velvet Kite", browser.driver.title)
        self.tab_to("[data-test=export]", Keys.ENTER)
        browser.find(".film a[download]", seconds=120)
        self.tab_to(".film a[download]", Keys.ENTER)
        film = browser.wait(lambda: next(browser.downloads.glob("*.mp4"), None), 30)
        video = next(one for one in MediaInfo.parse(film).tracks if one.track_type == "Video")
        self.assertEqual("120", video.frame_count)
        self.assert_clean_console()

    def test_keys_can_be_changed_and_those_of_one_letter_switched_off(self) -> None:
        browser = self.browser
        owner = User.objects.get(username="pip")
        document = apply(empty_document(), edit_kinds["add_layer"](seed="s", layer="star", at=0))
        project = history.start_project(owner, "Keys", document)
        browser.open(f"/projects/{project.id}/cut")
        browser.drawn(0)
        self.keys("?")
        there = "return !!document.activeElement?.closest('.modal.show')"
        browser.wait(lambda: browser.run(there), what="the sheet does not take the focus")
        browser.press("key-of-arrowright")
        browser.wait(lambda: browser.test("key-of-arrowright").text == "Press a key")
        self.keys("c")
        browser.wait(lambda: "taken" in browser.find(".editor .refused").text)
        self.keys("=")
        browser.wait(lambda: browser.test("key-of-arrowright").text == "=")
        self.keys(Keys.ESCAPE)
        gone = "return !document.activeElement?.closest('.modal') && !document.querySelector('.modal.show')"
        browser.wait(lambda: browser.run(gone), what="the sheet keeps the focus")
        self.keys("=")
        browser.wait(lambda: browser.frame() == 1, what="the new key does nothing")
        on = browser.find('[aria-label="One frame on"]')
        self.assertEqual("One frame on (=)", on.get_attribute("title"))
        self.keys("?")
        browser.press("single-keys")
        self.assertEqual("none", browser.test("key-of-arrowright").text)
        browser.press("keys-reset")
        browser.wait(lambda: browser.test("key-of-arrowright").text == "→")
        self.assertEqual("none", browser.test("key-of-x").text)

    def test_ends_content_and_joins_by_frames_and_the_focus_stays_in_the_timeline(self) -> None:
        browser = self.browser
        project = history.start_project(
            User.objects.get(username="pip"), "By frames", empty_document()
        )
        take = take_of(project, frames=90)
        for count in range(2):
            part = clip_of(take, 1.0) | {"source_in": TICKS_PER_SECOND}
            edit = edit_kinds["place"](seed=str(count), mode="end", clip=part)
            project.refresh_from_db()
            history.apply_edit(project, project.head_id or 0, edit)
        browser.open(f"/projects/{project.id}/cut")
        browser.drawn(0)
        self.tab_to("[data-clip]", Keys.ENTER)
        browser.find('[data-clip][aria-selected="true"]')

        def clips() -> list[tuple[int, int]]:
            """What each clip shows: first and last frame of its source."""
            project.refresh_from_db()
            document = history.document_at(history.head_of(project))
            frame = TICKS_PER_SECOND // 30
            found = [clip for track in document.tracks for clip in track.clips]
            return [
                (one.source_in // frame, (one.source_in + one.length) // frame) for one in found
            ]

        for keys, now in (
            (("t",), [(31, 60), (30, 60)]),
            (("T", "T"), [(29, 60), (30, 60)]),
            (("j",), [(29, 61), (30, 60)]),
            (("J", "J"), [(29, 59), (30, 60)]),
            (("z",), [(30, 60), (30, 60)]),
            ((Keys.PAGE_DOWN,), [(30, 60), (30, 60)]),
        ):
            with self.subTest(keys=keys):
                self.keys(*keys)
                browser.wait(lambda now=now: clips() == now, what=f"not {now}")
        self.assertEqual(30, browser.frame())
        held = ActionChains(browser.driver, duration=0).key_down(Keys.ALT)
        held.send_keys("j").key_up(Keys.ALT).perform()
        browser.wait(lambda: clips() == [(30, 61), (31, 60)], what="the join stays")
        first = self.focused("data-clip")
        self.keys("d")
        browser.wait(lambda: self.focused("data-clip") not in ("", first), what="the copy")
        self.assertEqual("true", self.focused("aria-selected"))
        self.keys(Keys.DELETE)
        browser.wait(lambda: len(browser.all("[data-clip]")) == 2)
        browser.wait(lambda: self.focused("data-clip"), what="the focus is lost")
        self.keys(Keys.ENTER, "g")
        browser.wait(lambda: "group" in self.focused("aria-label"), what="the group")
        self.assertEqual("true", self.focused("aria-selected"))
        self.assert_clean_console()

    def _along_the_timeline(self) -> None:
        """One stop for all clips; arrows go on, Enter takes, the verbs have keys."""
        browser = self.browser
        self.tab_to("[data-clip]")
        first = self.focused("data-clip")
        self.keys(Keys.ARROW_RIGHT)
        browser.wait(lambda: self.focused("data-clip") not in ("", first), what="arrows stay")
        self.assertIn("numbers", self.focused("aria-label"))
        self.assertEqual(1, len(browser.all('[data-clip][tabindex="0"]')))
        self.keys(Keys.ENTER)
        browser.find('[data-clip][aria-selected="true"]')
        self.keys(Keys.TAB)
        self.assertEqual("", self.focused("data-clip"))

    def keys(self, *keys: str) -> None:
        for key in keys:
            ActionChains(self.browser.driver, duration=0).send_keys(key).perform()

    def focused(self, attribute: str) -> str:
        told: str = self.browser.run(
            "return document.activeElement?.getAttribute(arguments[0]) ?? ''", attribute
        )
        return told

    def tab_to(self, selector: str, *then: str) -> None:
        """Press Tab until the focus is there; it has to come there."""
        self.browser.find(selector)
        for _ in range(250):
            if self.browser.run("return document.activeElement.matches(arguments[0])", selector):
                self.keys(*then)
                return
            self.keys(Keys.TAB)
        self.fail(f"Tab never comes to {selector}")
