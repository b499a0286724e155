"""The same words spoken twice: the best parts of both are heard, chosen on a phone."""

from __future__ import annotations

from pathlib import Path
from tempfile import TemporaryDirectory

from browser_tests.one_project import OneProjectTest
from kitecore.document import SoundClip
from kitecore.media.tests.material import make_wav, tone
from studio.tests.site import SECOND

LENGTH = 6


class SpokenTakesTest(OneProjectTest):
    def setUp(self) -> None:
        super().setUp()
        self.begin("Wind report", (180, 320))
        self.step(kind="place", clip={"kind": "solid", "length": LENGTH * SECOND})
        folder = Path(self.enterContext(TemporaryDirectory()))
        self.names: dict[str, str] = {}
        for name, frequency in {"first": 330, "second": 660}.items():
            make_wav(folder / f"{name}.wav", 0.5 * tone(LENGTH, frequency=frequency))
            media = self.brought_in(self.project, folder / f"{name}.wav").id.hex
            self.names[media] = name
            clip = {"kind": "sound", "name": "Voice", "media": media, "length": LENGTH * SECOND}
            self.step(
                kind="place", clip={**clip, "source_length": LENGTH * SECOND}, mode="above", at=0
            )
        self.browser.open(f"/projects/{self.project.id}/mix")
        self.browser.drawn(0)

    def heard(self) -> list[tuple[str, float, float]]:
        """Which recording is heard, from which second on and until which."""
        sounds = [clip for _, clip in self.document().clips() if isinstance(clip, SoundClip)]
        return [
            (self.names[clip.media], clip.start / SECOND, clip.end / SECOND)
            for clip in sorted(sounds, key=lambda clip: (clip.start, clip.media))
            if not clip.muted
        ]

    def hear(self, name: str) -> None:
        [button] = [one for one in self.browser.all("[data-test=hear-take]") if name in one.text]
        button.click()

    def until_heard(self, *parts: tuple[str, float, float]) -> None:
        self.until(lambda: self.heard() == [*parts], f"{parts} is not what is heard")

    def test_one_then_the_other_then_the_first_again(self) -> None:
        page = self.browser
        self.take("Voice")
        page.resize((390, 844), touch=True)
        page.press("control-Takes")
        self.hear("first")
        self.until_heard(("first", 0, 6))
        self.go(60)
        self.hear("second")
        self.until_heard(("first", 0, 2), ("second", 2, 6))
        self.go(75)
        self.hear("first")
        self.until_heard(("first", 0, 2), ("second", 2, 2.5), ("first", 2.5, 6))
        page.press("undo")
        self.until_heard(("first", 0, 2), ("second", 2, 6))
