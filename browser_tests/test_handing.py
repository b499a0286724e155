"""A project packed on the phone and opened by somebody else; a timeline out and in again."""

from __future__ import annotations

import tempfile
from pathlib import Path

import opentimelineio as otio
from django.contrib.auth.models import User

from browser_tests.site import SiteTest
from kitecore.document import Canvas, empty_document
from kitecore.media.tests.material import make_video, tone
from studio.library.models import Take
from studio.projects import history
from studio.projects.models import Project
from studio.tests.site import SECOND


class HandingTest(SiteTest):
    size = (390, 844)
    touch = True

    def setUp(self) -> None:
        super().setUp()
        canvas = Canvas(width=360, height=640)
        owner = User.objects.get()
        self.project = history.start_project(owner, "Wind report", empty_document(canvas))
        self.folder = Path(self.enterContext(tempfile.TemporaryDirectory()))
        film = make_video(self.folder / "wind.mp4", frames=60, size=(180, 320), sound=tone(2.0))
        take = self.brought_in(self.project, film)
        self.browser.open(f"/projects/{self.project.id}/gather")
        self.browser.find(f"[data-take='{take.name}']").click()
        self.browser.press("place-end")
        self.browser.wait(lambda: self.document().main.clips)

    def document(self, project: Project | None = None) -> object:
        project = project or self.project
        project.refresh_from_db()
        return history.document_at(history.head_of(project))

    def fetched(self, test: str, name: str) -> Path:
        path = self.folder / name
        link = self.browser.test(test, 60).get_attribute("href") or ""
        path.write_bytes(self.browser.fetched(link))
        return path

    def test_a_project_is_opened_by_somebody_else(self) -> None:
        page = self.browser
        page.press("stage-send")
        page.press("send-hand-over")
        page.press("control-Project")
        page.press("pack")
        archive = self.fetched("archive-out", "kites.otioz")
        User.objects.create_user("wren", password="a-long-one-8")
        page.sign_out()
        page.sign_in("wren", "a-long-one-8")
        page.test("open-archive")
        page.all("[data-test=archive-file]")[0].send_keys(str(archive))
        page.wait(lambda: Project.objects.filter(owner__username="wren", name="Wind report"), 60)
        theirs = Project.objects.get(owner__username="wren")
        [clip] = self.document(theirs).main.clips
        original = Take.objects.get(pk=clip.media).folder.original
        self.assertEqual((self.folder / "wind.mp4").read_bytes(), original.read_bytes())
        page.press("stage-cut")
        page.find("[data-clip]", 30)
        self.assert_clean_console()

    def test_a_timeline_goes_out_is_changed_and_comes_back(self) -> None:
        page = self.browser
        page.press("stage-send")
        page.press("send-hand-over")
        path = self.fetched("timeline-out", "wind.otio")
        timeline = otio.adapters.read_from_file(str(path))
        span = otio.opentime.TimeRange(
            otio.opentime.RationalTime(0, 30), otio.opentime.RationalTime(15, 30)
        )
        lost = otio.schema.Clip("lost", otio.schema.ExternalReference("lost.mov"), span)
        timeline.tracks[0].insert(0, lost)
        otio.adapters.write_to_file(timeline, str(path))
        page.all("[data-test=timeline-file]")[0].send_keys(str(path))
        page.dialog()
        self.assertEqual("lost.mov", page.test("missing-takes").text)
        page.confirm()
        page.wait(lambda: len(self.document().main.clips) == 2, what="it was not taken over")
        first, second = self.document().main.clips
        self.assertEqual(
            ("solid", SECOND // 2, SECOND // 2), (first.kind, first.length, second.start)
        )
        self.assertEqual("video", second.kind)
        page.press("undo")
        page.wait(lambda: len(self.document().main.clips) == 1, what="it was not taken back")
        self.assert_clean_console()

    def test_a_film_is_made_of_other_takes(self) -> None:
        page = self.browser
        film = make_video(self.folder / "rain.mp4", frames=30, size=(180, 320), sound=tone(1.0))
        other = self.brought_in(self.project, film)
        before = self.document().main.clips[0]
        page.open(f"/projects/{self.project.id}/send")
        page.press("send-hand-over")
        page.press("control-Template")
        page.press("exchange")
        page.dialog()
        choice = page.find("[data-test='exchange-wind.mp4']")
        choice.find_element("css selector", f"option[value='{other.id}']").click()
        page.confirm()
        page.wait(lambda: self.document().main.clips[0].media == other.id.hex, what="not exchanged")
        after = self.document().main.clips[0]
        # Half as long as what it stands for: it runs at half the speed.
        self.assertEqual(before.length, after.length)
        self.assertAlmostEqual(0.5, after.speed.constant, delta=0.001)
        self.assert_clean_console()
