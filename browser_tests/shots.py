"""Pictures of each main view from the demo data, for the README: ``make shots``."""

from __future__ import annotations

import os
import socket
import subprocess
import sys
from pathlib import Path
from urllib.error import URLError
from urllib.request import urlopen

from selenium.webdriver.common.by import By

from browser_tests.browser import Browser

ROOT = Path(__file__).resolve().parent.parent
FOLDER = ROOT / "docs" / "screenshots"


def main() -> None:
    base = os.environ.get("VELVET_KITE_ADDRESS", "")
    server = None if base else _served()
    if server is not None:
        server, base = server
    try:
        take_all(base, Path(os.environ.get("VELVET_KITE_SHOTS", FOLDER)))
    finally:
        if server is not None:
            server.terminate()
            server.wait()


def _served() -> tuple[subprocess.Popen[bytes], str]:
    """The site with its demo data on a free port."""
    subprocess.run([sys.executable, "manage.py", "load_demo"], cwd=ROOT, check=True)
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        port = probe.getsockname()[1]
    serve = [sys.executable, "tools/serve.py", "--port", str(port)]
    process = subprocess.Popen(serve, cwd=ROOT, stdout=subprocess.DEVNULL)
    base = f"http://127.0.0.1:{port}"
    while process.poll() is None:
        try:
            urlopen(base + "/api/health", timeout=2).close()
            break
        except (URLError, OSError):
            continue
    return process, base


def take_all(base: str, folder: Path) -> None:
    browser = Browser(base)
    try:
        browser.open("/sign-in")
        browser.find("#name")
        browser.shot(folder / "sign-in.png")
        browser.sign_in("maker", "four-folds-up")
        browser.find(".cover img")
        _settled(browser)
        browser.shot(folder / "projects.png")
        browser.find(".cover").click()
        _stage(browser, "gather", 405)
        browser.find('[data-take="launch.mp4"]').click()
        _settled(browser)
        browser.shot(folder / "gather.png")
        _stage(browser, "cut", 490)
        _take(browser, "kite-cutout")
        _settled(browser)
        browser.shot(folder / "cut.png")
        _take(browser, "harbour-wide")
        _go(browser, 140)
        _settled(browser)
        browser.shot(folder / "cut-picture.png")
        _cutting(browser, folder)
        _stage(browser, "send", 405)
        browser.shot(folder / "send.png")
        browser.resize((390, 844), touch=True)
        _stage(browser, "cut", 140)
        browser.shot(folder / "cut-phone.png")
        browser.press("stage-gather")
        _settled(browser)
        browser.shot(folder / "gather-phone.png")
    finally:
        for problem in browser.problems():
            print(problem)
        browser.close()


SLANTED = "saved · step 20"
"""What the page says after the four steps of the pictures up to there."""


def _cutting(browser: Browser, folder: Path) -> None:
    """A join, a ramp, a split screen and a group; the demo is put back as it was."""
    before = browser.run("return document.querySelector('.saved').textContent")
    _take(browser, "window")
    _go(browser, 108)
    browser.press("transition-dissolve")
    browser.find("[data-join]")
    _settled(browser)
    browser.shot(folder / "cut-join.png")
    _take(browser, "launch")
    browser.press("part-pace")
    browser.press("ramp-on")
    browser.press("ramp-hush")
    browser.find('[data-test="ramp-point-3"]')
    _go(browser, 400)
    _settled(browser)
    browser.run("document.querySelector('[data-test=ramp]').scrollIntoView({block: 'center'})")
    browser.shot(folder / "ramp.png")
    browser.press("several")
    _take(browser, "bird")
    _take(browser, "reel")
    browser.press("part-screen")
    browser.press("layout-1-2")
    browser.find('[data-test="cell-2"]')
    browser.find('[aria-label="Slant, exact"]')
    browser.run(
        "const field = document.querySelector('[aria-label=\"Slant, exact\"]');"
        "field.value = '8'; field.dispatchEvent(new Event('change'))"
    )
    browser.wait(
        lambda: browser.run("return document.querySelector('.saved').textContent") == SLANTED
    )
    browser.driver.refresh()
    browser.find("[role=option]")
    _go(browser, 190)
    _take(browser, "bird")
    browser.press("part-screen")
    _settled(browser)
    browser.shot(folder / "split-screen.png")
    _key(browser, "Escape")
    _take(browser, "workbench")
    browser.press("several")
    _take(browser, "window")
    _key(browser, "g")
    browser.find('[role=option][aria-label^="Group 1"]')
    _take(browser, "Group 1")
    browser.press("verb-open-group")
    browser.find('[data-test="leave-group"]')
    _go(browser, 60)
    _take(browser, "window")
    _settled(browser)
    browser.shot(folder / "group.png")
    browser.press("leave-group")
    while browser.run("return document.querySelector('.saved').textContent") != before:
        browser.press("undo")
        browser.wait(
            lambda: browser.run(
                "return document.querySelector('.saved').textContent.startsWith('saved')"
            )
        )
    _stage(browser, "gather", 405)
    browser.press("several-takes")
    for name in ("kite-cutout.png", "evening-sheet.jpg"):
        browser.run(f"document.querySelector('[data-take=\"{name}\"]').click()")
    _settled(browser)
    browser.shot(folder / "gather-several.png")
    browser.press("several-takes")


def _key(browser: Browser, key: str) -> None:
    browser.run("document.activeElement.blur()")
    browser.run("window.dispatchEvent(new KeyboardEvent('keydown', {key: arguments[0]}))", key)


def _stage(browser: Browser, name: str, frame: int) -> None:
    browser.press(f"stage-{name}")
    _go(browser, frame)
    _settled(browser)


def _go(browser: Browser, frame: int) -> None:
    """Move the playhead, by the keyboard as a person without a mouse would."""
    browser.find("[data-test=still][data-frame]")
    body = browser.driver.find_element(By.TAG_NAME, "body")
    browser.run("document.activeElement.blur()")
    while browser.frame() != frame:
        by = frame - browser.frame()
        browser.run(
            "window.dispatchEvent(new KeyboardEvent('keydown',"
            "{key: arguments[0], shiftKey: arguments[1]}))",
            "ArrowRight" if by > 0 else "ArrowLeft",
            abs(by) >= 10,
        )
    assert body
    browser.drawn(frame)


def _take(browser: Browser, name: str) -> None:
    browser.find(f'[role=option][aria-label^="{name}"] .face').click()


def _settled(browser: Browser) -> None:
    """Wait until every shown picture has arrived."""
    browser.wait(
        lambda: browser.run(
            "return [...document.images].every(i => i.complete ? i.naturalWidth > 0 : "
            "i.getBoundingClientRect().top > innerHeight)"
        )
    )


if __name__ == "__main__":
    main()
