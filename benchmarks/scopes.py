"""How often scopes follow: the playing picture, and a slider that moves."""

from __future__ import annotations

import statistics
from pathlib import Path

from benchmarks.rows import Row
from benchmarks.site import demo_site
from browser_tests.browser import Browser
from browser_tests.shots import go, open_project, take

SECONDS = 4
_STILL = '"scopes":{'
"""Stands in the question for a still with its scopes, however large it is."""
_BESIDE = '"long_side":480'
"""In that for the scopes of a picture that plays."""

_COUNT = """
const [mark, seconds, done] = arguments
const plain = window.fetch
let many = 0
window.fetch = (url, how) => {
  const asked = plain(url, how)
  if (String(url).includes('/still') && how.body.includes(mark))
    asked.then((answer) => { if (answer.status === 200) many++ })
  return asked
}
const finish = () => { window.fetch = plain; clearInterval(window.sliding); done(many / seconds) }
"""
_PLAYING = (
    _COUNT
    + """
const video = document.querySelector('[data-test=moving]')
video.requestVideoFrameCallback(() => { many = 0; setTimeout(finish, seconds * 1000) })
document.querySelector('[data-test=play]').click()
"""
)
_SLIDING = (
    _COUNT
    + """
const slider = document.querySelector('input[aria-label=Exposure]')
let at = 0
window.sliding = setInterval(() => {
  slider.value = Math.sin(++at / 20)
  slider.dispatchEvent(new Event('input'))
}, 16)
setTimeout(finish, seconds * 1000)
"""
)


def following(data: Path) -> list[Row]:
    """Three scopes beside the picture, headless Chromium on the same two cores."""
    with demo_site(data) as base:
        browser = Browser(base)
        try:
            browser.driver.set_script_timeout(60)
            browser.sign_in("maker", "four-folds-up")
            open_project(browser, "Two cameras")
            browser.find(".clip")
            browser.press("stage-grade")
            take(browser, "card-cold")
            go(browser, 80)
            playing, sliding = [], []
            for _ in range(3):
                sliding.append(browser.driver.execute_async_script(_SLIDING, _STILL, SECONDS))
                go(browser, 0)
                playing.append(browser.driver.execute_async_script(_PLAYING, _BESIDE, SECONDS))
                if browser.test("play").get_attribute("aria-label") == "Pause":
                    browser.press("play")
                go(browser, 80)
        finally:
            browser.close()
    return [_row("while playing", playing), _row("while a slider moves", sliding)]


def _row(when: str, times: list[float]) -> Row:
    reached = statistics.median(times)
    how = f"{min(times):.1f} to {max(times):.1f} in three runs of {SECONDS} s, headless Chromium"
    return Row(
        f"scopes drawn anew {when}",
        f"{reached:.1f} times a second",
        "≥ 10 times a second",
        how,
        reached >= 10,
    )
