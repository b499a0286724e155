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
from browser_tests.fingers import Fingers

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
        browser.sign_in("maker", "four-folds-up")
        browser.find(".cover img")
        _settled(browser)
        browser.shot(folder / "projects.png")
        open_project(browser, "Four folds up")
        _stage(browser, "gather", 405)
        browser.find('[data-take="launch.mp4"]').click()
        _settled(browser)
        browser.shot(folder / "gather.png")
        _stage(browser, "cut", 490)
        take(browser, "kite-cutout")
        _settled(browser)
        browser.shot(folder / "cut.png")
        _cutting(browser, folder)
        _grading(browser, folder)
        _layering(browser, folder)
        _moving(browser, folder)
        _mixing(browser, folder)
        _switching(browser, folder)
        _following(browser, folder)
        _bursting(browser, folder)
        _speaking(browser, folder)
        browser.open("/")
        open_project(browser, "Four folds up")
        browser.resize((390, 844), touch=True)
        _stage(browser, "cut", 140)
        _tapped_in_strip(browser)
        browser.shot(folder / "cut-phone.png")
        browser.press("stage-gather")
        _settled(browser)
        browser.shot(folder / "gather-phone.png")
    finally:
        for problem in browser.problems():
            print(problem)
        browser.close()


def _tapped_in_strip(browser: Browser) -> None:
    Fingers(browser).tap(Fingers(browser).middle("[data-test=strip]"))
    browser.wait(lambda: browser.test("in-hand").is_enabled())
    _settled(browser)


def _cutting(browser: Browser, folder: Path) -> None:
    """A join and a ramp; the demo is put back as it was."""
    before = browser.run("return document.querySelector('.saved').textContent")
    take(browser, "window")
    go(browser, 108)
    browser.press("transition-dissolve")
    browser.find("[data-join]")
    _settled(browser)
    take(browser, "launch")
    browser.press("part-pace")
    browser.press("ramp-on")
    browser.press("ramp-hush")
    browser.find('[data-test="ramp-point-3"]')
    go(browser, 400)
    _settled(browser)
    browser.run("document.querySelector('[data-test=ramp]').scrollIntoView({block: 'center'})")
    browser.shot(folder / "ramp.png")
    while browser.run("return document.querySelector('.saved').textContent") != before:
        browser.press("undo")
        browser.wait(
            lambda: browser.run(
                "return document.querySelector('.saved').textContent.startsWith('saved')"
            )
        )


def _switching(browser: Browser, folder: Path) -> None:
    """Three cameras lined up and switched, all of them beside each other as a wall."""
    browser.open("/")
    open_project(browser, "Report desk")
    _stage(browser, "cut", 140)
    take(browser, "Report desk")
    browser.press("part-switch")
    browser.find('[data-test="wall-2"]')
    _settled(browser)
    browser.shot(folder / "switch.png")


def _following(browser: Browser, folder: Path) -> None:
    """A sign that is followed, with a label that goes along and a face that is covered."""
    browser.open("/")
    open_project(browser, "Wind street")
    _stage(browser, "layer", 90)
    take(browser, "wind-street")
    browser.press("layer-part-follow")
    browser.test("track-told")
    _settled(browser)
    browser.shot(folder / "follow.png")


def _bursting(browser: Browser, folder: Path) -> None:
    """A kite in shards, with what the effect is made of."""
    browser.open("/")
    open_project(browser, "Burst")
    _stage(browser, "layer", 90)
    go(browser, 64)
    browser.press("layer-kite")
    browser.press("layer-part-effects")
    browser.find("[data-test=effect-row] .title").click()
    _settled(browser)
    browser.shot(folder / "effects.png")


def _speaking(browser: Browser, folder: Path) -> None:
    """A mouth within a bird, with its voice; on a phone, too."""
    browser.open("/")
    open_project(browser, "Pip speaks")
    _sending(browser, folder)
    _stage(browser, "move", 40)
    take(browser, "Pip")
    browser.press("verb-open-group")
    take(browser, "Mouth")
    browser.press("move-part-mouth")
    browser.wait(lambda: browser.all("[data-test=mouth-lane] img"))
    _settled(browser)
    browser.shot(folder / "mouth.png")
    browser.resize((390, 844), touch=True)
    _settled(browser)
    browser.shot(folder / "mouth-phone.png")
    browser.resize((1280, 800))


def _layering(browser: Browser, folder: Path) -> None:
    """A keyed presenter, and all of it on a phone."""
    browser.open("/")
    open_project(browser, "Paper layers")
    _stage(browser, "layer", 40)
    browser.press("layer-pip-green")
    browser.press("layer-part-key")
    browser.find('[data-test="screen"]')
    _settled(browser)
    browser.shot(folder / "layer.png")
    browser.press("layer-part-look")
    browser.resize((390, 844), touch=True)
    _settled(browser)
    browser.shot(folder / "layer-phone.png")
    browser.resize((1280, 800))


