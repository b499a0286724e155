"""On a phone: a mouth is drawn, or made of pictures, led by a voice, mended by taps; the film shows it speak."""

from __future__ import annotations

from pathlib import Path
from tempfile import TemporaryDirectory
from typing import Final

import av
import numpy as np
from numpy.typing import NDArray
from PIL import Image
from selenium.webdriver.support.select import Select

from browser_tests.one_take import OneTakeTest
from kitecore.document import MouthClip, Turn
from kitecore.media.tests.material import decoded, make_video, make_wav
from kitecore.speech.reading import Reading, read
from studio.projects.models import Project
from studio.tests.site import SECOND

SIZE = (270, 480)
FRAMES = 90
LINE = "My mum opens a map. Five thin shoes."
LATE = 0.4
"""Seconds of silence before the line."""


def sheet(number: int) -> av.VideoFrame:
    return av.VideoFrame.from_ndarray(np.full((SIZE[1], SIZE[0], 3), 200, np.uint8), format="rgb24")


def recorded(reading: Reading) -> NDArray[np.float64]:
    seconds = np.arange(round(FRAMES / 30 * 48_000)) / 48_000 - LATE
    known = np.arange(len(reading.sound)) / reading.rate
    return 0.5 * np.interp(seconds, known, reading.sound, left=0, right=0)


class SpokenTest(OneTakeTest):
    """With a line that somebody says."""

    shape = SIZE
    frames = FRAMES

    def made(self, folder: Path) -> Path:
        return make_video(folder / "sheet.mp4", frames=FRAMES, size=SIZE, draw=sheet)

    def setUp(self) -> None:
        super().setUp()
        self.reading = read(LINE, "en+f3")
        folder = Path(self.enterContext(TemporaryDirectory()))
        make_wav(folder / "line.wav", recorded(self.reading))
        take = self.brought_in(Project.objects.get(), folder / "line.wav")
        length = FRAMES * SECOND // 30
        clip = {"kind": "sound", "media": take.id.hex, "name": "line", "length": length}
        self.do(kind="place", clip=clip | {"source_length": length}, mode="above", at=0)
        self.browser.driver.refresh()

    @property
    def mouth(self) -> MouthClip:
        return next(one for one in self.others() if isinstance(one, MouthClip))

    def turns(self) -> tuple[Turn, ...]:
        return self.mouth.turns

    def lead(self, words: str = "") -> None:
        page = self.browser
        page.press("control-Voice")
        page.press("lead-mouth")
        page.dialog()
        page.press("voice-by-words" if words else "voice-by-sound")
        if words:
            page.type("[data-test=voice-words]", words)
        page.confirm()

    def open_at(self) -> float:
        return next(one.at for one in self.turns() if one.pose != "closed") / SECOND


class MouthTest(SpokenTest):
    def test_a_mouth_speaks_a_line(self) -> None:
        page = self.browser
        page.press("add-layer")
        page.press("add-mouth")
        page.wait(lambda: len(self.others()) == 2, what="no mouth was added")
        page.press("stage-move")
        page.press("move-part-mouth")
        page.wait(lambda: page.all("[data-test=pose-open] .picture"), what="there are no poses")
        self.lead(LINE)
        page.wait(lambda: len(self.turns()) > 8, what="the voice did not lead it")
        self.assertLess(self.open_at(), LATE + 0.25)

        # A pose is chosen by hand where the playhead stands; led again, it stays.
        page.press("control-Poses")
        self.fingers.tap(self.fingers.middle("[data-test=pose-wide]"))
        page.wait(lambda: self.turns()[0].pose == "wide", what="a tap changed nothing")
        before = self.turns()
        self.lead()
        page.wait(lambda: self.turns() != before, what="the sound did not lead it")
        self.assertEqual(("wide", True), (self.turns()[0].pose, self.turns()[0].by_hand))
        page.press("undo")
        page.press("undo")
        page.wait(lambda: self.turns()[0].pose == "closed", what="nothing was undone")

        page.press("control-Way")
        page.press("way-bouncing")
        page.wait(lambda: self.mouth.way.kind == "bouncing", what="it does not bounce")
        page.press("way-moving")
        page.wait(lambda: self.mouth.way.kind == "moving", what="it does not move")
        self.assert_clean_console()
        self.check(self.exported())

    def check(self, film: Path) -> None:
        shots = decoded(film)
        self.assertEqual(FRAMES, len(shots))
        dark = np.array([(one.max(axis=-1) < 75).sum() for one in shots])
        # Closed before the voice, and where m and p are said; open in its open vowels.
        self.assertLess(dark[:10].max(), 0.1 * dark.max())
        frames = {
            sign: [
                dark[round((one.begin + one.end) / 2 * 30 + LATE * 30)]
                for one in self.reading.said
                if one.sign == sign
            ]
            for sign in ("m", "p", "ʌ", "a")
        }
        shut = np.mean(frames["m"] + frames["p"])
        wide = np.mean(frames["ʌ"] + frames["a"])
        self.assertLess(shut, 0.45 * wide)


