"""The page once it is installed: without a line, with a newer version, with files shared to it."""

from __future__ import annotations

import base64

from django.contrib.auth.models import User

from browser_tests.cable import Cable
from browser_tests.site import SiteTest
from kitecore.document import empty_document
from kitecore.edits import apply, edit_kinds
from studio.projects import history

_SHARE = """
const done = arguments[arguments.length - 1];
const bytes = Uint8Array.from(atob(arguments[0]), (letter) => letter.charCodeAt(0));
const form = new FormData();
form.append('files', new File([bytes], 'paper bird.png', {type: 'image/png'}));
fetch('/share', {method: 'POST', body: form, redirect: 'manual'}).then(() => done(true), () => done(false));
"""
_KNOWN = """
const done = arguments[arguments.length - 1];
caches.open('velvet-kite-known').then((cache) => cache.keys())
  .then((keys) => done(keys.map((key) => new URL(key.url).pathname)));
"""
PIXEL = base64.b64encode(
    base64.b64decode(
        "iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg=="
    )
).decode()


class InstalledCase(SiteTest):
    def setUp(self) -> None:
        super().setUp()
        self.cable = Cable(self.host, self.server_thread.port)
        self.addCleanup(self.cable.cut)
        self.browser.base = self.cable.base
        self.browser.sign_in("pip", "a-long-one-7")
        owner = User.objects.get(username="pip")
        document = apply(empty_document(), edit_kinds["add_layer"](seed="s", layer="star", at=0))
        self.project = history.start_project(owner, "Seen before", document)
        self.browser.driver.execute_async_script(
            "navigator.serviceWorker.ready.then(() => arguments[arguments.length - 1](true))"
        )
        self.browser.driver.refresh()
        controlled = "return Boolean(navigator.serviceWorker.controller)"
        self.browser.wait(lambda: self.browser.run(controlled), what="no service worker")

    def _known(self) -> list[str]:
        paths: list[str] = self.browser.driver.execute_async_script(_KNOWN)
        return paths


class InstalledTest(InstalledCase):
    def test_it_can_be_installed(self) -> None:
        told = self.browser.driver.execute_cdp_cmd("Page.getAppManifest", {})
        self.assertEqual([], told["errors"])
        self.assertIn('"share_target"', told["data"])
        found = self.browser.driver.execute_cdp_cmd("Page.getInstallabilityErrors", {})
        self.assertEqual([], found["installabilityErrors"])

    def test_shared_files_are_brought_in_by_the_next_project(self) -> None:
        browser = self.browser
        self.assertTrue(browser.driver.execute_async_script(_SHARE, PIXEL))
        browser.open("/")
        self.assertIn("1 file", browser.test("shared").text)
        browser.open(f"/projects/{self.project.id}/gather")
        browser.find('[data-take^="paper bird"]')
        browser.open("/")
        browser.find(".content")
        self.assertEqual([], browser.all("[data-test=shared]"))

    def test_signing_out_leaves_nothing_on_the_device(self) -> None:
        self.browser.open("/")
        self.browser.wait(lambda: "/api/projects" in self._known())
        self.browser.press("sign-out")
        self.browser.find("#name")
        self.assertNotIn("/api/projects", self._known())


class OfflineTest(InstalledCase):
    def test_what_was_seen_opens_without_a_line(self) -> None:
        browser, path = self.browser, f"/projects/{self.project.id}/cut"
        browser.open(path)
        browser.find("[data-clip]")
        browser.wait(lambda: f"/api/projects/{self.project.id}" in self._known())
        self.cable.cut()
        browser.open(path)
        browser.find("[data-clip]")
        browser.wait(lambda: "offline" in browser.test("saving").text, what="nothing said")
