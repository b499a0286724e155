"""Three cameras and a recorder: gathered, lined up by sound, checked, switched, mended, sent."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path
from tempfile import TemporaryDirectory
from typing import Final

import numpy as np
from django.contrib.auth.models import User
from selenium.webdriver.common.action_chains import ActionChains

from browser_tests.site import SiteTest
from kitecore.document import Canvas, MulticamClip, empty_document
from kitecore.edits._files import files_of
from kitecore.media.tests.material import decoded, make_video, make_wav, numbered, read_number
from kitecore.sound.tests.test_alignment import RATE, part, spoken
from studio.library.arrival import new_take
from studio.library.models import Take
from studio.library.work import take_in
from studio.projects import history
from studio.projects.models import Project
from studio.tests.site import SECOND

SIZE: Final = (180, 320)
FRAME: Final = SECOND // 30
BEGINS: Final = {"near": 1.0, "wide": 0.5, "side": 1.4, "mic": 0.25}
"""Seconds of one scene at which each began."""
THOUSANDS: Final = {"near": 0, "wide": 1000, "side": 2000}
"""What the frames of a camera carry besides their number. The wide one hears half of what there is."""


class MulticamTest(SiteTest):
    def setUp(self) -> None:
        super().setUp()
        self.project = history.start_project(
            User.objects.get(), "Report", empty_document(Canvas(width=SIZE[0], height=SIZE[1]))
        )
        scene = spoken(31, 10)
        folder = Path(self.enterContext(TemporaryDirectory()))
        takes = []
        for number, (name, begin) in enumerate(BEGINS.items()):
            heard = part(scene, begin, 7) * (0.5 if name == "wide" else 1)
            path = folder / f"{name}.{'wav' if name == 'mic' else 'mp4'}"
            if name == "mic":
                make_wav(path, heard, RATE)
            else:
                make_video(
                    path,
                    frames=210,
                    size=SIZE,
                    sound=np.repeat(heard, 48_000 // RATE),
                    options={"preset": "ultrafast", "crf": "20"},
                    draw=lambda at, by=THOUSANDS[name]: numbered(at + by, SIZE, "yuv420p"),
                )
            takes.append(new_take(self.project, path.name, path, number))
            take_in(takes[-1])
        for take in takes:
            self.browser.wait(lambda take=take: self._ready(take), what=f"{take.name} is not ready")
        self.browser.open(f"/projects/{self.project.id}/gather")

    def _ready(self, take: Take) -> bool:
        take.refresh_from_db()
        return take.state == Take.State.READY

    def clip(self) -> MulticamClip | None:
        document = history.document_at(
            history.head_of(Project.objects.select_related("head").get())
        )
        found = (clip for _, clip in document.clips() if isinstance(clip, MulticamClip))
        return next(found, None)

    def places(self) -> dict[str, float]:
        """Seconds at which each file lies, beside the first."""
        clip = self.clip()
        assert clip is not None
        files = [files_of(clip.angle(index))[0] for index in range(len(clip.tracks))]
        return {one.clip.name: (one.at - files[0].at) / SECOND for one in files}

    def until(self, condition: object, what: str) -> None:
        self.browser.wait(condition, what=what)  # type: ignore[arg-type]

    def test_from_four_takes_to_a_switched_film(self) -> None:
        page = self.browser
        page.press("several-takes")
        for name in BEGINS:
            page.find(f".grid [data-take^='{name}']").click()
        page.press("place-angles")
        self.until(lambda: self.clip() is not None, "no clip of angles came")

        # Lined up by sound: each says how surely, and lies where it was recorded.
        page.press("stage-cut")
        page.press("part-line-up")
        page.press("line-up")
        self.until(lambda: self.places()["mic"] != 0, "nothing was lined up")
        for name, begin in BEGINS.items():
            self.assertAlmostEqual(begin - BEGINS["near"], self.places()[name], delta=0.001)
        page.wait(lambda: "% sure" in page.test("sure-1").text, what="how surely is not told")

        # Two beside each other, one nudged by a frame and back.
        page.press("check-angles")
        page.test("wall-1")
        before = self.places()["wide"]
        page.press("nudge-angle1")
        self.until(lambda: self.places()["wide"] > before, "no angle was nudged")
        page.press("nudge-angle-1")
        self.until(lambda: abs(self.places()["wide"] - before) < 1e-6, "it did not come back")
        page.press("nudge-sample1")
        later = before + 1 / 48_000
        self.until(lambda: abs(self.places()["wide"] - later) < 1e-7, "not a sample later")
        page.press("nudge-sample-1")
        self.until(lambda: abs(self.places()["wide"] - before) < 1e-7, "not a sample earlier")
        self._by_claps(before)

        # The recorder is heard under all; switched by digits while it plays, and by tap.
        page.press("part-switch")
        main = page.test("main-sound")
        main.find_element("css selector", "option[value='3']").click()
        self.until(lambda: self.clip().hears == (3, 3, 3, 3), "the recorder is not heard")
        page.press("level-angles")
        self.until(lambda: self.gains()[1] > 0, "no level was matched")
        near, wide, _, mic = self.gains()
        self.assertAlmostEqual(6, wide - near, delta=0.5)
        self.assertEqual(0, mic)
        page.run("document.activeElement.blur()")
        page.press("play")
        self.until(lambda: page.frame() > 35, "it does not play")
        self.tap_and_play_on(lambda: ActionChains(page.driver).send_keys("2").perform())
        self.tap_and_play_on(page.find("[data-test=wall-2]").click)
        self.assertEqual(1, len(self.clip().switches), "taps land at the pause")
        page.press("play")
        self.until(lambda: len(self.clip().switches) >= 3, "the taps did not land")

        # A switch is rolled, another angle shown, a dissolve put at one.
        last = self.clip().switches[2].at
        page.find(f"[data-switch='{last}']")
        page.find("[aria-label='Switch before']").click()
        page.press("roll-switch-10")
        self.until(lambda: self.clip().switches[2].at == last - 10 * FRAME, "nothing rolled")
        first = self.clip().switches[1].at
        handle = page.find(f"[data-switch='{first}']")
        ActionChains(page.driver).drag_and_drop_by_offset(handle, -25, 0).perform()
        self.until(lambda: self.clip().switches[1].at < first, "nothing was rolled by its handle")
        page.press("transition-dissolve")
        self.until(lambda: any(one.transition for one in self.clip().switches), "no dissolve came")
        self.assert_clean_console()
        self.assertEqual(self.expected(), self.shown(self.exported()))

    def _by_claps(self, before: float) -> None:
        """Two frames apart they are said to clap: one is moved onto the other, and back."""
        page = self.browser
        page.press("clap-here")
        begin = page.frame()
        page.press("row-0")
        for frame in (1, 2):
            page.press("step-forward")
            self.until(lambda frame=frame: page.frame() == begin + frame, "it did not step")
        page.press("clap-here")
        page.press("row-1")
        script = (
            "return [...document.querySelectorAll('[data-test=clap-frames] img')]"
            ".filter((one) => one.complete && one.naturalWidth).length"
        )
        self.until(lambda: page.run(script) == 2, "the claps are not seen side by side")
        page.press("claps-together")
        self.until(lambda: abs(self.places()["wide"] - before - 2 / 30) < 1e-3, "not together")
        page.press("to-clap")
        self.until(lambda: page.frame() == begin + 2, "its clap was not gone to")
        page.press("undo")
        self.until(lambda: abs(self.places()["wide"] - before) < 1e-6, "it did not come back")

    def tap_and_play_on(self, tap: Callable[[], None]) -> None:
        """The next tap is then far enough behind this one for either to be rolled."""
        tap()
        tapped = self.browser.frame()
        self.until(lambda: self.browser.frame() > tapped + 25, "it does not play on")

    def gains(self) -> list[float]:
        clip = self.clip()
        return [clip.angle(index).gain for index in range(4)]  # type: ignore[union-attr, misc]

    def expected(self) -> dict[int, int]:
        """The number of each frame of the film that no dissolve covers."""
        clip = self.clip()
        assert clip is not None
        files = [files_of(clip.angle(index))[0] for index in range(3)]
        found = {}
        for frame in range(clip.length // FRAME):
            inner = clip.source_in + frame * FRAME
            crossed = any(
                one.transition and abs(inner - one.at) <= one.transition.half + FRAME
                for one in clip.switches
            )
            file = files[clip.angle_at(inner)]
            # A sound that lies a hair beside a frame does not show the one before.
            own = (inner - file.at + SECOND // 100_000) // FRAME
            inside = 0 <= inner - file.at < file.clip.source_length - FRAME
            if inside and not crossed:
                found[frame] = own + THOUSANDS[file.clip.name]
        return found

    def shown(self, film: Path) -> dict[int, int]:
        wanted = self.expected()
        frames = decoded(film)
        return {at: read_number(frame) for at, frame in enumerate(frames) if at in wanted}
