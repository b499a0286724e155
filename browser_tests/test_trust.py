"""No step is lost whatever the line does, no job is stuck."""

from __future__ import annotations

import tempfile
from pathlib import Path

from django.contrib.auth.models import User
from pymediainfo import MediaInfo
from selenium.webdriver.common.action_chains import ActionChains

from browser_tests.site import SiteTest
from kitecore.document import empty_document
from kitecore.edits import edit_kinds
from kitecore.media.tests.material import make_video, tone
from studio.library.models import Take
from studio.projects import history
from studio.projects.models import Project, Revision

SECOND = 705_600_000

_LOSE_ONE_ANSWER = """
const honest = window.fetch
window.fetch = async (...asked) => {
  const answer = await honest(...asked)
  if (!String(asked[0].url ?? asked[0]).endsWith('/edits')) return answer
  window.fetch = honest
  throw new TypeError('the answer was lost')
}
"""


class TrustTest(SiteTest):
    def setUp(self) -> None:
        super().setUp()
        self.pip = User.objects.get(username="pip")
        self.project = self.make_project("Kites", 2)

    def make_project(self, name: str, clips: int) -> Project:
        project = history.start_project(self.pip, name, empty_document())
        place = edit_kinds["place"]
        for number in range(clips):
            clip = {"kind": "solid", "name": f"{name} {number}", "length": 2 * SECOND}
            project.refresh_from_db()
            history.apply_edit(project, project.head_id, place(clip=clip))
        return project

    def enter(self) -> None:
        self.browser.open(f"/projects/{self.project.id}/cut")
        self.browser.wait(lambda: self.browser.all("[data-clip]"))

    def split_at(self, frame: int) -> None:
        """Take the first clip, go to a frame of it, split it there."""
        browser = self.browser
        browser.all("[data-clip]")[0].click()
        keys = "window.dispatchEvent(new KeyboardEvent('keydown', {key: arguments[0]}))"
        browser.run(keys, "Home")
        for _ in range(frame):
            browser.run(keys, "ArrowRight")
        browser.press("verb-split")

    def block(self, *addresses: str) -> None:
        self.browser.driver.execute_cdp_cmd("Network.enable", {})
        self.browser.driver.execute_cdp_cmd("Network.setBlockedURLs", {"urls": list(addresses)})

    def line(self, **how: object) -> None:
        """What the line is like: ``offline``, ``latency`` in ms."""
        plain = {"offline": False, "latency": 0, "downloadThroughput": -1, "uploadThroughput": -1}
        self.browser.driver.execute_cdp_cmd("Network.enable", {})
        self.browser.driver.execute_cdp_cmd("Network.emulateNetworkConditions", plain | how)

    def saving(self, words: str) -> None:
        browser = self.browser
        browser.wait(
            lambda: words in browser.test("saving").text,
            what=f"the page never said “{words}”",
        )

    def clips(self, number: int) -> None:
        self.browser.wait(
            lambda: len(self.browser.all("[data-clip]")) == number, what=f"not {number} clips"
        )

    def steps(self) -> int:
        return Revision.objects.filter(project=self.project).count() - 1

    def test_steps_made_offline_are_kept_and_sent_when_the_line_is_back(self) -> None:
        self.enter()
        self.saving("saved · step 2")
        self.line(offline=True)
        self.split_at(20)
        self.saving("offline: your steps are kept here")
        self.browser.test("behind")
        self.split_at(10)
        self.assertEqual(2, self.steps())
        self.line()
        self.clips(4)
        self.saving("saved · step 4")
        self.assertEqual(4, self.steps())

    def test_an_opened_project_shows_all_of_its_timeline(self) -> None:
        self.project = self.make_project("Long", 40)
        self.enter()
        self.clips(40)

    def test_a_drag_that_loses_its_line_in_the_middle_is_kept(self) -> None:
        self.enter()
        browser = self.browser
        browser.all("[data-clip]")[1].click()
        edge = browser.find("[data-clip] [data-edge=end]")
        before = browser.all("[data-clip]")[1].size["width"]
        ActionChains(browser.driver).click_and_hold(edge).move_by_offset(-30, 0).perform()
        self.line(offline=True)
        ActionChains(browser.driver).move_by_offset(-30, 0).release().perform()
        self.saving("offline: your steps are kept here")
        self.assertAlmostEqual(before - 60, browser.all("[data-clip]")[1].size["width"], delta=9)
        self.assertEqual(2, self.steps())
        self.line()
        self.saving("saved · step 3")
        self.assertAlmostEqual(before - 60, browser.all("[data-clip]")[1].size["width"], delta=9)
        document = history.document_at(Project.objects.get(pk=self.project.pk).head)
        self.assertLess(document.main.clips[1].length, 2 * SECOND)

    def test_a_refused_step_puts_back_what_was_shown(self) -> None:
        self.enter()
        browser = self.browser
        browser.all("[data-clip]")[0].click()
        field = '[aria-label="Turn, exact"]'
        browser.find(field)
        before = browser.find(field).get_attribute("value")
        # Somebody else locks the track meanwhile, and this page does not know.
        self.project.refresh_from_db()
        track = history.document_at(self.project.head).main.id
        lock = edit_kinds["set_track"](track=track, locked=True)
        history.apply_edit(self.project, self.project.head_id, lock)
        browser.run(
            "const field = document.querySelector(arguments[0]); field.value = '33';"
            "field.dispatchEvent(new Event('change'))",
            field,
        )
        browser.wait(lambda: "locked" in browser.find(".note.problem").text, what="nothing said")
        browser.wait(
            lambda: browser.find(field).get_attribute("value") == before,
            what="the field went on showing what was refused",
        )
        self.assertEqual(3, self.steps())

    def test_a_step_that_was_never_sent_can_be_taken_back(self) -> None:
        self.enter()
        self.line(offline=True)
        self.split_at(10)
        self.saving("offline")
        self.split_at(20)
        self.browser.press("undo")
        self.browser.wait(lambda: "taken back" in self.browser.find(".note").text)
        self.line()
        self.clips(3)
        self.saving("saved · step 3")

    def test_a_step_whose_answer_was_lost_is_done_once(self) -> None:
        self.enter()
        self.browser.run(_LOSE_ONE_ANSWER)
        self.split_at(10)
        self.clips(3)
        self.saving("saved · step 3")
        self.assertEqual(3, self.steps())

    def test_steps_that_wait_outlive_a_reload(self) -> None:
        self.enter()
        self.block("*/edits")
        self.split_at(10)
        self.saving("1 step waiting")
        self.browser.driver.refresh()
        self.saving("1 step waiting")
        self.assertEqual(2, self.steps())
        self.block()
        self.clips(3)
        self.saving("saved · step 3")

    def test_on_a_slow_line_steps_go_one_after_another(self) -> None:
        self.enter()
        self.line(latency=700)
        for frame in (30, 20, 10):
            self.split_at(frame)
        self.clips(5)
        self.saving("saved · step 5")
        self.line()
        self.browser.press("undo")
        self.clips(4)

    def test_a_step_of_a_project_that_was_left_is_not_patched_into_the_next(self) -> None:
        other = self.make_project("Others", 1)
        self.enter()
        self.line(latency=1500)
        self.split_at(10)
        self.browser.run(
            "document.querySelector('#app').__vue_app__.config.globalProperties.$router"
            ".push(arguments[0])",
            f"/projects/{other.id}/cut",
        )
        self.browser.wait(lambda: self.steps() == 3, what="the step was not sent")
        self.line()
        self.clips(1)
        self.saving("saved · step 1")
        self.assertEqual(1, Revision.objects.filter(project=other, number=1).count())