class PicturesTest(SpokenTest):
    """Three pictures, one above the other, become a mouth."""

    colours: Final = {"shut": (200, 40, 40), "gape": (40, 200, 40), "ring": (40, 40, 200)}

    def setUp(self) -> None:
        super().setUp()
        folder = Path(self.enterContext(TemporaryDirectory()))
        length = FRAMES * SECOND // 30
        for name, colour in self.colours.items():
            Image.new("RGB", (90, 60), colour).save(folder / f"{name}.png")
            take = self.brought_in(Project.objects.get(), folder / f"{name}.png")
            clip = {"kind": "still", "media": take.id.hex, "name": name, "length": length}
            self.do(kind="place", clip=clip, mode="above", at=0)
        self.browser.driver.refresh()

    def tap_clip(self, name: str) -> None:
        """As soon as it stands still: rows come as the timeline opens."""
        page, seen = self.browser, [dict[str, float]()]

        def stands() -> bool:
            clip = next((one for one in page.all(".clip") if one.text == name), None)
            seen.append(clip.rect if clip else {})
            return bool(seen[-1]) and seen[-1] == seen[-2]

        page.wait(stands, what=f"{name} is not there")
        box = seen[-1]
        self.fingers.tap((box["x"] + 40, box["y"] + box["height"] / 2))

    def test_pictures_become_poses_that_swing(self) -> None:
        page = self.browser
        page.press("open-timeline")
        self.tap_clip("shut")
        page.find(".verb-more").click()
        page.press("several")
        for name in ("gape", "ring"):
            self.tap_clip(name)
        page.press("stage-move")
        page.press("move-part-mouth")
        page.press("make-mouth")
        page.test("pose-open")
        self.assertEqual(["closed", "small", "open"], list(self.mouth.poses))

        # The second is the open one: names and order are put right by taps.
        self.rename("open", "round")
        self.rename("small", "open")
        page.press("pose-after")
        page.wait(
            lambda: list(self.mouth.poses) == ["closed", "round", "open"], what="it is not moved"
        )
        self.lead()
        page.wait(lambda: len(self.turns()) > 4, what="the sound did not lead it")
        self.assertEqual({"closed", "round", "open"}, set(self.mouth.poses))
        page.press("control-Way")
        page.press("way-bouncing")
        page.wait(lambda: self.mouth.way.kind == "bouncing", what="it does not bounce")
        self.assert_clean_console()
        self.check(self.exported())

    def rename(self, pose: str, name: str) -> None:
        page = self.browser
        page.press("control-Its poses")
        Select(page.test("which-pose")).select_by_value(pose)
        page.press("rename-pose")
        page.dialog()
        page.type("[data-test=new-name]", name)
        page.confirm()
        page.wait(lambda: name in self.mouth.poses, what="it has its old name")

    def check(self, film: Path) -> None:
        """Before the voice the first picture, later the second and the third, each by itself."""
        shots = decoded(film)
        self.assertEqual(FRAMES, len(shots))
        middle = [shot[SIZE[1] // 2, SIZE[0] // 2] for shot in shots]
        seen = [int(colour.argmax()) for colour in middle]
        self.assertEqual({0}, set(seen[:10]))
        poses = list(self.mouth.poses)
        shown = {"closed": 0, "open": 1, "round": 2}
        for number in range(FRAMES):
            pose = self.mouth.pose_at(number * SECOND // 30)
            self.assertIn(pose, poses)
            self.assertEqual(shown[pose], seen[number], number)
        # Each swings: what is seen of the pictures is now wider, now narrower.
        wide = {
            int((shot[SIZE[1] // 2].max(axis=-1) - shot[SIZE[1] // 2].min(axis=-1) > 90).sum())
            for shot in shots
        }
        self.assertGreater(max(wide) - min(wide), 20)
