"""A film posted from the phone over a bad line: refused, mended, seen, taken down."""

from __future__ import annotations

from django.contrib.auth.models import User
from django.test import override_settings

from browser_tests.site import SiteTest
from kitecore.document import Canvas, empty_document
from kitecore.edits import edit_kinds
from practice.models import Member
from practice.models import Post as Published
from studio.exports.models import Export
from studio.projects import history
from studio.tests.site import SECOND


class FeedTest(SiteTest):
    size = (390, 844)
    touch = True

    def setUp(self) -> None:
        super().setUp()
        address = override_settings(FEED_ADDRESS=f"{self.live_server_url}/practice/")
        self.enterContext(address)
        canvas = Canvas(width=540, height=960)
        project = history.start_project(User.objects.get(), "Wind report", empty_document(canvas))
        clip = {"kind": "solid", "name": "s", "length": 4 * SECOND}
        place = edit_kinds["place"](clip=clip)  # type: ignore[call-arg]
        history.apply_edit(project, project.head_id, place)
        self.browser.open(f"/projects/{project.id}/send")

    def post(self) -> None:
        """From the list of films, under words that the feed does not take."""
        page = self.browser
        page.press("part-left")
        page.press("export")
        page.press("post-film")
        page.dialog()
        page.type("[data-test=post-caption]", "Free umbrellas at three")
        page.type("[data-test=post-tags]", "#kites, rain")
        page.confirm()

    def test_a_film_is_refused_mended_seen_and_taken_down(self) -> None:
        page = self.browser
        page.press("send-feed")
        page.press("feed-connect")
        page.test("visit-feed")
        Member.objects.update(line={"lost": 4, "busy": 10})
        self.post()
        page.find("[data-post=refused]", 120)
        self.assertIn("“free umbrellas” is not said here.", page.find(".reasons").text)
        page.press("post-words")
        page.dialog()
        page.type("[data-test=post-caption]", "Rain at three")
        page.confirm()
        page.find("[data-post=live]", 60)
        published = Published.objects.get(state="live")
        self.assertEqual(("Rain at three", ["kites", "rain"]), (published.caption, published.tags))
        film = Export.objects.get().path.read_bytes()
        self.assertEqual(film, published.upload.film.read_bytes())
        self._see()
        page.press("post-down")
        page.find("[data-post=gone]", 60)
        self.assertFalse(Published.objects.filter(state="live").exists())
        page.press("post-remove")
        page.wait(lambda: not page.all("[data-post]"), what="it stays on the list")
        self.assert_clean_console()

    def _see(self) -> None:
        """The pages of the feed, in a window of their own, signed in."""
        page, driver = self.browser, self.browser.driver
        mine = driver.current_window_handle
        page.press("post-see")
        page.wait(lambda: len(driver.window_handles) == 2)
        driver.switch_to.window(driver.window_handles[1])
        page.wait(lambda: "Rain at three" in page.find("article").text)
        page.wait(lambda: page.run("return document.querySelector('video').currentTime > 0.2"))
        driver.close()
        driver.switch_to.window(mine)
