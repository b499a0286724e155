"""Captions on the phone: a file opened, timed and mended, looked at, written, and left out."""

from __future__ import annotations

import av
import numpy as np
from django.contrib.auth.models import User
from selenium.webdriver.common.action_chains import ActionChains

from browser_tests.site import SiteTest
from kitecore.document import Canvas, TextClip, empty_document
from kitecore.edits import edit_kinds
from kitecore.exchange.captions import read_captions
from kitecore.media.tests.material import decoded
from studio.exports.models import Export
from studio.projects import history
from studio.projects.models import Project
from studio.tests.site import SECOND

SRT = """1
00:00:00,500 --> 00:00:01,500
Paper weather today:

2
00:00:01,500 --> 00:00:03,500
four folds up and wind from the left
"""


class CaptionsTest(SiteTest):
    size = (390, 844)
    touch = True

    def told(self) -> list[tuple[float, float, str]]:
        document = history.document_at(
            history.head_of(Project.objects.select_related("head").get())
        )
        return [
            (round(clip.start / SECOND, 2), round(clip.end / SECOND, 2), clip.text)
            for track in document.tracks
            for clip in track.clips
            if track.captions and isinstance(clip, TextClip)
        ]

    def test_from_a_file_to_a_film_with_and_without(self) -> None:
        canvas = Canvas(width=360, height=640)
        project = history.start_project(User.objects.get(), "Report", empty_document(canvas))
        clip = {"kind": "solid", "name": "s", "length": 4 * SECOND}
        place = edit_kinds["place"](clip=clip)  # type: ignore[call-arg]
        history.apply_edit(project, project.head_id, place)
        page = self.browser
        page.open(f"/projects/{project.id}/send")
        page.press("send-captions")
        path = page.folder / "report.srt"
        path.write_text(SRT)
        page.wait(lambda: page.all("[data-test=captions-file]"))[0].send_keys(str(path))
        page.wait(lambda: len(page.all("[data-test=caption]")) == 2, what="no captions came")
        self.assertEqual((0.5, 1.5, "Paper weather today:"), self.told()[0])

        # One is split, put together again, and said otherwise.
        page.all("[data-test=caption] .when")[1].click()
        page.press("split-caption")
        page.wait(lambda: len(self.told()) == 3, what="nothing was split")
        page.wait(lambda: len(page.all("[data-test=caption]")) == 3)
        page.press("merge-captions")
        page.wait(lambda: len(self.told()) == 2, what="nothing was merged")
        self.assertEqual("four folds up and wind from the left", self.told()[1][2])

        # Timed by its key, as by a tap: the first begins three frames later, where the playhead is.
        page.all("[data-test=caption] .when")[0].click()
        for frame in range(page.frame() + 1, page.frame() + 4):
            page.press("step-forward")
            page.drawn(frame)
        page.run("document.activeElement.blur()")
        ActionChains(page.driver).send_keys("w").perform()
        page.wait(lambda: self.told()[0][0] == 0.6, what="the key did not time it")
        written = page.fetched(page.test("captions-vtt").get_attribute("href") or "")
        self.assertTrue(written.startswith(b"WEBVTT"))
        self.assertEqual(2, len(read_captions(written).cues))

        # Each word lights up while it is said.
        page.find("[data-test=caption].taken .when").click()
        page.press("light-words")
        page.wait(lambda: page.all("[data-test=light-stays]"), what="nothing is lit")

        # Seen in the picture, then a track of the file.
        page.press("part-left")
        page.press("export")
        page.find("[data-film=done]", 60)
        page.press("send-file")
        page.press("control-Captions")
        page.press("captions-track")
        page.press("part-left")
        page.press("export")
        page.wait(lambda: Export.objects.filter(job__state="done").count() == 2, 60)
        first, second = Export.objects.order_by("made_at")
        self.assert_words_are_lit(first)
        self.assertGreater(self.brightest(first), 150)
        self.assertLess(self.brightest(second), 150)
        with av.open(str(second.path)) as film:
            self.assertEqual(
                ["mov_text"], [one.codec_context.name for one in film.streams.subtitles]
            )
        self.assert_clean_console()

    def assert_words_are_lit(self, export: Export) -> None:
        """In the colour of the lamp, each farther right than the word before, or on the next line."""
        frames = decoded(export.path)
        rows, columns = [], []
        for number in (20, 30, 40):
            part = frames[number][300:].astype(int)
            lit = (part[..., 0] > 200) & (part[..., 2] < 130)
            self.assertGreater(lit.sum(), 30, number)
            rows.append(np.nonzero(lit)[0].mean())
            columns.append(np.nonzero(lit)[1].mean())
        for before, after in ((0, 1), (1, 2)):
            onwards = columns[after] > columns[before] + 10 or rows[after] > rows[before] + 10
            self.assertTrue(onwards, (rows, columns))

    def brightest(self, export: Export) -> int:
        """Of the lower part of the picture after a second."""
        with av.open(str(export.path)) as film:
            frames = [frame.to_ndarray(format="gray") for frame in film.decode(video=0)]
        return int(np.max(frames[30][400:]))
