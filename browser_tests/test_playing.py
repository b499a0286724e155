"""Playing in browsers of other kinds, and going on while the film is changed."""

from __future__ import annotations

from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys

from browser_tests.test_phone import PhoneCase

OF_ANOTHER_KIND = """
const Media = window.MediaSource;
delete window.MediaSource;
window.ManagedMediaSource = Media;
const takes = Media.isTypeSupported;
Media.isTypeSupported = (type) => !type.includes('flac') && takes(type);
"""
WATCH = """
window.stops = 0;
const play = document.querySelector('[data-test=play]');
new MutationObserver(() => (window.stops += play.getAttribute('aria-label') === 'Play'))
  .observe(play, { attributes: true, attributeFilter: ['aria-label'] });
"""
HOLD = """
const before = window.fetch;
window.fetch = (url, options) => {
  const held = String(url).match(/(?:picture|sound)\\?.*first=(\\d+)/);
  const old = String(url).includes(`/revisions/${arguments[0]}/`);
  if (!held || !old || Number(held[1]) < arguments[1]) return before(url, options);
  return new Promise((_, failed) => {
    options.signal.addEventListener('abort', () => failed(options.signal.reason));
  });
};
"""
"""Pieces of a revision from a frame on never come."""


HAS_CURRENT = 2
"""State of a video that has the picture it shows, and no more (HTML, 4.8.11.7)."""


class PlayingTest(PhoneCase):
    size = (1280, 800)
    touch = False

    def fetched_pieces(self, kind: str) -> list[str]:
        found: list[str] = self.browser.run(
            "return performance.getEntriesByType('resource').map((one) => one.name)"
            ".filter((name) => name.includes(`/${arguments[0]}?`))",
            kind,
        )
        return found

    def stopped(self) -> bool:
        return self.browser.test("play").get_attribute("aria-label") == "Play"

    def test_a_managed_source_without_flac_plays_to_the_end(self) -> None:
        browser = self.browser
        script = {"source": OF_ANOTHER_KIND}
        browser.driver.execute_cdp_cmd("Page.addScriptToEvaluateOnNewDocument", script)
        browser.driver.refresh()
        browser.drawn(0)
        browser.press("play")
        browser.wait(lambda: browser.frame() > 20, what="it does not play")
        browser.wait(self.stopped, 40, what="it does not end")
        self.assertEqual(120, browser.frame())
        sounds = self.fetched_pieces("sound")
        self.assertTrue(sounds)
        self.assertTrue(all("coding=aac" in one for one in sounds), sounds)
        self.assert_clean_console()

    def test_a_change_while_it_plays_does_not_stop_it(self) -> None:
        browser = self.browser
        second = self.clips(0)[1].id
        browser.find(f'[data-clip="{second}"] .face').click()
        browser.run(WATCH)
        body = browser.driver.find_element(By.TAG_NAME, "body")
        browser.press("play")
        browser.wait(lambda: 8 < browser.frame() < 50, what="it does not play")
        body.send_keys("d")
        browser.wait(lambda: len(self.clips(0)) == 3, what="no copy")
        self.project.refresh_from_db()
        newer = f"/revisions/{self.project.head_id}/"
        browser.wait(
            lambda: any(newer in one for one in self.fetched_pieces("picture")),
            what="nothing is fetched of the changed film",
        )
        self.assertEqual(0, browser.run("return window.stops"))
        self.assertFalse(self.stopped())
        browser.wait(self.stopped, 180, what="it does not end")
        self.assertEqual(180, browser.frame())
        self.assertEqual(1, browser.run("return window.stops"))
        self.assert_clean_console()

    def test_a_change_while_it_waits_for_pieces_lets_it_go_on(self) -> None:
        browser = self.browser
        browser.find(f'[data-clip="{self.clips(0)[1].id}"] .face').click()
        self.project.refresh_from_db()
        browser.run(HOLD, self.project.head_id, 30)
        browser.press("play")
        browser.wait(lambda: browser.frame() >= 20, what="it does not play")
        # Nothing is there to go on with: how near to the end of it the browser plays is its own.
        state = "return document.querySelector('[data-test=moving]').readyState"
        browser.wait(lambda: browser.run(state) <= HAS_CURRENT, what="it does not wait")
        self.assertLess(browser.frame(), 30)
        browser.find("body").send_keys("d")
        browser.wait(lambda: len(self.clips(0)) == 3, what="no copy")
        browser.wait(self.stopped, what="it does not end")
        self.assertEqual(180, browser.frame())
        self.assert_clean_console()

    def test_a_film_that_gets_shorter_while_it_plays_ends_where_it_does(self) -> None:
        browser = self.browser
        for track in (2, 1):
            self.edit(kind="remove", clips=[self.clips(track)[0].id])
        browser.driver.refresh()
        browser.drawn(0)
        browser.find(f'[data-clip="{self.clips(0)[1].id}"] .face').click()
        browser.press("play")
        browser.wait(lambda: 8 < browser.frame() < 50, what="it does not play")
        browser.press("verb-delete")
        browser.wait(lambda: len(self.clips(0)) == 1)
        browser.wait(self.stopped, 40, what="it does not end")
        self.assertEqual(60, browser.frame())
        self.assert_clean_console()

    def test_what_is_in_hand_plays_again_and_again_until_it_is_switched_off(self) -> None:
        browser = self.browser
        second = self.clips(0)[1]
        browser.find(f'[data-clip="{second.id}"] .face').click()
        browser.find("body").send_keys(Keys.SHIFT + "v" + Keys.NULL)
        browser.test("loop")
        browser.run(WATCH)
        browser.run(
            "window.seen = []; const clock = document.querySelector('[data-test=clock]');"
            "new MutationObserver(() => window.seen.push(Number(clock.dataset.frame)))"
            ".observe(clock, { attributes: true, attributeFilter: ['data-frame'] })"
        )
        browser.press("play")
        browser.wait(
            lambda: browser.run(
                "return window.seen.filter((at, i) => at < window.seen[i - 1]).length >= 2"
            ),
            30,
            "it does not begin again",
        )
        seen = browser.run("return window.seen")
        self.assertEqual((60, 119), (min(seen), max(seen)))
        self.assertEqual(0, browser.run("return window.stops"))
        end = browser.test("loop-to")
        end.send_keys(Keys.SHIFT + Keys.ARROW_LEFT + Keys.NULL)
        browser.wait(lambda: end.get_attribute("aria-valuenow") == "110", what="not shorter")
        browser.find("body").send_keys(Keys.SHIFT + "v" + Keys.NULL)
        browser.wait(self.stopped, 40, what="it does not end")
        self.assertFalse(browser.all("[data-test=loop]"))
        self.assert_clean_console()

    def test_a_person_chooses_how_films_are_looked_at(self) -> None:
        browser = self.browser
        for choice in ("show-thirds", "show-safe", "quality-quarter"):
            browser.find("[data-test=look-closer] button").click()
            browser.press(choice)
        browser.test("guide-thirds")
        browser.test("guide-safe")
        browser.press("clock")
        self.assertIn("00:00:00:00", browser.test("clock").text)
        browser.press("play")
        browser.wait(lambda: browser.frame() > 8, what="it does not play")
        self.assertTrue(all("long_side=320" in one for one in self.fetched_pieces("picture")))
        browser.driver.refresh()
        browser.drawn(0)
        browser.test("guide-thirds")
        self.assertIn("00:00:00:00", browser.test("clock").text)
        self.assert_clean_console()
