"""A headless Chromium that uses the application as a person would."""

from __future__ import annotations

import shutil
import tempfile
from collections.abc import Callable
from pathlib import Path
from typing import Any, Final

from selenium import webdriver
from selenium.webdriver.common.by import By
from selenium.webdriver.remote.webelement import WebElement
from selenium.webdriver.support.ui import WebDriverWait

FLAGS = (
    "--headless=new",
    "--no-sandbox",
    "--disable-gpu",
    "--disable-dev-shm-usage",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
    "--autoplay-policy=no-user-gesture-required",
    "--force-color-profile=srgb",
    "--hide-scrollbars",
)


PATIENCE: Final = 60.0
"""Seconds for which anything is waited for: on a busy machine all takes its time."""


class Browser:
    """One window. Waits for what it looks for; never sleeps a fixed time.

    Parameters
    ----------
    base
        Address of the running site, without a slash at the end.
    size
        Of the page in CSS pixels.
    touch
        Behave like a phone: coarse pointer, touch events.
    """

    def __init__(self, base: str, size: tuple[int, int] = (1280, 800), touch: bool = False) -> None:
        self.base = base
        self.folder = Path(tempfile.mkdtemp(prefix="velvet-kite-browser-"))
        self.downloads = self.folder / "downloads"
        self.downloads.mkdir()
        options = webdriver.ChromeOptions()
        options.binary_location = shutil.which("chromium") or ""
        for flag in (*FLAGS, f"--user-data-dir={self.folder / 'profile'}"):
            options.add_argument(flag)
        options.add_experimental_option(
            "prefs", {"download.default_directory": str(self.downloads)}
        )
        options.set_capability("goog:loggingPrefs", {"browser": "ALL"})
        service = webdriver.ChromeService(shutil.which("chromedriver") or "chromedriver")
        self.driver = webdriver.Chrome(options, service)
        self.resize(size, touch)

    def resize(self, size: tuple[int, int], touch: bool = False) -> None:
        self.driver.execute_cdp_cmd(
            "Emulation.setDeviceMetricsOverride",
            {"width": size[0], "height": size[1], "deviceScaleFactor": 1, "mobile": touch},
        )
        self.driver.execute_cdp_cmd("Emulation.setTouchEmulationEnabled", {"enabled": touch})

    def open(self, path: str) -> None:
        self.driver.get(self.base + path)

    def wait(self, condition: Callable[[], Any], seconds: float = PATIENCE, what: str = "") -> Any:
        """The first true value of ``condition``."""

        def look(driver: object) -> Any:
            try:
                return condition()
            except Exception as error:
                if "stale element" in str(error) or "no such element" in str(error):
                    return False
                raise

        return WebDriverWait(self.driver, seconds, poll_frequency=0.05).until(look, what)

    def find(self, selector: str, seconds: float = PATIENCE) -> WebElement:
        """The first shown element that fits a CSS selector."""

        element: WebElement = self.wait(
            lambda: self._shown(selector), seconds, f"nothing shown for {selector}"
        )
        return element

    def _shown(self, selector: str) -> WebElement | None:
        return next((one for one in self.all(selector) if one.is_displayed()), None)

    def all(self, selector: str) -> list[WebElement]:
        return self.driver.find_elements(By.CSS_SELECTOR, selector)

    def test(self, name: str, seconds: float = PATIENCE) -> WebElement:
        """The element marked with ``data-test``."""
        return self.find(f'[data-test="{name}"]', seconds)

    def press(self, name: str) -> None:
        """Click a marked element as soon as it can be clicked."""

        def click() -> bool:
            element = self._shown(f'[data-test="{name}"]')
            if element is None or not element.is_enabled():
                return False
            element.click()
            return True

        self.wait(click, what=f"{name} could not be pressed")

    def type(self, selector: str, text: str) -> None:
        """Type into a field until it holds the text: a dialog that is opening may take the focus."""

        def typed() -> bool:
            field = self.find(selector)
            if field.get_attribute("value") != text:
                field.clear()
                field.send_keys(text)
            return field.get_attribute("value") == text

        self.wait(typed, what=f"{selector} did not take {text!r}")

    def dialog(self) -> WebElement:
        """The dialog, once it stands still and has taken the focus; a press before that may miss."""
        self.wait(
            lambda: self.run(
                "const dialog = document.querySelector('.modal.show');"
                "return dialog?.contains(document.activeElement)"
                " && dialog.getAnimations({subtree: true}).every("
                "(one) => one.effect.getComputedTiming().iterations === Infinity)"
            ),
            what="no dialog stands",
        )
        return self.find(".modal.show")

    def confirm(self) -> None:
        """Press what a dialog offers first."""
        self.dialog().find_element(By.CSS_SELECTOR, ".btn-primary").click()

    def run(self, script: str, *arguments: Any) -> Any:
        return self.driver.execute_script(script, *arguments)

    def sign_in(self, name: str, password: str) -> None:
        self.open("/sign-in")
        self.type("#name", name)
        self.type("#password", password)
        self.find("button[type=submit]").click()
        self.find(".content")

    def sign_out(self) -> None:
        """Leave the page, then forget who was signed in: what it still asks would be refused."""
        self.driver.get("about:blank")
        self.driver.execute_cdp_cmd("Network.clearBrowserCookies", {})

    def frame(self) -> int:
        """Number of the frame at the playhead."""
        return int(self.test("clock").get_attribute("data-frame") or -1)

    def drawn(self, frame: int) -> None:
        """Wait until the still of a frame is on the screen."""
        self.wait(
            lambda: self.test("still").get_attribute("data-frame") == str(frame),
            what=f"the still of frame {frame} never came",
        )

    def fetched(self, address: str) -> bytes:
        """What lies at an address, as the signed-in person gets it."""
        return bytes(
            self.driver.execute_async_script(
                "const done = arguments[1]; fetch(arguments[0]).then(a => a.arrayBuffer())"
                ".then(b => done(Array.from(new Uint8Array(b))))",
                address,
            )
        )

    def problems(self) -> list[str]:
        """What the page's console holds of errors.

        That a network of the machine came or went while a request was under way is none: the page
        asks again.
        """
        entries = self.driver.get_log("browser")
        severe = [e["message"] for e in entries if e["level"] == "SEVERE"]
        changed = any("ERR_NETWORK_CHANGED" in one for one in severe)
        # What the page asks through its service worker has failed then, without a reason.
        passing = ("ERR_NETWORK_CHANGED", "ERR_FAILED") if changed else ()
        return [one for one in severe if not any(word in one for word in passing)]

    def shot(self, path: Path) -> None:
        path.parent.mkdir(parents=True, exist_ok=True)
        self.driver.save_screenshot(str(path))

    def close(self) -> None:
        self.driver.quit()
        shutil.rmtree(self.folder, ignore_errors=True)
