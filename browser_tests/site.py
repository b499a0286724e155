"""The whole site for a test: live server, worker, browser."""

from __future__ import annotations

import tempfile
from pathlib import Path
from threading import Thread
from typing import Any

from django.contrib.auth.models import User
from django.contrib.staticfiles.testing import StaticLiveServerTestCase
from huey.contrib.djhuey import HUEY

from browser_tests.browser import Browser
from studio.jobs.events import watch
from studio.library.arrival import new_take
from studio.library.models import Take
from studio.library.work import take_in
from studio.projects.models import Project


class SiteTest(StaticLiveServerTestCase):
    """Each test has a fresh person, signed in, and a worker that does what the site hands out."""

    size = (1280, 800)
    touch = False

    @classmethod
    def setUpClass(cls) -> None:
        super().setUpClass()
        HUEY.storage.flush_queue()
        cls.consumer = HUEY.create_consumer(
            workers=2, worker_type="thread", initial_delay=0.05, max_delay=0.2, periodic=False
        )
        Thread(target=_consume, args=(cls.consumer,), daemon=True).start()

    @classmethod
    def tearDownClass(cls) -> None:
        cls.consumer.stop(graceful=True)
        watch.close()
        super().tearDownClass()

    def setUp(self) -> None:
        User.objects.create_user("pip", password="a-long-one-7")
        self.browser = Browser(self.live_server_url, self.size, self.touch)
        self.addCleanup(self.browser.close)
        self.browser.sign_in("pip", "a-long-one-7")

    def brought_in(self, project: Project, path: Path) -> Take:
        """A file as a take of a project, ready."""
        take = new_take(project, path.name, path, 0)
        take_in(take)

        def ready() -> bool:
            take.refresh_from_db()
            return take.state == Take.State.READY

        self.browser.wait(ready, what="the take is not ready")
        return take

    def exported(self) -> Path:
        """The film of the open project, made on the Send bench as it is set, and fetched."""
        browser = self.browser
        browser.press("stage-send")
        browser.press("export")
        link = browser.find(".film a[download]", seconds=300).get_attribute("href")
        path = Path(tempfile.mkdtemp(dir=browser.folder)) / "film.mp4"
        path.write_bytes(browser.fetched(link or ""))
        return path

    def assert_clean_console(self) -> None:
        self.assertEqual([], self.browser.problems())


def _consume(consumer: Any) -> None:
    consumer._set_signal_handlers = lambda: None
    consumer.run()