def _moving(browser: Browser, folder: Path) -> None:
    """A tag's turn as a graph, a kite's keys on a phone."""
    browser.open("/")
    open_project(browser, "Paper in the wind")
    browser.find(".clip")
    _stage(browser, "move", 60)
    take(browser, "Tag")
    browser.run(
        "const field = document.querySelector('[data-test=graph-property]');"
        "field.value = 'place/turn'; field.dispatchEvent(new Event('change'))"
    )
    browser.find('[data-test="graph-key-1"]')
    browser.press("take-all-keys")
    browser.press("key-lanes")
    _measured(browser)
    browser.shot(folder / "move.png")
    browser.press("key-lanes")
    go(browser, 107)
    take(browser, "Kite")
    browser.resize((390, 844), touch=True)
    browser.press("move-part-keys")
    _measured(browser)
    browser.shot(folder / "move-phone.png")
    browser.resize((1280, 800))


def _mixing(browser: Browser, folder: Path) -> None:
    """Strips while the voice speaks and the music has stepped back; the loudness of the film."""
    browser.open("/")
    open_project(browser, "Wind report")
    _stage(browser, "mix", 75)
    browser.wait(lambda: "–" not in browser.test("loudness-whole").text, what="no loudness")
    browser.wait(
        lambda: float(browser.test("meter").get_attribute("aria-valuenow") or -60) > -60,
        what="no level",
    )
    _settled(browser)
    browser.shot(folder / "mix.png")


def _grading(browser: Browser, folder: Path) -> None:
    """Two takes made to match, zones with a matte; the demo is put back as it was."""
    browser.open("/")
    open_project(browser, "Two cameras")
    browser.find(".clip")
    before = _saved(browser)
    _stage(browser, "grade", 30)
    take(browser, "card-log")
    browser.press("grade-more")
    browser.find("[data-test=coding] option[value=acescct]").click()
    _kept(browser, 3)
    browser.press("grade-balance")
    _set(browser, "Exposure", "0.35")
    _kept(browser, 4)
    browser.press("grade-looks")
    browser.press("look-two-papers")
    _kept(browser, 5)
    browser.press("grade-wheels")
    wheel = browser.find(".disc")
    for step, key, times in ((6, "ArrowRight", 18), (7, "ArrowDown", 9)):
        browser.run(
            "for (let n = 0; n < arguments[2]; n++) arguments[0].dispatchEvent("
            "new KeyboardEvent('keydown', {key: arguments[1], bubbles: true}));"
            "arguments[0].dispatchEvent(new KeyboardEvent('keyup', {bubbles: true}))",
            wheel,
            key,
            times,
        )
        _kept(browser, step)
    browser.shot(folder / "grade.png")
    browser.resize((390, 844), touch=True)
    browser.press("grade-balance")
    _measured(browser)
    browser.shot(folder / "grade-phone.png")
    browser.resize((1280, 800))
    while _saved(browser) != before:
        browser.press("undo")
        browser.wait(lambda: _saved(browser).startswith("saved"))


def open_project(browser: Browser, project: str) -> None:
    """Open a project from the list."""
    browser.find(".cover img")
    script = (
        "return [...document.querySelectorAll('.cover')]"
        ".find(one => one.parentElement.textContent.includes(arguments[0]))"
    )
    browser.wait(lambda: browser.run(script, project)).click()


def _saved(browser: Browser) -> str:
    return str(browser.run("return document.querySelector('.saved').textContent"))


def _kept(browser: Browser, step: int) -> None:
    """Wait until a step is on the server, and the picture after it on the screen."""
    browser.wait(lambda: _saved(browser) == f"saved · step {step}", what=f"step {step}")
    _measured(browser)


def _measured(browser: Browser) -> None:
    """Wait until no still is asked for any more."""
    browser.driver.set_script_timeout(20)
    browser.driver.execute_async_script(
        "const done = arguments[0]; let seen = -1; const look = () => {"
        "const now = performance.getEntriesByType('resource').length;"
        "if (now === seen) done(); else { seen = now; setTimeout(look, 700) } }; look()"
    )


def _set(browser: Browser, label: str, value: str) -> None:
    browser.run(
        "const field = document.querySelector(arguments[0]);"
        "field.value = arguments[1]; field.dispatchEvent(new Event('change'))",
        f'[aria-label="{label}, exact"]',
        value,
    )


def _key(browser: Browser, key: str) -> None:
    browser.run("document.activeElement.blur()")
    browser.run("window.dispatchEvent(new KeyboardEvent('keydown', {key: arguments[0]}))", key)


def _sending(browser: Browser, folder: Path) -> None:
    """What is said, the film weighed and looked over."""
    _stage(browser, "send", 40)
    browser.press("send-captions")
    browser.wait(lambda: "≈" in browser.test("cost").text, 120)
    browser.wait(lambda: "·" in browser.test("send-check").text, 120)
    _settled(browser)
    browser.shot(folder / "send.png")


def _stage(browser: Browser, name: str, frame: int) -> None:
    browser.press(f"stage-{name}")
    go(browser, frame)
    _settled(browser)


def go(browser: Browser, frame: int) -> None:
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


def take(browser: Browser, name: str) -> None:
    clip = browser.find(f'.clip[aria-label^="{name}"] .face')
    browser.run("arguments[0].scrollIntoView({block: 'center', inline: 'nearest'})", clip)
    clip.click()


def _settled(browser: Browser) -> None:
    """Wait until every shown picture has arrived and no note stands over one."""
    browser.wait(lambda: not browser.all(".notes .note"))
    browser.wait(
        lambda: browser.run(
            "return [...document.images].every(i => i.complete ? i.naturalWidth > 0 : "
            "i.getBoundingClientRect().top > innerHeight)"
        )
    )


if __name__ == "__main__":
    main()
