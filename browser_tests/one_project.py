"""A project of this person's, changed from beside the page, and read as the page has changed it."""

from __future__ import annotations

from typing import Any

from django.contrib.auth.models import User
from selenium.webdriver.common.action_chains import ActionChains

from browser_tests.site import SiteTest
from kitecore.arrays import Size
from kitecore.document import Canvas, Document, empty_document
from kitecore.edits.tests.populated import edit
from studio.projects import history
from studio.projects.models import Project


class OneProjectTest(SiteTest):
    project: Project

    def begin(self, name: str, size: Size) -> None:
        document = empty_document(Canvas(width=size[0], height=size[1]))
        self.project = history.start_project(User.objects.get(), name, document)

    def step(self, **fields: Any) -> None:
        self.project.refresh_from_db()
        history.apply_edit(self.project, self.project.head_id, edit(**fields))

    def document(self) -> Document:
        project = Project.objects.select_related("head").get(pk=self.project.pk)
        return history.document_at(history.head_of(project))

    def found(self, name: str) -> Any:
        """The clip of a name, if there is one."""
        return next((clip for _, clip in self.document().clips() if clip.name == name), None)

    def until(self, condition: Any, what: str) -> None:
        self.browser.wait(condition, what=what)

    def take(self, name: str) -> None:
        """Take a clip in hand."""
        self.browser.find(f'.clip[aria-label^="{name}"] .face').click()
        self.until(
            lambda: self.browser.test("in-hand").text.strip() == name, f"{name} is not in hand"
        )

    def go(self, frame: int) -> None:
        by = frame - self.browser.frame()
        script = (
            "document.activeElement.blur(); for (let n = 0; n < Math.abs(arguments[0]); n++)"
            "window.dispatchEvent(new KeyboardEvent('keydown',"
            "{key: arguments[0] > 0 ? 'ArrowRight' : 'ArrowLeft'}))"
        )
        self.browser.run(script, by)
        self.browser.drawn(frame)

    def drag(self, name: str, *way: tuple[int, int]) -> None:
        """Press on a marked element's middle and go along shifts in pixels of the page."""
        chain = ActionChains(self.browser.driver, duration=30)
        chain.move_to_element(self.browser.test(name)).click_and_hold()
        for x, y in way:
            chain.move_by_offset(x, y)
        chain.release().perform()
