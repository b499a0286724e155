"""On a phone: a mouth is drawn, led by the words of a voice, mended by taps; the film shows it speak."""

from __future__ import annotations

from pathlib import Path
from tempfile import TemporaryDirectory

import av
import numpy as np
from numpy.typing import NDArray

from browser_tests.one_take import OneTakeTest
from kitecore.document import MouthClip, Turn
from kitecore.media.tests.material import make_video, make_wav
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


class MouthTest(OneTakeTest):
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

    def open_at(self) -> float:
        return next(one.at for one in self.turns() if one.pose != "closed") / SECOND

    def check(self, film: Path) -> None:
        with av.open(str(film)) as container:
            shots = [one.to_ndarray(format="rgb24") for one in container.decode(video=0)]
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
