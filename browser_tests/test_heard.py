"""What is heard while a film plays and is changed."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path
from tempfile import TemporaryDirectory
from typing import Any

import numpy as np

from browser_tests.one_project import OneProjectTest
from kitecore.media.tests.material import make_wav, tone
from kitecore.sound.ramps import RATE
from studio.tests.site import SECOND

_LISTEN = """
const done = arguments[arguments.length - 1]
const context = new AudioContext({ sampleRate: arguments[0] })
const source = context.createMediaElementSource(document.querySelector('[data-test=moving]'))
const block = context.createScriptProcessor(4096, 2, 2)
window.heard = []
block.onaudioprocess = (event) => window.heard.push([...event.inputBuffer.getChannelData(0)])
source.connect(block).connect(context.destination)
context.resume().then(done)
"""
LOUD = 0.05
PITCH = 440


class HeardTest(OneProjectTest):
    def setUp(self) -> None:
        super().setUp()
        self.begin("A long tone", (180, 320))
        folder = Path(self.enterContext(TemporaryDirectory()))
        make_wav(folder / "tone.wav", tone(8, frequency=PITCH))
        take = self.brought_in(self.project, folder / "tone.wav")
        self.step(kind="place", clip={"kind": "solid", "name": "dusk", "length": 8 * SECOND})
        clip = {"kind": "sound", "name": "tone", "media": take.id.hex, "length": 8 * SECOND}
        clip["source_length"] = 8 * SECOND
        self.step(kind="place", clip=clip, mode="above", at=0)

    def play(self, change: Callable[[], Any]) -> np.ndarray:
        """What is heard of the film while it is changed at about frame 40."""
        page = self.browser
        page.driver.execute_async_script(_LISTEN, RATE)
        page.press("play")
        page.wait(lambda: page.frame() > 40, what="it does not play")
        change()
        page.wait(lambda: page.frame() > 110, what="it does not go on")
        page.press("play")
        heard = np.concatenate([np.array(one) for one in page.run("return window.heard")])
        sounding = np.flatnonzero(np.abs(heard) > LOUD)
        return heard[sounding[0] + 2000 : sounding[-1] - 2000]

    def test_a_change_of_pictures_is_not_heard(self) -> None:
        page = self.browser
        page.open(f"/projects/{self.project.id}/gather")
        page.drawn(0)
        page.find(f'[data-clip="{self.document().main.clips[0].id}"] .face').click()
        heard = self.play(lambda: page.find("body").send_keys("d"))
        self.assertEqual(2, len(self.document().main.clips))
        # A sine goes on from two samples to the next; a click, or a gap, does not.
        turn = 2 * np.cos(2 * np.pi * PITCH / RATE)
        self.assertLess(np.abs(heard[2:] - turn * heard[1:-1] + heard[:-2]).max(), 0.002)

    def test_a_change_of_sound_is_heard_without_a_stop(self) -> None:
        page = self.browser
        page.open(f"/projects/{self.project.id}/mix")
        page.drawn(0)
        gain = page.find("[data-test=strip-film] .exact input")
        set_gain = "arguments[0].value = '-6'; arguments[0].dispatchEvent(new Event('change'))"
        heard = self.play(lambda: page.run(set_gain, gain))
        levels = np.array([np.abs(part).max() for part in np.array_split(heard, 100)])
        first, last = levels[:5].mean(), levels[-5:].mean()
        self.assertAlmostEqual(10 ** (-6 / 20), last / first, delta=0.02)
        self.assertGreater(levels.min(), 0.9 * last)