class JobsTest(SiteTest):
    def setUp(self) -> None:
        super().setUp()
        self.pip = User.objects.get(username="pip")
        self.project = history.start_project(self.pip, "Kites", empty_document())
        self.files = Path(tempfile.mkdtemp(dir=self.browser.folder))

    def bring_in(self, *paths: Path) -> None:
        field = self.browser.run("return document.querySelector('[data-test=files]')")
        field.send_keys("\n".join(map(str, paths)))

    def test_a_take_can_be_played_while_it_is_taken_in(self) -> None:
        browser = self.browser
        browser.open(f"/projects/{self.project.id}/gather")
        browser.test("bring-in")
        film = make_video(
            self.files / "long.mp4", frames=900, size=(720, 1280), sound=tone(30), gop=60
        )
        self.bring_in(film)
        browser.find('[data-take="long.mp4"]', 60).click()
        browser.find(".viewer [aria-label='Play the take']:enabled", 60).click()
        browser.find('[data-take="long.mp4"][data-state=ready]', 120)
        take = Take.objects.get()
        self.assertEqual(30, round(take.folder.sound.stat().st_size / 8 / 48_000))
        browser.find(".card-of .picture img", 60)

    def test_two_films_at_once_both_finish(self) -> None:
        browser = self.browser
        place = edit_kinds["place"]
        clip = {"kind": "solid", "name": "s", "length": 8 * SECOND}
        history.apply_edit(self.project, self.project.head_id, place(clip=clip))
        browser.open(f"/projects/{self.project.id}/send")
        browser.press("size-640")
        browser.press("export")
        browser.find("[data-film]")
        browser.press("send-file")
        browser.press("size-960")
        browser.press("export")
        browser.wait(
            lambda: len(browser.all("[data-film=done]")) == 2, 120, "two films did not finish"
        )
        for link in browser.all(".film a[download]"):
            path = self.files / "film.mp4"
            path.write_bytes(browser.fetched(link.get_attribute("href") or ""))
            video = next(t for t in MediaInfo.parse(path).tracks if t.track_type == "Video")
            self.assertEqual("240", str(video.frame_count))
