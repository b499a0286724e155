"""Three files from one look at the film, on the phone: weighed, made, put in order, read again."""

from __future__ import annotations

import io
import wave

from django.contrib.auth.models import User
from PIL import Image
from pymediainfo import MediaInfo

from browser_tests.site import SiteTest
from kitecore.document import Canvas, empty_document
from kitecore.edits import edit_kinds
from studio.exports.models import Export
from studio.kit.models import Preset
from studio.library.models import Take
from studio.projects import history
from studio.tests.site import SECOND

PHONE = (390, 844)


class SendingTest(SiteTest):
    size = PHONE
    touch = True

    def setUp(self) -> None:
        super().setUp()
        canvas = Canvas(width=360, height=640)
        self.project = history.start_project(
            User.objects.get(), "Wind report", empty_document(canvas)
        )

    def open(self, seconds: int) -> None:
        clip = {"kind": "solid", "name": "s", "length": seconds * SECOND}
        place = edit_kinds["place"](clip=clip)  # type: ignore[call-arg]
        history.apply_edit(self.project, self.project.head_id, place)
        self.browser.open(f"/projects/{self.project.id}/send")

    def test_three_files_from_one_look(self) -> None:
        self.open(seconds=4)
        page = self.browser
        page.press("control-Several")
        page.find("[data-test=several-places] + label").click()
        page.press("control-Place")
        page.press("destination-message")
        page.press("destination-sound")
        page.wait(lambda: "MB" in page.test("cost").text or "kB" in page.test("cost").text, 60)
        foretold = page.test("cost").text
        page.press("send-file")
        page.press("control-Range")
        page.press("end-here")
        page.press("all-of-it")
        page.press("part-left")
        page.press("export")
        page.wait(lambda: len(page.all("[data-film=done]")) == 3, 120, "three files are not made")
        self.assertIn("≈", foretold)
        self._check()

    def test_a_place_of_ones_own_is_kept_checked_used_and_taken_out(self) -> None:
        self.open(seconds=2)
        page = self.browser
        page.press("destination-message")
        page.press("send-file")
        page.press("control-Kit")
        page.press("keep-place")
        page.dialog()
        page.type("[data-test=new-name]", "The wall")
        page.confirm()
        page.wait(lambda: Preset.objects.count() == 1, what="it is not kept")
        card = f"destination-own-{Preset.objects.get().pk}"
        page.press("part-left")
        page.wait(lambda: page.test(card).get_attribute("aria-pressed") == "true")
        self.assertIn("The wall", page.test(card).text)
        page.press("send-check")
        page.find("[data-test=finding], [data-test=all-well]")
        page.press("part-left")
        page.press("export")
        page.find("[data-film=done]", 120)
        self.assertEqual("gif", Export.objects.get().wanted.format)
        page.press("send-file")
        page.press("control-Kit")
        page.press("remove-place")
        page.wait(lambda: not Preset.objects.exists(), what="it is still in the Kit")
        page.press("part-left")
        page.wait(lambda: not page.all(f"[data-test={card}]"), what="its card is still there")
        self.assertEqual("true", page.test("destination-message").get_attribute("aria-pressed"))
        self.assert_clean_console()

    def _check(self) -> None:
        files = {one.wanted.format: one for one in Export.objects.all()}
        film = next(t for t in MediaInfo.parse(files["mp4"].path).tracks if t.track_type == "Video")
        self.assertEqual((360, 640, "120"), (film.width, film.height, film.frame_count))
        with Image.open(files["gif"].path) as moving:
            self.assertEqual((50, (270, 480)), (moving.n_frames, moving.size))
        with wave.open(io.BytesIO(files["wav"].path.read_bytes())) as sound:
            self.assertEqual((4 * 48_000, 2), (sound.getnframes(), sound.getnchannels()))

    def test_a_film_waits_goes_on_and_becomes_a_take(self) -> None:
        self.open(seconds=120)
        page = self.browser
        page.press("export")
        page.press("pause-film")
        page.find("[data-test=go-on]")
        self.assertTrue(Export.objects.get().job.paused)
        page.press("go-on")
        page.find("[data-film=done]", 120)
        page.press("to-library")
        page.wait(lambda: Take.objects.filter(name="Wind report.mp4").exists(), 30)
        self.assert_clean_console()
